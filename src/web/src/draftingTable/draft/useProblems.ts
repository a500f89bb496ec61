import { useEffect, useRef, useState } from 'react';
import type { Definition, DraftView, Problem } from '../../api/generated';
import type { DraftProblems } from '../../engine/answers';
import type { DraftProgram } from '../../engine/draftProgram';
import type { OpenRecord } from '../../engine/openRecord';

/**
 * Takes every edit over into the engine, and the record on the sheet with it. What is wrong with the draft comes back: at
 * first as the server found it, then as the engine does.
 */
export function useProblems(
  stored: DraftView,
  definition: Definition,
  program: DraftProgram,
  record: OpenRecord | undefined,
): DraftProblems {
  const [problems, setProblems] = useState<DraftProblems>(() => ({
    type: stored.problems.filter(({ place }) => place.startsWith('/recordType')),
    rules: new Map(stored.ruleProblems.map((of): [number, Problem[]] => [of.place, of.problems])),
  }));
  const taken = useRef(stored.definition);
  useEffect(() => {
    if (taken.current !== definition) {
      taken.current = definition;
      program.edit(definition, record).then(
        (found) => taken.current === definition && setProblems(found),
        // A dead engine is started again with the draft as it is; its next answer tells.
        () => undefined,
      );
    }
  }, [definition, program, record]);
  return problems;
}
