import { NavLink } from 'react-router-dom';
import classes from './SheetIndex.module.css';

/** The sheets of a record type that there are. They get their numbers once none of the set is missing. */
const sheets = [
  { label: 'Rules', path: 'rules' },
  { label: 'Forms', path: 'forms' },
  { label: 'Fields', path: 'fields' },
  { label: 'Workflow', path: 'workflow' },
  { label: 'Exchange', path: 'exchange' },
];

export function SheetIndex({ type }: { type: string }) {
  return (
    <nav aria-label="Sheets" className={classes.index}>
      {sheets.map(({ label, path }) => (
        <NavLink key={path} to={`/types/${type}/${path}`} className={classes.sheet}>
          {label}
        </NavLink>
      ))}
    </nav>
  );
}
