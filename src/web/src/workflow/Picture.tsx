import type { RecordType, Workflow } from '../api/generated';
import { arrowsOf, type Arrow } from './lanes';
import classes from './Workflow.module.css';

/** How wide a stage's place on the line is; the stages below stand in columns of the same width. */
export const stageWidth = 168;

const laneHeight = 38;
const spread = 110;

/** The moves as arrows beside the dimension line: on above it, back below it. */
export function Picture({ type, workflow }: { type: RecordType; workflow: Workflow }) {
  const { on, back } = arrowsOf(workflow);
  const lanesOf = (side: Arrow[]) => Math.max(0, ...side.map(({ lane }) => lane));
  const line = lanesOf(on) * laneHeight + 8;
  const height = line + lanesOf(back) * laneHeight + (back.length > 0 ? 4 : 12);
  const width = workflow.stages.length * stageWidth;
  const roles = new Map((type.roles ?? []).map(({ key, label }) => [key, label]));
  const allowed = ({ move }: Arrow) => (move.roles ?? []).map((role) => roles.get(role) ?? role).join(', ') || 'everyone';
  return (
    <svg
      className={classes.picture}
      width={width}
      height={height}
      role="img"
      aria-label={`The moves of ${workflow.label} as arrows; the table below lists them`}
    >
      <defs>
        <marker id="arrowhead" viewBox="0 0 8 8" refX="8" refY="4" markerWidth="8" markerHeight="8" orient="auto-start-reverse">
          <path d="M0,1 L8,4 L0,7 z" className={classes.head} />
        </marker>
      </defs>
      <line x1={0} x2={width} y1={line} y2={line} className={classes.drawn} />
      {workflow.stages.map(({ key }, i) => (
        <line key={key} x1={middle(i)} x2={middle(i)} y1={line - 7} y2={line + 7} className={classes.drawn} />
      ))}
      {[...on, ...back].map((arrow) => {
        const isOn = arrow.from < arrow.to;
        const y = isOn ? line - arrow.lane * laneHeight + 14 : line + arrow.lane * laneHeight - 18;
        const [start, end] = [endAt(arrow.from, arrow.leaves), endAt(arrow.to, arrow.enters)];
        return (
          <g key={arrow.move.key}>
            <path
              d={`M${start},${line} V${y} H${end} V${isOn ? line - 3 : line + 3}`}
              className={classes.arrow}
              markerEnd="url(#arrowhead)"
            />
            <foreignObject x={Math.min(start, end) + 3} y={y - 17} width={Math.max(20, Math.abs(end - start) - 6)} height={34}>
              <div className={classes.said} title={`${arrow.move.label}: ${allowed(arrow)}`}>
                {arrow.move.label}
              </div>
              <div className={classes.roleNames}>{allowed(arrow)}</div>
            </foreignObject>
          </g>
        );
      })}
    </svg>
  );
}

const middle = (stage: number) => stage * stageWidth + stageWidth / 2;

/** Where an arrow ends beside a stage's tick: the ends of several are spread. */
const endAt = (stage: number, [place, of]: [number, number]) => middle(stage) + ((place + 1) / (of + 1) - 0.5) * spread;
