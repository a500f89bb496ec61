import { Link } from 'react-router-dom';
import type { Form } from '../api/generated';
import classes from './FormChoice.module.css';

interface Props {
  forms: Form[];
  /** Keys of those that apply to the record now. */
  relevant: string[];
  current: string;
}

/** The forms on which the record can be filled in now; nothing where there is only one. */
export function FormChoice({ forms, relevant, current }: Props) {
  const offered = forms.filter(({ key }) => key === current || relevant.includes(key));
  return offered.length < 2 ? null : (
    <nav aria-label="Form" className={classes.forms}>
      {offered.map((form) => (
        <Link
          key={form.key}
          to={{ search: form === forms[0] ? '' : `?form=${form.key}` }}
          aria-current={form.key === current || undefined}
        >
          {form.label}
        </Link>
      ))}
    </nav>
  );
}
