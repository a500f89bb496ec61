import { Button, Text } from '@mantine/core';
import { Link } from 'react-router-dom';
import type { ListRow, RecordType, RowOutcome } from '../api/generated';
import type { Values } from '../engine/answers';
import { fieldLabel } from '../sheet/lookUp';
import { inLocale } from '../writing/dates';
import classes from './ListPage.module.css';

/** Several rows that were changed at once, and what came of it. */
export interface Batch {
  what: string;
  /** The rows as they were. */
  before: ListRow[];
  /** Keys of the fields that were to be changed, row by row. */
  changed: string[][];
  outcomes: RowOutcome[];
}

interface Props {
  type: RecordType;
  batch: Batch;
  onUndo: (what: string, changes: { row: ListRow; changes: Values; move?: string }[]) => Promise<void>;
  onClose: () => void;
}

/** How many rows were changed, why the others were not, and the way back for all of them. */
export function Outcomes({ type, batch, onUndo, onClose }: Props) {
  const saved = batch.outcomes.filter(({ row }) => row);
  const refused = batch.outcomes.filter(({ row }) => !row);
  const undo = batch.outcomes.flatMap(({ id, row }, i) => {
    const before = batch.before[i];
    if (!row || !before || before.id !== id) {
      return [];
    }
    const changes = Object.fromEntries((batch.changed[i] ?? []).map((key) => [key, (before.values as Values)[key] ?? null]));
    // A move is undone where one leads back.
    const back = type.workflows
      .find(({ key }) => key === row.workflow)
      ?.moves.find(({ from, to }) => from === row.stage && to === before.stage);
    return row.stage === before.stage ? [{ row, changes }] : back ? [{ row, changes, move: back.key }] : [];
  });
  return (
    <section className={classes.notice} role="status" aria-label="What came of it">
      <Text size="sm">
        {batch.what}: {saved.length} {saved.length === 1 ? 'row' : 'rows'} saved
        {refused.length > 0 ? `, ${refused.length} refused.` : '.'}
      </Text>
      {undo.length > 0 && (
        <Button variant="default" onClick={() => void onUndo(`${batch.what}, undone`, undo)}>
          Undo {undo.length === saved.length ? 'all of it' : `${undo.length} of it`}
        </Button>
      )}
      {undo.length < saved.length && <Text size="sm">{saved.length - undo.length} cannot be undone: no move leads back.</Text>}
      <Button variant="subtle" onClick={onClose}>
        Close
      </Button>
      {refused.length > 0 && (
        <ul className={classes.outcomes}>
          {refused.map(({ id, problem, refusals }) => (
            <li key={id}>
              <Link to={`/records/${id}`}>No. {id}</Link>:{' '}
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
