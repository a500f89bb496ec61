import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { ListRow, RecordType, RowChange, RowChanges } from '../api/generated';
import { changeInTurns, goOn, tryChanges, undoing, type Change } from './changing';

const sent: RowChanges[] = [];
/** What becomes of the next requests: whether each arrives, and is answered. */
let network: ('ok' | 'lost' | 'answer lost')[] = [];
const done = new Map<string, number>();

vi.mock('../api/generated', () => ({
  changeRows: ({ body }: { body: RowChanges }) => {
    sent.push(body);
    const way = network.shift() ?? 'ok';
    if (way === 'lost') {
      return Promise.reject(new TypeError('lost'));
    }
    const outcomes = body.rows.map((row) => outcomeOf(row));
    return way === 'ok' ? Promise.resolve({ data: outcomes, response: { ok: true } }) : Promise.reject(new TypeError('lost'));
  },
}));

/** The real server as far as it counts here: what comes with a ticket that it knows is answered as it was. */
function outcomeOf({ id, version, ticket, changes }: RowChange) {
  const known = done.get(ticket ?? '');
  const now = known ?? version + 1;
  done.set(ticket ?? '', now);
  return {
    id,
    row: { ...row(id), version: now, values: changes },
    refusals: [],
    replaced: Object.fromEntries(Object.keys(changes).map((field) => [field, 'before'])),
  };
}

const type = {
  key: 'loan',
  forms: [
    { key: 'main', tabs: [{ sections: [{ fields: ['a'] }] }] },
    { key: 'second', tabs: [{ sections: [{ fields: ['b'] }] }] },
  ],
  workflows: [{ key: 'w', moves: [{ key: 'back', from: 't', to: 's' }] }],
} as unknown as RecordType;

const row = (id: number) => ({ id, version: 1, workflow: 'w', stage: 's', values: {} }) as unknown as ListRow;
const changes = (count: number, values: Change['changes'] = { a: 'x' }): Change[] =>
  Array.from({ length: count }, (_, i) => ({ row: row(i + 1), changes: values }));

beforeEach(() => {
  vi.useFakeTimers();
  sent.length = 0;
  network = [];
  done.clear();
});
afterEach(() => void vi.useRealTimers());

async function through<T>(act: Promise<T>): Promise<T> {
  await vi.advanceTimersByTimeAsync(60_000);
  return act;
}

it('sends a hundred rows at once, and what stands on another form after the rest of its row, on what that made of it', async () => {
  const came = await through(changeInTurns(type, [], changes(150, { a: 'x', b: 'y' })));

  expect(sent.map(({ rows }) => [rows.length, rows[0]?.form, rows[0]?.version])).toEqual([
    [100, 'main', 1],
    [50, 'main', 1],
    [100, 'second', 2],
    [50, 'second', 2],
  ]);
  expect(came).toMatchObject({ rest: [] });
  expect(came.steps).toHaveLength(300);
});

it('tells what was done where the server is lost on the way, and goes on with the rest', async () => {
  network = ['ok', 'lost', 'lost', 'lost'];
  const first = await through(changeInTurns(type, [], changes(250)));
  expect(first.steps).toHaveLength(100);
  expect(first.rest.flat()).toHaveLength(150);
  expect(first.problem?.title).toBe('The server does not answer.');

  const then = await through(goOn(type, [], first));
  expect(then.steps).toHaveLength(250);
  expect(then.rest).toEqual([]);
});

it('does nothing twice where only the answer was lost', async () => {
  network = ['answer lost', 'answer lost', 'answer lost'];
  const first = await through(changeInTurns(type, [], changes(3)));
  expect(first.steps).toEqual([]);

  const then = await through(goOn(type, [], first));
  expect(then.steps.map(({ outcome }) => outcome.row?.version)).toEqual([2, 2, 2]);
  expect(new Set(sent.map(({ rows }) => rows[0]?.ticket)).size).toBe(1);
});

it('only tries what is not to be stored', async () => {
  await through(tryChanges(type, [], changes(2)));
  expect(sent.map(({ isTrial }) => isTrial)).toEqual([true]);
});

it('undoes what was replaced, by the first who knew what stood there, and a move where one leads back', async () => {
  const { steps } = await through(changeInTurns(type, [], changes(1, { a: 'x', b: 'y' })));
  expect(undoing(type, steps)).toMatchObject([{ changes: { a: 'before', b: 'before' } }]);

  const moved = steps.map((step) => ({ ...step, outcome: { ...step.outcome, row: { ...step.outcome.row!, stage: 't' } } }));
  expect(undoing(type, moved)).toMatchObject([{ move: 'back' }]);
  const away = moved.map((step) => ({ ...step, outcome: { ...step.outcome, row: { ...step.outcome.row, stage: 'u' } } }));
  expect(undoing(type, away)).toEqual([]);
});
