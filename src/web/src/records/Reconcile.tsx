import { Button, Group, Radio, Text } from '@mantine/core';
import { useState } from 'react';
import type { RecordType } from '../api/generated';
import { usePeople } from '../api/people';
import type { Value, Values } from '../engine/answers';
import { fieldLabel, stageLabel } from '../sheet/lookUp';
import { useNamed } from './useNamed';
import type { Collision, Meanwhile } from './meanwhile';
import classes from './RecordForm.module.css';

interface Props {
  type: RecordType;
  meanwhile: Meanwhile;
  collisions: Collision[];
  /** With the values to be held in place of what was typed. */
  onGoOn: (chosen: Values) => void;
}

/** What others have changed while this person typed: both are kept where they do not collide, and one is chosen where they do. */
export function Reconcile({ type, meanwhile, collisions, onGoOn }: Props) {
  const nameOf = usePeople();
  const written = useNamed();
  const [theirs, setTheirs] = useState<string[]>([]);
  const fieldOf = (key: string) => type.fields.find((field) => field.key === key);
  const text = (key: string, value: Value) => written(fieldOf(key)?.type, value) || 'blank';
  const others = meanwhile.changes.filter(({ field }) => !collisions.some((one) => one.field === field));
  const who = [...new Set([...meanwhile.changes, ...(meanwhile.moved ? [meanwhile.moved] : [])].map(({ by }) => nameOf(by)))];
  return (
    <section className={classes.refused} role="alert" aria-label="Changed meanwhile">
      <h3 className={classes.heading}>{who.join(' and ') || 'Somebody else'} saved this record meanwhile</h3>
      {meanwhile.moved && <Text size="sm">It is at {stageLabel({ recordType: type }, meanwhile.moved.stage)} now.</Text>}
      {others.length > 0 && (
        <>
          <Text size="sm">Taken over, as you did not change it:</Text>
          <ul className={classes.list}>
            {others.map(({ field, before, now, by }) => (
              <li key={field}>
                {fieldLabel({ recordType: type }, field)}: {text(field, before)} → <strong>{text(field, now)}</strong> (
                {nameOf(by)})
              </li>
            ))}
          </ul>
        </>
      )}
      {collisions.map(({ field, now, mine, by }) => (
        <Radio.Group
          key={field}
          mt="xs"
          label={`${fieldLabel({ recordType: type }, field)}: you both changed it`}
          value={theirs.includes(field) ? 'theirs' : 'mine'}
          onChange={(which) => setTheirs(which === 'theirs' ? [...theirs, field] : theirs.filter((one) => one !== field))}
        >
          <Radio size="xs" mt={4} value="mine" label={`Yours: ${text(field, mine)}`} />
          <Radio size="xs" mt={4} value="theirs" label={`${nameOf(by)}: ${text(field, now)}`} />
        </Radio.Group>
      ))}
      <Group mt="xs" gap="xs">
        <Button
          onClick={() =>
            onGoOn(
              Object.fromEntries(collisions.filter(({ field }) => theirs.includes(field)).map(({ field, now }) => [field, now])),
            )
          }
        >
          Go on with this
        </Button>
        <Text size="xs" c="dimmed">
          Nothing of it is saved before you save.
        </Text>
      </Group>
    </section>
  );
}
