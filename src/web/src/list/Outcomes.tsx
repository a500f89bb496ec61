import { Button, Text } from '@mantine/core';
import { Link } from 'react-router-dom';
import type { RecordType } from '../api/generated';
import { fieldLabel } from '../sheet/lookUp';
import { inLocale } from '../writing/dates';
import { undoing, type Change, type Changed } from './changing';
import classes from './ListPage.module.css';

/** Several rows that were changed at once, and what came of it. */
export interface Batch extends Changed {
  what: string;
}

interface Props {
  type: RecordType;
  batch: Batch;
  onUndo: (what: string, changes: Change[]) => Promise<void>;
  /** Does what is left of it. */
  onGoOn: () => void;
  onClose: () => void;
}

/** How many rows were changed, why the others were not, and the way back for all of them. */
export function Outcomes({ type, batch, onUndo, onGoOn, onClose }: Props) {
  const saved = new Set(batch.steps.filter(({ outcome }) => outcome.row).map(({ row }) => row.id));
  const refused = batch.steps.filter(({ outcome }) => !outcome.row).map(({ outcome }) => outcome);
  const left = new Set(batch.rest.flat().map(({ row }) => row.id)).size;
  const undo = undoing(type, batch.steps);
  const told = [
    ...refused.map((outcome) => ({ ...outcome, said: '' })),
    ...batch.steps.flatMap(({ outcome, left }) =>
      outcome.row && left ? [{ id: outcome.id, problem: '', refusals: left, said: 'saved, but for this. ' }] : [],
    ),
  ];
  return (
    <section className={classes.notice} role="status" aria-label="What came of it">
      <Text size="sm">
        {batch.what}: {saved.size} {saved.size === 1 ? 'row' : 'rows'} saved
        {refused.length > 0 ? `, ${refused.length} refused` : ''}
        {left > 0 ? `, ${left} not reached. ${batch.problem?.title} ${batch.problem?.detail}` : '.'}
      </Text>
      {left > 0 && (
        <Button variant="default" onClick={onGoOn}>
          Go on with the rest
        </Button>
      )}
      {undo.length > 0 && (
        <Button variant="default" onClick={() => void onUndo(`${batch.what}, undone`, undo)}>
          Undo {undo.length === saved.size ? 'all of it' : `${undo.length} of it`}
        </Button>
      )}
      {undo.length < saved.size && <Text size="sm">{saved.size - undo.length} cannot be undone: no move leads back.</Text>}
      <Button variant="subtle" onClick={onClose}>
        Close
      </Button>
      {told.length > 0 && (
        <ul className={classes.outcomes}>
          {told.map(({ id, problem, refusals, said }, i) => (
            <li key={i}>
              <Link to={`/records/${id}`}>No. {id}</Link>: {said}
              {refusals.length > 0
                ? refusals
                    .map(
                      ({ field, message }) =>
                        `${field ? `${fieldLabel({ recordType: type }, field)}: ` : ''}${inLocale(message)}`,
                    )
                    .join(' ')
                : problem}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
