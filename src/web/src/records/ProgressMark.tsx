import type { Progress } from '../engine/answers';
import classes from './ProgressMark.module.css';

/** How far a form is, in words. */
export const progressWords: Record<Progress, string> = {
  notRelevant: 'does not apply',
  notBegun: 'not begun',
  begun: 'begun',
  complete: 'complete',
};

/** How far a form is, as a square that fills: the words stand beside it. */
export function ProgressMark({ progress }: { progress?: Progress }) {
  return <span className={classes.mark} data-mark={progress} aria-hidden />;
}
