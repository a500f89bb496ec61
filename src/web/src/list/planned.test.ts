import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { planned } from './planned';

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal('window', globalThis);
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

it('is done once, however often it is asked for, and put off by nothing', () => {
  const act = vi.fn();
  const plan = planned(act);
  for (let i = 0; i < 15; i++) {
    plan.within(1000);
    vi.advanceTimersByTime(100);
  }
  expect(act).toHaveBeenCalledTimes(1);
});

it('is done sooner where somebody asks for that, and not at all where it is stopped', () => {
  const act = vi.fn();
  const plan = planned(act);
  plan.within(15_000);
  plan.within(1000);
  vi.advanceTimersByTime(1000);
  expect(act).toHaveBeenCalledTimes(1);
  plan.within(1000);
  plan.stop();
  vi.advanceTimersByTime(20_000);
  expect(act).toHaveBeenCalledTimes(1);
});
