import { useCallback } from 'react';
import type { RecordType } from '../api/generated';
import { usePeople } from '../api/people';
import { useSignedIn } from '../api/signedIn';
import type { Collision } from '../records/meanwhile';
import { useNamed } from '../records/useNamed';
import { whoDid } from '../records/whoDid';
import { fieldLabel, stageLabel } from '../sheet/lookUp';
import type { Met } from './editedRows';

/** What is said in a list where somebody else saved a row while it was typed into. */
export function useMeetingWords(type: RecordType) {
  const nameOf = usePeople();
  const person = useSignedIn().data?.person?.userName ?? '';
  const written = useNamed();

  /** Why the row is not saved, by field: both changed the same. */
  const collided = useCallback(
    (collisions: Collision[]): Record<string, string> => ({
      '': 'The same was changed elsewhere meanwhile: look at both on the record’s page.',
      ...Object.fromEntries(
        collisions.map(({ field, now, by }) => {
          const theirs = written(type.fields.find(({ key }) => key === field)?.type, now) || 'blank';
          const who = by === undefined ? 'A publication' : by === person ? 'You, elsewhere,' : nameOf(by);
          return [field, `${who} made this “${theirs}” meanwhile.`];
        }),
      ),
    }),
    [type, nameOf, person, written],
  );

  /** Who saved what of the row; all of that is kept, and what was typed here as well. */
  const kept = useCallback(
    ({ id, meanwhile }: Met): string => {
      const { changes, moved } = meanwhile;
      const did = [
        ...changes.map(({ field }) => fieldLabel({ recordType: type }, field)),
        ...(moved ? [`the stage ${stageLabel({ recordType: type }, moved.stage)}`] : []),
      ];
      return `${whoDid(meanwhile, person, nameOf)} saved No. ${id} meanwhile (${did.join(', ') || 'unchanged'}). That is kept, and what you typed as well.`;
    },
    [type, nameOf, person],
  );

  return { collided, kept };
}
