import { useQuery } from '@tanstack/react-query';
import { answered } from '../api/client';
import { readHistory, type Definition } from '../api/generated';
import { fieldLabel, stageLabel } from '../sheet/lookUp';
import classes from './RecordForm.module.css';

/** Who saved the record, when, and what changed. */
export function History({ definition, id, version }: { definition: Definition; id: number; version: number }) {
  const entries =
    useQuery({ queryKey: ['history', id, version], queryFn: () => answered(readHistory({ path: { id } })) }).data ?? [];
  return (
    <section aria-label="History">
      <h3 className={classes.heading}>History</h3>
      <ul className={classes.list}>
        {entries.map((entry) => (
          <li key={entry.version}>
            {new Date(entry.at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })}, {entry.by}:{' '}
            {what(definition, entry)}
          </li>
        ))}
      </ul>
    </section>
  );
}

function what(
  definition: Definition,
  entry: { version: number; before: object; after: object; fromStage: string; toStage: string },
) {
  if (entry.version === 1) {
    return 'begun';
  }
  const fields = [...new Set([...Object.keys(entry.before), ...Object.keys(entry.after)])].map((key) =>
    fieldLabel(definition, key),
  );
  const moved = entry.fromStage === entry.toStage ? [] : [`moved to ${stageLabel(definition, entry.toStage)}`];
  return (
    [
      ...moved,
      ...(fields.length > 0
        ? [`changed ${fields.slice(0, 4).join(', ')}${fields.length > 4 ? ` and ${fields.length - 4} more` : ''}`]
        : []),
    ].join(', ') || 'saved unchanged'
  );
}
