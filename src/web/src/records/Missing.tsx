import { Text, UnstyledButton } from '@mantine/core';
import type { Definition } from '../api/generated';
import type { FormRecord } from '../engine/formRecord';
import { fieldLabel, moveLabel } from '../sheet/lookUp';
import lines from '../sheet/lines.module.css';
import classes from './RecordForm.module.css';

/** What is asked for and blank, each one press away. */
export function Missing({
  definition,
  record,
  moves: offered,
  onGoTo,
}: {
  definition: Definition;
  record: FormRecord;
  /** Keys of the moves that can be made from here. */
  moves: string[];
  onGoTo: (field: string) => void;
}) {
  if (!record.isLive) {
    return null;
  }
  const missing = record.missing().filter(({ moves }) => moves.length === 0 || moves.some((move) => offered.includes(move)));
  const isStopped = record.messages().some(({ severity }) => severity === 'stopsMoving' || severity === 'stopsSaving');
  return (
    <section aria-label="What is missing">
      <h3 className={classes.heading}>Missing for the next move</h3>
      {missing.length === 0 && (
        <Text size="sm">
          {isStopped ? 'Nothing is missing, but a message on the form stops it.' : 'Nothing. The record can move on.'}
        </Text>
      )}
      <ul className={classes.list}>
        {missing.map(({ field, level, moves }) => (
          <li key={field}>
            <UnstyledButton className={classes.link} onClick={() => onGoTo(field)}>
              {fieldLabel(definition, field)}
            </UnstyledButton>{' '}
            {level === 'toSave' && <span className={lines.word}>already needed to save</span>}
            {moves.length > 0 && (
              <span className={lines.word}>for {moves.map((move) => moveLabel(definition, move)).join(', ')}</span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
