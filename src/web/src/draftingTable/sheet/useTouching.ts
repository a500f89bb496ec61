import { useEffect, useState } from 'react';
import type { Rule } from '../../api/generated';
import type { DraftProgram } from '../../engine/draftProgram';
import { Touching } from './touching';

/** Which rules touch which element; what jumps and ends skip comes from the engine a moment later. */
export function useTouching(rules: Rule[], program: DraftProgram): Touching {
  const [touching] = useState(() => new Touching(rules));
  useEffect(() => {
    let isWanted = true;
    touching.take(rules);
    if (rules.some(skips)) {
      program.skipped().then(
        (skipped) => isWanted && touching.take(rules, skipped),
        () => undefined,
      );
    }
    return () => {
      isWanted = false;
    };
  }, [touching, rules, program]);
  return touching;
}

const skips = (rule: Rule) =>
  (rule.cases ?? []).some(({ effects }) => effects.some(({ kind }) => kind === 'jumpAhead' || kind === 'endForm'));
