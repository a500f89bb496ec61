import type { TableReach } from '../../engine/answers';
import classes from './TableCells.module.css';

/** What is worth knowing of a table's rows together; nothing of it keeps the draft from being published. */
export function ReachNotes({ reach }: { reach: TableReach }) {
  const notes = [
    ...reach.unreached.map((row) => `Row ${row + 1} is never reached: rows above it take all that it matches.`),
    ...reach.overlaps
      .slice(0, 5)
      .map(({ upper, lower }) => `Rows ${upper + 1} and ${lower + 1} both match some records: there row ${upper + 1} counts.`),
    ...(reach.gaps.length > 0 ? [`No row covers: ${reach.gaps.join('; ')}.`] : []),
  ];
  return (
    <ul className={classes.notes}>
      {notes.map((note) => (
        <li key={note}>{note}</li>
      ))}
    </ul>
  );
}
