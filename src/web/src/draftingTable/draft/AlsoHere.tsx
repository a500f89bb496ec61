import { Text } from '@mantine/core';
import type { Definition } from '../../api/generated';
import { usePeople } from '../../api/people';
import type { PersonAt } from './useLive';

/** Who else has the draft open, and at which sheet or rule. */
export function AlsoHere({ others, definition }: { others: PersonAt[]; definition: Definition }) {
  const nameOf = usePeople();
  const words = [...new Set(others.map(({ person }) => person))].map((person) => {
    const places = others
      .filter((one) => one.person === person)
      .map(({ place }) => placeWords(place, definition))
      .filter(Boolean);
    return places.length > 0 ? `${nameOf(person)} at ${[...new Set(places)].join(' and ')}` : nameOf(person);
  });
  return (
    <Text size="xs" c="dimmed" role="status" truncate maw={260} title={words.join('; ')}>
      {words.length > 0 && `Also here: ${words.join('; ')}`}
    </Text>
  );
}

/** Where somebody is, in words: a rule by its number as it stands in the list now. */
function placeWords(place: string, { rules }: Definition): string {
  const [sheet = '', rule] = place.split('/');
  const at = rules.findIndex(({ key }) => key === rule);
  return at >= 0 ? `rule ${at + 1}` : sheet;
}
