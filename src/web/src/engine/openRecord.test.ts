import { expect, it } from 'vitest';
import type { RecordType } from '../api/generated';
import type { Delta, Opened } from './answers';
import { absent, readBits } from './elementState';
import { Engine } from './engine';
import { FakeWorker, settled } from './fakeWorker';
import { OpenRecord, trialOf, type RecordSource } from './openRecord';

const text = (key: string) => ({ key, label: key, type: { kind: 'text' } });
const fieldCount = 40;
const keys = Array.from({ length: fieldCount }, (_, i) => `f${i}`);
const type = { key: 'loan', fields: keys.map(text) } as unknown as RecordType;
const shown = 1;
const locked = 3;

const source: RecordSource = {
  recordType: 'loan',
  form: 'main',
  forms: ['main'],
  values: { f0: 'Lantern' },
  setting: { workflow: 'standard', stage: 'enquiry' } as RecordSource['setting'],
  linked: [],
  states: keys.map((key) => ({ element: { kind: 'field', key }, bits: shown })),
};

const delta = (part: Partial<Delta> = {}): Delta => ({
  elements: [],
  values: [],
  cases: [],
  changed: 0,
  setAside: [],
  isSettled: true,
  ...part,
});

const opened = (session: number): Opened => ({
  session,
  elements: keys.map((key, number) => ({ number, kind: 'field', key })),
  all: delta(),
  unheld: [],
  read: [],
});

/** A record that is live, with the worker that answers it. */
async function live() {
  const workers: FakeWorker[] = [];
  const engine = new Engine(() => {
    workers.push(new FakeWorker());
    return workers.at(-1)!;
  });
  const record = new OpenRecord(engine, type, source);
  void record.open(() => Promise.resolve(1));
  await settled();
  await workers[0]!.answer(opened(5));
  return { record, workers, worker: workers[0]! };
}

it('keeps what was typed before it went live and no field can hold, with what is said of it', async () => {
  const worker = new FakeWorker();
  const record = new OpenRecord(new Engine(() => worker), type, source, trialOf(source, { f1: 'a lot' }));
  void record.open(() => Promise.resolve(1));
  await settled();
  await worker.answer({ ...opened(5), unheld: [delta({ refused: 1, violations: [1, 'This field takes a number.'] })] });

  expect(record.value('f1')).toBe('a lot');
  expect(record.field('f1').violation).toBe('This field takes a number.');
});

it('reads a state as the engine packs it', () => {
  expect(readBits(shown)).toMatchObject({ isVisible: true, isLocked: false, requirement: 'optional' });
  expect(readBits(0b000111)).toMatchObject({ isVisible: true, isLocked: true, requirement: 'toMoveOn' });
  expect(readBits(0b111000)).toMatchObject({ isVisible: false, requirement: 'toSave', isSuspended: true, isSetAside: true });
});

it('shows the states of the server, and takes what is typed, before there is an engine', async () => {
  const record = new OpenRecord(new Engine(() => new FakeWorker()), type, source);

  record.change('f0', 'Lanterns');

  expect(record.field('f0').value).toBe('Lanterns');
  expect(record.field('f0').state.isVisible).toBe(true);
  expect(record.state('field', 'elsewhere')).toBe(absent);
  expect(record.whole()).toMatchObject({ isLive: false, changed: 1 });
  expect(await record.changes()).toEqual({ changes: { f0: 'Lanterns' }, setAside: {} });
});

it('hands over what was typed before it went live, and what was typed on the way', async () => {
  const worker = new FakeWorker();
  const record = new OpenRecord(new Engine(() => worker), type, source);
  record.change('f1', 'before');
  void record.open(() => Promise.resolve(1));
  await settled();
  record.change('f2', 'on the way');

  expect(worker.asked[0]!.operands.at(-1)).toEqual([[1, 'before']]);
  await worker.answer(opened(5));

  expect(worker.asked.map(({ operation, operands }) => [operation, ...operands])).toEqual([
    ['change', 5, 2, 'on the way', false],
  ]);
  expect(record.field('f2').value).toBe('on the way');
});

it('keeps what is typed in its box while answers are under way', async () => {
  const { record, worker } = await live();
  record.change('f0', 'a');
  record.change('f0', 'ab');

  await worker.answer(delta({ values: [0, 'a'], changed: 1 }));
  expect(record.field('f0').value).toBe('ab');

  await worker.answer(delta({ values: [0, 'ab'], changed: 1 }));
  expect(record.field('f0').value).toBe('ab');
});

it('shows what a rule made of a change once it is answered', async () => {
  const { record, worker } = await live();
  record.change('f0', 'typed into what gets locked');

  await worker.answer(delta({ elements: [0, locked], setAside: ['f0'] }));

  expect(record.field('f0')).toMatchObject({ value: 'Lantern', state: { isLocked: true } });
  expect(record.whole().setAside).toEqual(['f0']);
});

it('leaves standing what a field cannot hold, and sends it along with a save so that it is refused there', async () => {
  const { record, worker } = await live();
  record.change('f0', 7);

  await worker.answer(delta({ refused: 0, violations: [0, 'This field takes text.'] }));
  const changes = record.changes();
  await worker.answer({ changes: {}, setAside: {} });

  expect(record.field('f0')).toMatchObject({ value: 7, violation: 'This field takes text.' });
  expect((await changes).changes).toEqual({ f0: 7 });
});

it('opens itself again, with all that was typed, where the engine dies', async () => {
  const { record, workers, worker } = await live();
  record.change('f0', 'answered');
  await worker.answer(delta({ values: [0, 'answered'], changed: 1 }));
  record.change('f3', 'under way');

  await worker.die();

  expect(record.whole().isLive).toBe(false);
  expect([record.field('f0').value, record.field('f3').value]).toEqual(['answered', 'under way']);
  expect(workers[1]!.asked[0]!.operands.at(-1)).toEqual([
    [0, 'answered'],
    [3, 'under way'],
  ]);
  await workers[1]!.answer(opened(1));
  expect(record.whole().isLive).toBe(true);
});

it('tells a key to the field itself and to those that differ, and to no other', async () => {
  const { record, worker } = await live();
  const drawn = new Map<string, number>();
  const views = new Map(keys.map((key) => [key, record.field(key)]));
  keys.forEach((key) =>
    record.subscribe(`field:${key}`, () => {
      // React draws anew only where what it looks at is another object.
      if (views.get(key) !== record.field(key)) {
        views.set(key, record.field(key));
        drawn.set(key, (drawn.get(key) ?? 0) + 1);
      }
    }),
  );

  record.change('f0', 'x');
  await worker.answer(delta({ values: [0, 'x'], elements: [7, locked, 8, shown], changed: 1 }));

  expect([...drawn.keys()].sort()).toEqual(['f0', 'f7']);
});

it('leaves no session behind where it is closed while the engine opens it', async () => {
  const worker = new FakeWorker();
  const record = new OpenRecord(new Engine(() => worker), type, source);
  void record.open(() => Promise.resolve(1));
  await settled();
  record.close();
  await worker.answer(opened(5));

  expect(worker.asked.map(({ operation, operands }) => [operation, ...operands])).toEqual([['closeSession', 5]]);
});

it('has what is typed into the one before it, when both are open on the same', () => {
  const pending = trialOf(source, { f1: 'first' });
  const before = new OpenRecord(new Engine(() => new FakeWorker()), type, source, pending);
  const next = new OpenRecord(new Engine(() => new FakeWorker()), type, source, pending);

  before.change('f2', 'second');

  expect(next.unsaved()).toEqual({ f1: 'first', f2: 'second' });
  expect(next.field('f2').value).toBe('second');
});

it('has what is typed count as soon as it can be read, and keeps it as the value that it says', async () => {
  const { record, worker } = await live();

  record.typing('f0', '1 Ma');
  await worker.answer(delta({ refused: 0 }));
  expect(record.field('f0')).toMatchObject({ value: '1 Ma', violation: '' });
  expect(record.unsaved()).toEqual({ f0: '1 Ma' });

  record.change('f0', '1 Mar 2027');
  await worker.answer(delta({ values: [0, '2027-03-01'], read: '2027-03-01', changed: 1 }));
  expect(record.field('f0').value).toBe('2027-03-01');
  expect(record.unsaved()).toEqual({ f0: '2027-03-01' });
});

it('asks what a text means that may mean several things, until that is said', async () => {
  const { record, worker } = await live();
  const choices = [
    { value: '2027-04-03', text: '3 Apr 2027' },
    { value: '2027-03-04', text: '4 Mar 2027' },
  ];

  record.change('f0', '3/4/2027');
  await worker.answer(delta({ refused: 0, violations: [0, '“3/4/2027” may be…'], choices }));
  expect(record.field('f0')).toMatchObject({ value: '3/4/2027', possible: choices });

  record.change('f0', '2027-04-03');
  await worker.answer(delta({ values: [0, '2027-04-03'], violations: [0, ''], changed: 1 }));
  expect(record.field('f0')).toMatchObject({ value: '2027-04-03', possible: [], violation: '' });
});
