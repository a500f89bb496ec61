import { Text, UnstyledButton } from '@mantine/core';
import type { Problem } from '../api/client';
import type { RecordType, Refusal } from '../api/generated';
import { fieldLabel, formLabel } from '../sheet/lookUp';
import { inLocale } from '../writing/dates';
import classes from './RecordForm.module.css';

interface Props {
  problem: Problem;
  /** Those that still stand. */
  reasons: Refusal[];
  type: RecordType;
  onGoTo: (field: string, form?: string | null) => void;
}

/** Why the server saved nothing: all reasons at once, each leading to its field. */
export function Refused({ problem, reasons, type, onGoTo }: Props) {
  return (
    <section className={classes.refused} role="alert">
      <h3 className={classes.heading}>{title(problem, reasons)}</h3>
      <Text size="sm">{problem.detail}</Text>
      <ul className={classes.list}>
        {reasons.map((refusal) => (
          <li key={`${refusal.reason}${refusal.field}`}>
            {refusal.field && (
              <>
                <UnstyledButton className={classes.link} onClick={() => onGoTo(refusal.field!, refusal.form)}>
                  {fieldLabel({ recordType: type }, refusal.field)}
                </UnstyledButton>
                {refusal.form && ` on ${formLabel({ recordType: type }, refusal.form)}`}
                {': '}
              </>
            )}
            {inLocale(refusal.message)}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What was said when it was refused, as long as all of it still stands. */
function title(problem: Problem, reasons: Refusal[]) {
  const mended = (problem.refusals?.length ?? 0) - reasons.length;
  if (mended <= 0) {
    return problem.title;
  }
  return reasons.length === 1 ? 'One thing still speaks against this.' : `${reasons.length} things still speak against this.`;
}
