import { Button } from '@mantine/core';
import type { Problem } from '../../api/generated';
import lines from '../../sheet/lines.module.css';
import type { Mend } from './mends';
import classes from './OpenRule.module.css';

interface Props {
  problems: Problem[];
  place: string;
  isExact?: boolean;
  label?: string;
  /** What mends a problem by a press. */
  mendsOf?: (problem: Problem) => Mend[];
}

/** What is wrong at a place, in red pencil, with the mend: as buttons where there are some, else in words. */
export function Problems({ problems, place, isExact = false, label, mendsOf }: Props) {
  return problems
    .filter((p) => (isExact ? p.place === place : p.place === place || p.place.startsWith(`${place}/`)))
    .map((problem) => {
      const mends = mendsOf?.(problem) ?? [];
      return (
        <div key={problem.place + problem.what} className={`${lines.wrong} ${classes.line}`} role="alert">
          <span>
            {label} {problem.what} {mends.length === 0 && problem.mend}
          </span>
          {mends.map((mend) => (
            <Button key={mend.label} size="compact-xs" variant="default" onClick={mend.run}>
              {mend.label}
            </Button>
          ))}
        </div>
      );
    });
}
