import { expect, it } from 'vitest';
import type { Definition, Rule } from '../api/generated';
import type { Delta } from './answers';
import { DraftProgram } from './draftProgram';
import { Engine } from './engine';
import { FakeWorker, settled } from './fakeWorker';
import { OpenRecord } from './openRecord';

const rule = (name: string) => ({ key: name, name, cases: [] }) as unknown as Rule;
const type = { key: 'loan', fields: [{ key: 'title', type: { kind: 'text' } }] };
const definition = (...rules: Rule[]) => ({ recordType: type, rules }) as unknown as Definition;
const problems = { type: [], rules: new Map() };
const delta: Delta = { elements: [], values: [], cases: [], changed: 0, setAside: [], isSettled: true };

function begun(first: Definition, mostKept?: number) {
  const worker = new FakeWorker();
  const engine = new Engine(() => worker);
  return { worker, engine, program: new DraftProgram(engine, first, mostKept) };
}

it('hands over only the rules that an edit brings, and the numbers of the others', async () => {
  const [crate, courier, fee, edited] = [rule('crate'), rule('courier'), rule('fee'), rule('courier at last')];
  const { worker, program } = begun(definition(crate, courier, fee));
  void program.edit(definition(fee, crate, edited));
  await worker.answer({ program: 1, problems });
  expect(worker.asked[0]!.operands).toEqual([1, [2, 0, edited], undefined]);

  await worker.answer({ problems });
  void program.edit(definition(edited, courier));
  await settled();

  expect(worker.asked[0]!.operands).toEqual([1, [3, 1], undefined]);
});

it('hands all rules over anew after very many edits, so that those of long ago are forgotten there', async () => {
  const [crate, fee] = [rule('crate'), rule('fee')];
  const { worker, program } = begun(definition(crate, fee), 20);
  void program.edit(definition(crate, fee));
  await worker.answer({ program: 1, problems });
  await worker.answer({ problems });
  const sent: unknown[] = [];
  for (let edits = 0; edits < 40; edits++) {
    void program.edit(definition(crate, rule(`fee ${edits}`)));
    await settled();
    sent.push(worker.asked[0]!.operands[1]);
    await worker.answer({ problems });
  }

  const whole = sent.filter((rules) => typeof (rules as unknown[])[0] === 'object');
  expect(whole).toHaveLength(1);
  void program.edit(definition(crate, fee));
  await settled();
  expect((worker.asked[0]!.operands[1] as unknown[])[0]).toBe(0);
});

it('hands the whole draft over again where an edit could not be taken in', async () => {
  const [crate, broken, mended] = [rule('crate'), rule('broken'), rule('mended')];
  const { worker, program } = begun(definition(crate));
  const failed = program.edit(definition(crate, broken)).catch((reason: unknown) => reason);
  await worker.answer({ program: 1, problems });
  worker.onmessage?.({ data: { id: worker.asked.shift()!.id, error: 'no such kind' } } as never);
  expect(await failed).toBeInstanceOf(Error);

  void program.edit(definition(crate, mended));
  await settled();

  expect(worker.asked[0]).toMatchObject({ operation: 'draft', operands: [definition(crate, broken)] });
});

it('carries a record over to what was edited while it was being opened', async () => {
  const [before, after] = [definition(rule('before')), definition(rule('after'))];
  const { worker, engine, program } = begun(before);
  const source = { recordType: 'loan', form: 'main', forms: [], values: {}, setting: {} as never, linked: [], states: [] };
  const record = new OpenRecord(engine, before.recordType, source, undefined, false);
  const opening = program.open(record);
  await worker.answer({ program: 1, problems });
  void program.edit(after, record);
  await settled();

  await worker.answer({ session: 5, elements: [], all: delta, unheld: [], read: [] });
  await worker.answer({ problems });
  expect(worker.asked[0]).toMatchObject({ operation: 'edit', operands: [1, [0], 5] });
  await worker.answer({ problems, delta });
  await opening;

  expect(record.whole().isLive).toBe(true);
});
