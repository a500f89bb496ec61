import { Button, Text, UnstyledButton } from '@mantine/core';
import type { Problem } from '../api/client';
import type { Definition, Refusal } from '../api/generated';
import { fieldLabel } from '../sheet/lookUp';
import classes from './RecordForm.module.css';

interface Props {
  problem: Problem;
  /** Those that still stand. */
  reasons: Refusal[];
  definition: Definition;
  onGoTo: (field: string) => void;
  onTakeOver: () => void;
}

/** Why the server saved nothing: all reasons at once, each leading to its field. */
export function Refused({ problem, reasons, definition, onGoTo, onTakeOver }: Props) {
  return (
    <section className={classes.refused} role="alert">
      <h3 className={classes.heading}>{problem.title}</h3>
      <Text size="sm">{problem.detail}</Text>
      <ul className={classes.list}>
        {reasons.map((refusal) => (
          <li key={`${refusal.reason}${refusal.field}`}>
            {refusal.field && (
              <>
                <UnstyledButton className={classes.link} onClick={() => onGoTo(refusal.field!)}>
                  {fieldLabel(definition, refusal.field)}
                </UnstyledButton>
                {': '}
              </>
            )}
            {refusal.message}
          </li>
        ))}
      </ul>
      {problem.version !== undefined && (
        <Button mt="xs" onClick={onTakeOver}>
          Load it again and keep my changes
        </Button>
      )}
    </section>
  );
}
