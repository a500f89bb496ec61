import { useEffect, useRef } from 'react';
import type { Field } from '../api/generated';
import { asks } from '../engine/elementState';
import type { OpenRecord } from '../engine/openRecord';
import { useField } from '../engine/useRecord';
import { FieldInput } from '../sheet/FieldInput';
import lines from '../sheet/lines.module.css';
import { inLocale } from '../writing/dates';
import classes from './Grid.module.css';

interface Props {
  field: Field;
  record: OpenRecord;
  /** Whether this is the cell that is typed into. */
  isActive: boolean;
  refusal?: string;
}

/** A cell of a row that is typed into, as the row's own rules have it at this moment. */
export function OpenCell({ field, record, isActive, refusal }: Props) {
  const view = useField(record, field.key);
  const { state } = view;
  const cell = useRef<HTMLDivElement>(null);
  const isReadOnly = state.isLocked || !state.isVisible;
  useEffect(() => {
    if (isActive) {
      const input = cell.current?.querySelector<HTMLElement>('input:not([type=hidden]), textarea');
      input?.focus();
      if (input instanceof HTMLInputElement && input.type === 'text') {
        input.select();
      }
    }
  }, [isActive, isReadOnly]);
  const wrong = refusal ?? inLocale(view.violation);
  if (!state.isVisible) {
    return <span className={classes.hidden} title="Hidden for this record" />;
  }
  return (
    <div
      ref={cell}
      className={[
        classes.typed,
        state.isLocked ? lines.locked : '',
        asks(state) ? classes.asked : '',
        wrong ? classes.wrong : '',
      ].join(' ')}
      title={wrong || undefined}
    >
      <FieldInput field={field} record={record} view={view} isReadOnly={isReadOnly || !isActive} describedBy={undefined} />
      {wrong && isActive && (
        <span role="alert" className={classes.reason}>
          {wrong}
        </span>
      )}
    </div>
  );
}
