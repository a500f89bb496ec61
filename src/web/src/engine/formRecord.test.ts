import { expect, it } from 'vitest';
import type { RecordView } from '../api/generated';
import { absent, readBits } from './formRecord';
import { ServedRecord } from './servedRecord';

it('reads a state as the engine packs it', () => {
  expect(readBits(1)).toMatchObject({ isVisible: true, isLocked: false, requirement: 'optional' });
  expect(readBits(0b000111)).toMatchObject({ isVisible: true, isLocked: true, requirement: 'toMoveOn' });
  expect(readBits(0b111000)).toMatchObject({ isVisible: false, requirement: 'toSave', isSuspended: true, isSetAside: true });
});

it('works with the states of the server where there is no engine', () => {
  const record = new ServedRecord({
    values: { title: 'Lantern' },
    states: [{ element: { kind: 'field', key: 'title' }, bits: 9 }],
  } as unknown as RecordView);
  let told = 0;
  record.subscribe(() => told++);

  record.change('title', 'Lanterns');

  expect(told).toBe(1);
  expect(record.value('title')).toBe('Lanterns');
  expect(record.changes()).toEqual({ title: 'Lanterns' });
  expect(record.state('field', 'title').requirement).toBe('toSave');
  expect(record.state('field', 'elsewhere')).toBe(absent);
});
