import { Button, MultiSelect, Select, VisuallyHidden } from '@mantine/core';
import { useState } from 'react';
import type { RecordType, Workflow } from '../api/generated';
import { Typed } from '../frame/Typed';
import { withMove, withNewMove } from './edits';
import classes from './Workflow.module.css';

interface Props {
  type: RecordType;
  workflow: Workflow;
  onChange: (part: Partial<Workflow>) => void;
}

/** The moves from stage to stage: what their buttons say, and who may make them. */
export function Moves({ type, workflow, onChange }: Props) {
  const stages = workflow.stages.map(({ key, label }) => ({ value: key, label }));
  const [from, setFrom] = useState<string | null>(null);
  const [to, setTo] = useState<string | null>(null);
  const start = stages.some(({ value }) => value === from) ? from : null;
  const end = stages.some(({ value }) => value === to) ? to : null;
  return (
    <>
      <table className={classes.moves} aria-label={`Moves of ${workflow.label}`}>
        <thead>
          <tr>
            <th>What the button says</th>
            <th>From</th>
            <th>To</th>
            <th>Who may make it</th>
            <th>
              <VisuallyHidden>Delete</VisuallyHidden>
            </th>
          </tr>
        </thead>
        <tbody>
          {workflow.moves.map((move) => (
            <tr key={move.key}>
              <td>
                <Typed
                  aria-label={`Label of the move ${move.label}`}
                  value={move.label}
                  onDone={(label) => label && onChange(withMove(workflow, move.key, { label }))}
                />
              </td>
              <td>{stages.find(({ value }) => value === move.from)?.label}</td>
              <td>→ {stages.find(({ value }) => value === move.to)?.label}</td>
              <td>
                <MultiSelect
                  size="xs"
                  aria-label={`Who may make the move ${move.label}`}
                  placeholder={move.roles?.length ? undefined : 'everyone'}
                  data={(type.roles ?? []).map(({ key, label }) => ({ value: key, label }))}
                  value={move.roles ?? []}
                  onChange={(roles) => onChange(withMove(workflow, move.key, { roles }))}
                />
              </td>
              <td>
                <Button
                  size="compact-sm"
                  variant="default"
                  onClick={() => onChange({ moves: workflow.moves.filter(({ key }) => key !== move.key) })}
                >
                  Delete
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className={classes.begin}>
        <Select
          aria-label={`New move of ${workflow.label} from`}
          placeholder="from"
          w={150}
          data={stages}
          value={start}
          onChange={setFrom}
        />
        <Select
          aria-label={`New move of ${workflow.label} to`}
          placeholder="to"
          w={150}
          data={stages}
          value={end}
          onChange={setTo}
        />
        <Button
          variant="default"
          disabled={!start || !end || start === end}
          onClick={() => {
            if (start && end) {
              onChange(withNewMove(type, workflow, start, end));
              setFrom(null);
              setTo(null);
            }
          }}
        >
          Add the move
        </Button>
      </div>
    </>
  );
}
