import { Button, Group, Text } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { RecordType, RecordView } from '../api/generated';
import { usePeople } from '../api/people';
import { fieldLabel } from '../sheet/lookUp';
import { when } from '../writing/when';
import { readMeanwhile } from './meanwhile';
import classes from './RecordForm.module.css';
import type { Offer } from './filling';
import { useNamed } from './useNamed';

interface Props {
  type: RecordType;
  stored: RecordView;
  offer: Offer;
  onTakeUp: (offer: Offer) => void;
  onThrowAway: (slot: string) => void;
}

/** What this person typed at another time and never saved, offered again beside what is saved by now. */
export function Offered({ type, stored, offer, onTakeUp, onThrowAway }: Props) {
  const nameOf = usePeople();
  const written = useNamed();
  const id = stored.id ?? 0;
  const { edits, at } = offer.kept;
  const since = Math.min(...edits.map(([, edit]) => edit.since));
  const meanwhile = useQuery({
    queryKey: ['meanwhile', id, since, stored.version],
    queryFn: () => readMeanwhile(id, since),
    enabled: id !== 0 && since !== stored.version,
  }).data;
  const known = edits.filter(([key]) => type.fields.some((field) => field.key === key));
  const others = meanwhile?.changes.filter(({ field }) => !known.some(([key]) => key === field)) ?? [];
  return (
    <section className={classes.notice} aria-label="Typed before">
      <h3 className={classes.heading}>You typed this and did not save it</h3>
      <Text size="sm">Last on {when(at)}.</Text>
      <ul className={classes.list}>
        {known.map(([key, { value }]) => {
          const fieldType = type.fields.find((field) => field.key === key)?.type;
          const change = meanwhile?.changes.find(({ field }) => field === key);
          return (
            <li key={key}>
              {fieldLabel({ recordType: type }, key)}: <strong>{written(fieldType, value) || 'blank'}</strong>
              {change && ` (saved meanwhile by ${nameOf(change.by)}: ${written(fieldType, change.now) || 'blank'})`}
            </li>
          );
        })}
      </ul>
      {others.length > 0 && (
        <Text size="sm">Changed meanwhile: {others.map(({ field }) => fieldLabel({ recordType: type }, field)).join(', ')}.</Text>
      )}
      <Group mt="xs" gap="xs">
        <Button onClick={() => onTakeUp(offer)}>Put it in again</Button>
        <Button variant="default" onClick={() => onThrowAway(offer.slot)}>
          Throw it away
        </Button>
      </Group>
    </section>
  );
}
