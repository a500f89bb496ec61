import { expect, it } from 'vitest';
import { Engine, EngineError } from './engine';
import { FakeWorker } from './fakeWorker';

function begun() {
  const workers: FakeWorker[] = [];
  const engine = new Engine(() => {
    workers.push(new FakeWorker());
    return workers.at(-1)!;
  });
  return { engine, workers };
}

it('starts no worker before it is asked something', async () => {
  const { engine, workers } = begun();
  expect(workers).toHaveLength(0);

  const answer = engine.ask('vocabulary', 7);
  await workers[0]!.answer({ subjects: [], targets: [] });

  expect(await answer).toEqual({ subjects: [], targets: [] });
  expect(workers).toHaveLength(1);
});

it('gives each answer to its question, however late', async () => {
  const { engine, workers } = begun();
  const [first, second] = [engine.ask('clauses', 1, 0), engine.ask('clauses', 1, 1)];

  workers[0]!.asked.reverse();
  await workers[0]!.answer(['second']);
  await workers[0]!.answer(['first']);

  expect([await first, await second]).toEqual([['first'], ['second']]);
});

it('fails what a dead worker owes, and starts another with the next question', async () => {
  const { engine, workers } = begun();
  const lost = engine.ask('outlook', 1).catch((reason: unknown) => reason);
  let mourned = 0;
  engine.onDeath(() => mourned++);

  await workers[0]!.die();

  expect(await lost).toBeInstanceOf(EngineError);
  expect([mourned, engine.generation, workers[0]!.isTerminated]).toEqual([1, 1, true]);
  void engine.ask('outlook', 1);
  expect(workers).toHaveLength(2);
});

it('gives up where workers die one after another, until one has answered', async () => {
  const { engine, workers } = begun();
  for (let death = 0; death < 3; death++) {
    void engine.ask('outlook', 1).catch(() => undefined);
    await workers.at(-1)!.die();
  }

  await expect(engine.ask('outlook', 1)).rejects.toThrow('does not stay alive');
  expect(workers).toHaveLength(3);
});
