import { Button, Text } from '@mantine/core';
import { Link } from 'react-router-dom';
import type { RecordType } from '../api/generated';
import type { Values } from '../engine/answers';
import { fieldLabel } from '../sheet/lookUp';
import { inLocale } from '../writing/dates';
import type { Change, Step } from './changing';
import classes from './ListPage.module.css';

/** Several rows that were changed at once, and what came of it. */
export interface Batch {
  what: string;
  steps: Step[];
}

interface Props {
  type: RecordType;
  batch: Batch;
  onUndo: (what: string, changes: Change[]) => Promise<void>;
  onClose: () => void;
}

/** How many rows were changed, why the others were not, and the way back for all of them. */
export function Outcomes({ type, batch, onUndo, onClose }: Props) {
  const saved = new Set(batch.steps.filter(({ outcome }) => outcome.row).map(({ row }) => row.id));
  const refused = batch.steps.filter(({ outcome }) => !outcome.row).map(({ outcome }) => outcome);
  const undo = [...saved].flatMap((id) => {
    const steps = batch.steps.filter(({ outcome }) => outcome.row && outcome.id === id);
    const [before, now] = [steps[0]?.row, steps.at(-1)?.outcome.row];
    if (!before || !now) {
      return [];
    }
    const changed = steps.flatMap(({ changes }) => Object.keys(changes));
    const changes = Object.fromEntries(changed.map((key) => [key, (before.values as Values)[key] ?? null]));
    // A move is undone where one leads back.
    const back = type.workflows
      .find(({ key }) => key === now.workflow)
      ?.moves.find(({ from, to }) => from === now.stage && to === before.stage);
    return now.stage === before.stage ? [{ row: now, changes }] : back ? [{ row: now, changes, move: back.key }] : [];
  });
  return (
    <section className={classes.notice} role="status" aria-label="What came of it">
      <Text size="sm">
        {batch.what}: {saved.size} {saved.size === 1 ? 'row' : 'rows'} saved
        {refused.length > 0 ? `, ${refused.length} refused.` : '.'}
      </Text>
      {undo.length > 0 && (
        <Button variant="default" onClick={() => void onUndo(`${batch.what}, undone`, undo)}>
          Undo {undo.length === saved.size ? 'all of it' : `${undo.length} of it`}
        </Button>
      )}
      {undo.length < saved.size && <Text size="sm">{saved.size - undo.length} cannot be undone: no move leads back.</Text>}
      <Button variant="subtle" onClick={onClose}>
        Close
      </Button>
      {refused.length > 0 && (
        <ul className={classes.outcomes}>
          {refused.map(({ id, problem, refusals }, i) => (
            <li key={i}>
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
