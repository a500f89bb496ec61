import { Link, useSearchParams } from 'react-router-dom';
import type { Form } from '../api/generated';
import type { FormProgress } from '../engine/answers';
import classes from './FormChoice.module.css';
import { ProgressMark, progressWords } from './ProgressMark';

interface Props {
  forms: Form[];
  /** Keys of those that apply to the record now. */
  relevant: string[];
  current: string;
  /** How far each is; undefined until that is known. */
  progress?: FormProgress[];
}

/** The forms on which the record can be filled in now, and how far each is; nothing where there is only one. */
export function FormChoice({ forms, relevant, current, progress }: Props) {
  const [search] = useSearchParams();
  const offered = forms.filter(({ key }) => key === current || relevant.includes(key));
  function addressOf(form: Form) {
    const next = new URLSearchParams(search);
    next.set('form', form.key);
    return next.toString();
  }
  return offered.length < 2 ? null : (
    <nav aria-label="Form" className={classes.forms}>
      {offered.map((form) => {
        const far = progress?.find((one) => one.form === form.key);
        return (
          <Link
            key={form.key}
            to={{ search: addressOf(form) }}
            aria-current={form.key === current || undefined}
            data-progress={far?.progress}
          >
            <ProgressMark progress={far?.progress} />
            <span className={classes.name}>{form.label}</span>
            {far && <small>{words(far)}</small>}
          </Link>
        );
      })}
    </nav>
  );
}

/** How far a form is, in words, with how much of what it asks for is there. */
export const words = ({ progress, filled, asked }: FormProgress): string =>
  progress === 'begun' && asked > 0 ? `${filled} of ${asked} required` : progressWords[progress];
