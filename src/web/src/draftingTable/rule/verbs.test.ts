import { describe, expect, it } from 'vitest';
import type { Effect } from '../../api/generated';
import { withEffect, withVerbs } from './verbs';

const fee = { kind: 'field', key: 'fee' } as const;
const begun: Effect = { kind: 'require', targets: [], level: 'toMoveOn' };

describe('effects of a case', () => {
  it('that are begun as one verb act on the same', () => {
    const effects = withEffect(withVerbs(begun, 'resetAndLock'), 0, [{ kind: 'reset', field: 'fee' }]);
    expect(effects).toEqual([
      { kind: 'reset', field: 'fee' },
      { kind: 'lock', targets: [fee] },
    ]);
  });

  it('keep what they act on when another one changes', () => {
    const effects: Effect[] = [
      { kind: 'show', targets: [fee] },
      { kind: 'lock', targets: [] },
    ];
    expect(withEffect(effects, 0, [{ kind: 'hide', targets: [fee], value: 'keep' }])[1]).toEqual({ kind: 'lock', targets: [] });
  });
});
