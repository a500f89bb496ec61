import type { CellView, Field, ListRow, RecordType } from '../api/generated';
import { usePeople } from '../api/people';
import type { Progress, Value } from '../engine/answers';
import { asks, readBits } from '../engine/elementState';
import { progressWords } from '../records/ProgressMark';
import { useNamed } from '../records/useNamed';
import { stageLabel } from '../sheet/lookUp';
import lines from '../sheet/lines.module.css';
import { when } from '../writing/when';
import classes from './Grid.module.css';

/** What stands in a cell while nobody types into its row, in the line language. */
export function Cell({ type, field, row, column }: { type: RecordType; field?: Field; row: ListRow; column: string }) {
  const written = useNamed();
  const nameOf = usePeople();
  if (!field) {
    return <span className={classes.plain}>{beside(type, row, column, nameOf)}</span>;
  }
  const cell = row.cells.find((one) => one.field === field.key);
  const state = readBits(cell?.bits ?? 0);
  if (!state.isVisible) {
    return <span className={classes.hidden} title="Hidden for this record" />;
  }
  const value = ((row.values as Record<string, Value>)[field.key] as Value | undefined) ?? null;
  const text =
    field.type.kind === 'link' && value !== null
      ? (row.links as Record<string, string>)[`${field.type.recordType} ${String(value)}`] || written(field.type, value)
      : written(field.type, value);
  return (
    <span
      className={[classes.plain, state.isLocked ? lines.locked : '', asks(state) && value === null ? classes.asked : ''].join(
        ' ',
      )}
      data-number={field.type.kind === 'number' || field.type.kind === 'money' || undefined}
      title={[text, state.isLocked ? 'locked' : '', asks(state) && value === null ? 'required' : ''].filter(Boolean).join(' · ')}
    >
      {text || (asks(state) ? <em>required</em> : '')}
    </span>
  );
}

/** Whether a person may type into the cell. */
export const isOpen = (cell: CellView | undefined) => {
  const state = readBits(cell?.bits ?? 0);
  return cell !== undefined && state.isVisible && !state.isLocked;
};

/** What stands in a column that is none of the record's own fields. */
export function beside(type: RecordType, row: ListRow, column: string, nameOf: (name: string) => string): string {
  switch (column) {
    case '@number':
      return String(row.id);
    case '@stage':
      return stageLabel({ recordType: type }, row.stage);
    case '@workflow':
      return type.workflows.find(({ key }) => key === row.workflow)?.label ?? row.workflow;
    case '@changedAt':
      return when(row.changedAt);
    case '@changedBy':
      return nameOf(row.changedBy);
    case '@missing':
      return (row.standing as Record<string, boolean>)[column] ? 'something' : 'nothing';
    default:
      return progressWords[(row.standing as Record<string, Progress>)[column] ?? 'notBegun'];
  }
}
