import type { Problem } from '../../api/generated';
import lines from '../../sheet/lines.module.css';

/** What is wrong at a place, with the mend, in red pencil. */
export function Problems({
  problems,
  place,
  isExact = false,
  label,
}: {
  problems: Problem[];
  place: string;
  isExact?: boolean;
  label?: string;
}) {
  return problems
    .filter((p) => (isExact ? p.place === place : p.place === place || p.place.startsWith(`${place}/`)))
    .map((p) => (
      <div key={p.place + p.what} className={lines.wrong} role="alert">
        {label} {p.what} {p.mend}
      </div>
    ));
}
