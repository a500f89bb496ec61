import type { Problem } from '../api/generated';
import lines from '../sheet/lines.module.css';

/** What is wrong at a place, with the mend, in red pencil. */
export function Problems({ problems, place, isExact = false }: { problems: Problem[]; place: string; isExact?: boolean }) {
  return problems
    .filter((p) => (isExact ? p.place === place : p.place === place || p.place.startsWith(`${place}/`)))
    .map((p) => (
      <div key={p.place + p.what} className={lines.wrong} role="alert">
        {p.what} {p.mend}
      </div>
    ));
}
