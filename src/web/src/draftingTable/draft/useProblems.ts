import { useEffect, useRef, useState } from 'react';
import type { DraftView, Problem } from '../../api/generated';
import type { DraftProblems } from '../../engine/answers';
import type { DraftProgram } from '../../engine/draftProgram';
import type { OpenRecord } from '../../engine/openRecord';
import type { SharedDraft } from './sharedDraft';
import { isSame } from './steps';

/**
 * Takes every edit over into the engine, and the record on the sheet with it. What is wrong with the draft comes back: at
 * first as the server found it, then as the engine does.
 */
export function useProblems(
  stored: DraftView,
  shared: SharedDraft,
  program: DraftProgram,
  record: OpenRecord | undefined,
): DraftProblems {
  const [problems, setProblems] = useState<DraftProblems>(() => ({
    type: stored.problems.filter(({ place }) => place.startsWith('/recordType')),
    rules: new Map(stored.ruleProblems.map((of): [number, Problem[]] => [of.place, of.problems])),
  }));
  const taken = useRef(stored.definition);
  useEffect(() => {
    // The engine is at work while the page is still drawing what was pressed.
    function take() {
      const { definition } = shared.present();
      if (taken.current !== definition && definition.recordType === program.type) {
        taken.current = definition;
        program.edit(definition, record).then(
          (found) => taken.current === definition && setProblems((before) => kept(before, found)),
          // A dead engine is started again with the draft as it is; its next answer tells.
          () => undefined,
        );
      }
    }
    take();
    return shared.subscribe(take);
  }, [shared, program, record]);
  return problems;
}

/** What was found, with the lists of before where they say the same: a rule whose problems are the same is not drawn anew. */
function kept(before: DraftProblems, found: DraftProblems): DraftProblems {
  const rules = new Map(
    [...found.rules].map(([place, problems]) => {
      const old = before.rules.get(place);
      return [place, old && isSame(old, problems) ? old : problems];
    }),
  );
  const type = isSame(before.type, found.type) ? before.type : found.type;
  const isAsBefore =
    type === before.type && rules.size === before.rules.size && [...rules].every(([at, of]) => before.rules.get(at) === of);
  return isAsBefore ? before : { type, rules };
}
