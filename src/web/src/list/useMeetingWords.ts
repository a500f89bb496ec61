import { useCallback } from 'react';
import type { RecordType } from '../api/generated';
import { usePeople } from '../api/people';
import type { Collision, Meanwhile } from '../records/meanwhile';
import { useNamed } from '../records/useNamed';
import { fieldLabel, stageLabel } from '../sheet/lookUp';

/** What is said in a list where somebody else saved a row while it was typed into. */
export function useMeetingWords(type: RecordType) {
  const nameOf = usePeople();
  const written = useNamed();

  /** Why the row is not saved, by field: both changed the same. */
  const collided = useCallback(
    (collisions: Collision[]): Record<string, string> => ({
      '': 'Somebody has changed the same meanwhile: look at both on the record’s page.',
      ...Object.fromEntries(
        collisions.map(({ field, now, by }) => {
          const theirs = written(type.fields.find(({ key }) => key === field)?.type, now) || 'blank';
          return [field, `${nameOf(by)} made this “${theirs}” meanwhile.`];
        }),
      ),
    }),
    [type, nameOf, written],
  );

  /** Who saved what of the row; all of that is kept, and what was typed here as well. */
  const kept = useCallback(
    (id: number, { changes, moved }: Meanwhile): string => {
      const did = [
        ...changes.map(({ field }) => fieldLabel({ recordType: type }, field)),
        ...(moved ? [`the stage ${stageLabel({ recordType: type }, moved.stage)}`] : []),
      ];
      const who = [...new Set([...changes, ...(moved ? [moved] : [])].map(({ by }) => nameOf(by)))].join(' and ');
      return `${who} saved No. ${id} meanwhile (${did.join(', ') || 'unchanged'}). That is kept, and what you typed as well.`;
    },
    [type, nameOf],
  );

  return { collided, kept };
}
