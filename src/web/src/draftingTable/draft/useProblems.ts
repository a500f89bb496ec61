import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import type { Definition, DraftView, Problem } from '../../api/generated';
import { peopleQuery } from '../../api/people';
import type { DraftProblems } from '../../engine/answers';
import type { DraftProgram } from '../../engine/draftProgram';
import type { OpenRecord } from '../../engine/openRecord';
import type { OpenedDraft } from './OpenDraft';
import { isSame } from './steps';

/** What is wrong with a draft, and which draft that was. */
export interface Found {
  of: Definition;
  problems: DraftProblems;
}

/** What the server found when the draft was read. */
export const foundByServer = ({ definition, problems, ruleProblems }: DraftView): Found => ({
  of: definition,
  problems: {
    type: problems.filter(({ place }) => place.startsWith('/recordType')),
    rules: new Map(ruleProblems.map((of): [number, Problem[]] => [of.place, of.problems])),
  },
});

/**
 * Takes every edit over into the engine, and the record on the sheet with it. What is wrong with the draft comes back: at
 * first as it was found before, by the server or on another sheet, then as the engine does.
 */
export function useProblems(
  { draft: { shared }, found, onFound }: OpenedDraft,
  program: DraftProgram,
  record: OpenRecord | undefined,
): DraftProblems {
  const latest = useRef(found);
  const taken = useRef(found.of);
  // Whether all who are named can sign in is found anew where there are others.
  const people = useQuery(peopleQuery).data;
  const asked = useRef(people);
  useEffect(() => {
    function put(of: Definition, problems: DraftProblems) {
      latest.current = { of, problems: kept(latest.current.problems, problems) };
      onFound(latest.current);
    }
    // The engine is at work while the page is still drawing what was pressed.
    function take() {
      const { definition } = shared.present();
      if ((taken.current !== definition || asked.current !== people) && definition.recordType === program.type) {
        taken.current = definition;
        asked.current = people;
        program.edit(definition, record).then(
          (problems) => taken.current === definition && put(definition, problems),
          // A dead engine is started again with the draft as it is; its next answer tells.
          () => undefined,
        );
      }
    }
    take();
    return shared.subscribe(take);
  }, [shared, program, record, people, onFound]);
  return found.problems;
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
