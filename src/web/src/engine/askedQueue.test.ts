import { expect, it } from 'vitest';
import { AskedQueue } from './askedQueue';
import { settled } from './fakeWorker';
import type { Reply, Request } from './worker';

const asked = (id: number, operation: Request['operation'], ...operands: unknown[]): Request => ({ id, operation, operands });

/** A queue with what was run in it, and what was answered. */
function queue() {
  const ran: number[] = [];
  const answered: Reply[] = [];
  const queue = new AskedQueue(
    ({ id }) => {
      ran.push(id);
      return Promise.resolve({ id, result: id });
    },
    (reply) => answered.push(reply),
  );
  return { queue, ran, answered };
}

const empty = async () => {
  for (let i = 0; i < 10; i++) {
    await settled();
  }
};

it('has keys before the outlook, and keeps their order', async () => {
  const { queue: to, ran } = queue();
  to.add(asked(1, 'outlook', 5));
  to.add(asked(2, 'change', 5, 0, 'a'));
  to.add(asked(3, 'change', 5, 0, 'ab'));
  await empty();

  expect(ran).toEqual([2, 3, 1]);
});

it('looks ahead once for all who asked of one session meanwhile', async () => {
  const { queue: to, ran, answered } = queue();
  [1, 2, 3].forEach((id) => to.add(asked(id, 'outlook', 5)));
  to.add(asked(4, 'outlook', 6));
  await empty();

  expect(ran).toEqual([1, 4]);
  expect(answered).toEqual([1, 2, 3, 4].map((id) => ({ id, result: id === 4 ? 4 : 1 })));
});

it('answers everything, however it comes in', async () => {
  const { queue: to, answered } = queue();
  for (let id = 0; id < 50; id++) {
    to.add(asked(id, id % 3 ? 'change' : 'outlook', id % 2));
    if (id % 7 === 0) {
      await settled();
    }
  }
  await empty();
  await empty();

  expect(answered.map(({ id }) => id).sort((one, other) => one - other)).toEqual(Array.from({ length: 50 }, (_, id) => id));
});
