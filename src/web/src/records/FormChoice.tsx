import { Link } from 'react-router-dom';
import type { Form } from '../api/generated';
import classes from './FormChoice.module.css';

/** The forms on which the record can be filled in; nothing where there is only one. */
export function FormChoice({ forms, current }: { forms: Form[]; current: string }) {
  return forms.length < 2 ? null : (
    <nav aria-label="Form" className={classes.forms}>
      {forms.map((form, i) => (
        <Link key={form.key} to={{ search: i === 0 ? '' : `?form=${form.key}` }} aria-current={form.key === current || undefined}>
          {form.label}
        </Link>
      ))}
    </nav>
  );
}
