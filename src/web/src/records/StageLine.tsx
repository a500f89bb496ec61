import type { Workflow } from '../api/generated';
import classes from './StageLine.module.css';

/** The workflow as a dimension line: a station with a tick for each stage, the present one marked. */
export function StageLine({ workflow, stage }: { workflow: Workflow; stage: string }) {
  const here = workflow.stages.findIndex((s) => s.key === stage);
  return (
    <ol className={classes.line} aria-label={`Stages of the workflow ${workflow.label}`}>
      {workflow.stages.map((s, i) => (
        <li
          key={s.key}
          className={classes.station}
          data-passed={i < here || undefined}
          aria-current={i === here ? 'step' : undefined}
        >
          <span className={classes.label}>{s.label}</span>
        </li>
      ))}
    </ol>
  );
}
