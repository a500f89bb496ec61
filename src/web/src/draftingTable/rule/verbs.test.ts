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

  it('that are begun as one verb go on together while more is ticked, and part once they act on different things', () => {
    const valuer = { kind: 'field', key: 'valuer' } as const;
    const one = withEffect(withVerbs(begun, 'showAndRequire'), 0, [{ kind: 'show', targets: [fee] }]);
    const two = withEffect(one, 0, [{ kind: 'show', targets: [fee, valuer] }]);
    expect(two).toEqual([
      { kind: 'show', targets: [fee, valuer] },
      { kind: 'require', targets: [fee, valuer], level: 'toMoveOn' },
    ]);
    const parted = withEffect(two, 1, [{ kind: 'require', targets: [fee], level: 'toMoveOn' }]);
    expect(withEffect(parted, 0, [{ kind: 'show', targets: [fee, valuer, { kind: 'field', key: 'title' }] }])[1]).toEqual(
      parted[1],
    );
  });

  it('keep what they act on when another one changes', () => {
    const effects: Effect[] = [
      { kind: 'show', targets: [fee] },
      { kind: 'lock', targets: [] },
    ];
    expect(withEffect(effects, 0, [{ kind: 'hide', targets: [fee], value: 'keep' }])[1]).toEqual({ kind: 'lock', targets: [] });
  });
});
