import { useEffect, useEffectEvent, useRef } from 'react';
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
  /** Called when the cell has an input: answers what was typed before it had one. */
  onInput: () => string | undefined;
}

/** A cell of a row that is typed into, as the row's own rules have it at this moment. */
export function OpenCell({ field, record, isActive, refusal, onInput }: Props) {
  const view = useField(record, field.key);
  const { state } = view;
  const cell = useRef<HTMLDivElement>(null);
  const isReadOnly = state.isLocked || !state.isVisible;
  const onFocus = useEffectEvent((input: HTMLInputElement | HTMLTextAreaElement | null | undefined) => {
    input?.focus();
    if (!input || isReadOnly) {
      return;
    }
    if (input.type !== 'radio') {
      input.select();
    }
    const text = onInput();
    if (text !== undefined && input.type === 'radio') {
      record.change(field.key, text.trim() === '' ? null : text);
    } else if (text !== undefined) {
      typeInto(input, text);
    }
  });
  useEffect(() => {
    if (isActive) {
      onFocus(cell.current?.querySelector<HTMLInputElement | HTMLTextAreaElement>('input:not([type=hidden]), textarea'));
    }
  }, [isActive, isReadOnly]);
  const wrong = inLocale(refusal ?? view.violation);
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

/** Puts text into an input as though it had been typed, in place of what stood there. */
function typeInto(input: HTMLInputElement | HTMLTextAreaElement, text: string) {
  const set = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(input) as object, 'value')?.set;
  set?.call(input, text);
  input.dispatchEvent(new Event('input', { bubbles: true }));
}
