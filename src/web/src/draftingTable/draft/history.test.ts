import { expect, test } from 'vitest';
import type { Definition } from '../../api/generated';
import { walk, type History } from './history';

const definition = (name: string, reason: string | null = null): Definition =>
  ({ recordType: type, rules: [{ key: 'a', name, reason, cases }] }) as unknown as Definition;
const type = {};
const cases: never[] = [];
const begun: History = { past: [], present: definition(''), future: [] };

test('typing in a text is one step', () => {
  const typed = ['F', 'Fe', 'Fee'].reduce(
    (history, name) => walk(history, { kind: 'change', definition: definition(name) }),
    begun,
  );

  expect(typed.past).toEqual([begun.present]);
  expect(walk(typed, { kind: 'undo' }).present).toBe(begun.present);
});

test('typing in another text is another step', () => {
  const named = walk(begun, { kind: 'change', definition: definition('Fee') });
  const reasoned = walk(named, { kind: 'change', definition: definition('Fee', 'Ada asked') });

  expect(walk(reasoned, { kind: 'undo' }).present.rules[0]!.name).toBe('Fee');
});

test('what follows from a step is undone with it', () => {
  const changed = walk(begun, { kind: 'change', definition: definition('x', 'y') });
  const amended = walk(changed, { kind: 'amend', rule: 'a', change: { name: 'Lock Fee' } });

  expect(amended.present.rules[0]!.name).toBe('Lock Fee');
  expect(walk(amended, { kind: 'undo' }).present).toBe(begun.present);
});

test('what was undone comes back', () => {
  const changed = walk(begun, { kind: 'change', definition: definition('x') });

  expect(walk(walk(changed, { kind: 'undo' }), { kind: 'redo' }).present).toBe(changed.present);
});
