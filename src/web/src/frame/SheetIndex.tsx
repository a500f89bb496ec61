import { NavLink } from 'react-router-dom';
import classes from './SheetIndex.module.css';

/** The sheets of a record type, numbered as in a set of drawings. Only those that exist are listed. */
const sheets = [
  { number: '01', label: 'Rules', path: 'rules' },
  { number: '07', label: 'Forms', path: 'forms' },
  { number: '08', label: 'Fields', path: 'fields' },
  { number: '09', label: 'Workflow', path: 'workflow' },
  { number: '10', label: 'Exchange', path: 'exchange' },
];

export function SheetIndex({ type }: { type: string }) {
  return (
    <nav aria-label="Sheets" className={classes.index}>
      {sheets.map(({ number, label, path }) => (
        <NavLink key={path} to={`/types/${type}/${path}`} className={classes.sheet}>
          <span className={classes.number}>{number}</span> {label}
        </NavLink>
      ))}
    </nav>
  );
}
