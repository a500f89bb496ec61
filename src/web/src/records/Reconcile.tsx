import { Button, Group, Radio, Text } from '@mantine/core';
import { useState, type RefObject } from 'react';
import type { RecordType } from '../api/generated';
import { usePeople } from '../api/people';
import type { Value } from '../engine/answers';
import { fieldLabel, stageLabel } from '../sheet/lookUp';
import { useNamed } from './useNamed';
import type { Choosing } from './filling';
import classes from './RecordForm.module.css';
import { whoDid } from './whoDid';

interface Props {
  type: RecordType;
  choosing: Choosing;
  /** Account name of who has to choose. */
  person: string;
  /** With the fields for which what others saved is taken. */
  onGoOn: (theirs: string[]) => void;
  ref: RefObject<HTMLElement | null>;
}

/** What others have changed while this person typed: both are kept where they do not collide, and one is chosen where they do. */
export function Reconcile({ type, choosing: { meanwhile, collisions }, person, onGoOn, ref }: Props) {
  const nameOf = usePeople();
  const written = useNamed();
  const [theirs, setTheirs] = useState<string[]>([]);
  const fieldOf = (key: string) => type.fields.find((field) => field.key === key);
  const text = (key: string, value: Value) => written(fieldOf(key)?.type, value) || 'blank';
  const others = meanwhile.changes.filter(({ field }) => !collisions.some((one) => one.field === field));
  const called = (by: string | undefined) => (by === undefined ? 'A publication' : by === person ? 'You, elsewhere' : nameOf(by));
  return (
    <section ref={ref} className={classes.refused} role="alert" tabIndex={-1} aria-label="Changed meanwhile">
      <h3 className={classes.heading}>{whoDid(meanwhile, person, nameOf)} saved this record meanwhile</h3>
      {meanwhile.moved && <Text size="sm">It is at {stageLabel({ recordType: type }, meanwhile.moved.stage)} now.</Text>}
      {others.length > 0 && (
        <>
          <Text size="sm">Taken over, as you did not change it:</Text>
          <ul className={classes.list}>
            {others.map(({ field, before, now, by }) => (
              <li key={field}>
                {fieldLabel({ recordType: type }, field)}: {text(field, before)} → <strong>{text(field, now)}</strong> (
                {called(by)})
              </li>
            ))}
          </ul>
        </>
      )}
      {collisions.map(({ field, now, mine, by }) => (
        <Radio.Group
          key={field}
          mt="xs"
          label={`${fieldLabel({ recordType: type }, field)}: ${by === person ? 'you changed it twice' : 'you both changed it'}`}
          value={theirs.includes(field) ? 'theirs' : 'mine'}
          onChange={(which) => setTheirs(which === 'theirs' ? [...theirs, field] : theirs.filter((one) => one !== field))}
        >
          <Radio size="xs" mt={4} value="mine" label={`Yours: ${text(field, mine)}`} />
          <Radio size="xs" mt={4} value="theirs" label={`${called(by)}: ${text(field, now)}`} />
        </Radio.Group>
      ))}
      <Group mt="xs" gap="xs">
        <Button onClick={() => onGoOn(theirs)}>Go on with this</Button>
        <Text size="xs" c="dimmed">
          Nothing of it is saved before you save.
        </Text>
      </Group>
    </section>
  );
}
