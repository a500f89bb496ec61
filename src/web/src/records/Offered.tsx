import { Button, Group, Text } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { RecordType, RecordView } from '../api/generated';
import { usePeople } from '../api/people';
import type { Values } from '../engine/answers';
import { fieldLabel } from '../sheet/lookUp';
import { when } from '../writing/when';
import { readMeanwhile } from './meanwhile';
import classes from './RecordForm.module.css';
import type { Kept } from './shelf';
import { useNamed } from './useNamed';

interface Props {
  type: RecordType;
  stored: RecordView;
  kept: Kept;
  onTakeUp: (values: Values) => void;
  onThrowAway: () => void;
}

/** What this person typed at another time and never saved, offered again beside what is saved by now. */
export function Offered({ type, stored, kept, onTakeUp, onThrowAway }: Props) {
  const nameOf = usePeople();
  const written = useNamed();
  const id = stored.id ?? 0;
  const meanwhile = useQuery({
    queryKey: ['meanwhile', id, kept.version, stored.version],
    queryFn: () => readMeanwhile(id, kept.version),
    enabled: id !== 0 && kept.version !== stored.version,
  }).data;
  const known = Object.entries(kept.typed).filter(([key]) => type.fields.some((field) => field.key === key));
  return (
    <section className={classes.notice} aria-label="Typed before">
      <h3 className={classes.heading}>You typed this and did not save it</h3>
      <Text size="sm">Last on {when(kept.at)}.</Text>
      <ul className={classes.list}>
        {known.map(([key, value]) => {
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
      {meanwhile && meanwhile.changes.some(({ field }) => !(field in kept.typed)) && (
        <Text size="sm">
          Changed meanwhile by others:{' '}
          {meanwhile.changes
            .filter(({ field }) => !(field in kept.typed))
            .map(({ field }) => fieldLabel({ recordType: type }, field))
            .join(', ')}
          .
        </Text>
      )}
      <Group mt="xs" gap="xs">
        <Button onClick={() => onTakeUp(Object.fromEntries(known))}>Put it in again</Button>
        <Button variant="default" onClick={onThrowAway}>
          Throw it away
        </Button>
      </Group>
    </section>
  );
}
