import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Problem } from '../api/client';
import { attempt, delayAfter, isPassing } from './retry';
import { Sending } from './sending';

const unreachable: Problem = { title: 'The server does not answer.' };
const refused: Problem = { status: 422, title: 'Something speaks against this.' };

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** Fails so often, and then does it. */
function failing(times: number, problem: Problem) {
  let left = times;
  return vi.fn(() => (left-- > 0 ? Promise.reject(problem as unknown as Error) : Promise.resolve('done')));
}

it.each([
  [undefined, true],
  [408, true],
  [429, true],
  [503, true],
  [500, false],
  [409, false],
  [401, false],
])('what is answered with %s passes by itself: %s', (status, passes) => {
  expect(isPassing({ status })).toBe(passes);
});

it('waits longer after each failure, and not for ever', () => {
  const delays = Array.from({ length: 8 }, (_, i) => delayAfter(i + 1));
  expect(delays.slice(0, 4)).toEqual([1000, 2000, 4000, 8000]);
  expect(Math.max(...delays)).toBe(15_000);
});

it('tries again for somebody who waits what failed in a way that passes, and gives up after a while', async () => {
  const [soon, late, never] = [failing(2, unreachable), failing(9, unreachable), failing(1, refused)];
  const all = Promise.allSettled([attempt(soon), attempt(late), attempt(never)]);
  await vi.advanceTimersByTimeAsync(60_000);

  expect((await all).map(({ status }) => status)).toEqual(['fulfilled', 'rejected', 'rejected']);
  expect([soon, late, never].map((act) => act.mock.calls.length)).toEqual([3, 3, 1]);
});

it('sends again and again until it arrives, one sending at a time, and says why not meanwhile', async () => {
  const problems: (Problem | undefined)[] = [];
  const act = failing(3, unreachable);
  const sending = new Sending(
    () => act().then(() => undefined),
    (problem) => problems.push(problem),
  );
  sending.soon(300);
  sending.soon(300);
  await vi.advanceTimersByTimeAsync(60_000);

  expect(act).toHaveBeenCalledTimes(4);
  expect(problems).toEqual([unreachable, unreachable, unreachable, undefined]);
});

it('leaves what is refused alone until it is asked to send again, and sends nothing once it is closed', async () => {
  const act = failing(1, refused);
  const sending = new Sending(
    () => act().then(() => undefined),
    () => undefined,
  );
  sending.soon(0);
  await vi.advanceTimersByTimeAsync(60_000);
  expect(act).toHaveBeenCalledTimes(1);

  sending.soon(0);
  await vi.advanceTimersByTimeAsync(1000);
  expect(act).toHaveBeenCalledTimes(2);

  await sending.close();
  expect(act).toHaveBeenCalledTimes(3);
  sending.soon(0);
  await vi.advanceTimersByTimeAsync(1000);
  expect(act).toHaveBeenCalledTimes(3);
});
