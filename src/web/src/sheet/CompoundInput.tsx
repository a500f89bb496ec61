import { TextInput } from '@mantine/core';
import type { Field } from '../api/generated';
import { absent, asks } from '../engine/elementState';
import type { FieldView } from '../engine/drawnRecord';
import type { OpenRecord } from '../engine/openRecord';
import classes from './CompoundInput.module.css';
import lines from './lines.module.css';
import { partsOf } from '../engine/parts';

interface Props {
  field: Field;
  record: OpenRecord;
  view: FieldView;
  isReadOnly: boolean;
  describedBy?: string;
}

/** A value of several parts, each with a state of its own. */
export function CompoundInput({ field, record, view, isReadOnly, describedBy }: Props) {
  const whole = view.state;
  const held = (view.value as Record<string, string> | null) ?? {};

  function change(part: string, text: string) {
    const next = Object.fromEntries(Object.entries({ ...held, [part]: text }).filter(([, filled]) => filled !== ''));
    record.change(field.key, Object.keys(next).length === 0 ? null : next);
  }

  return (
    <div className={classes.parts} role="group" aria-label={field.label}>
      {partsOf(field.type.kind).map(({ key, label }, i) => {
        const state = view.parts[key] ?? absent;
        const isAsked = asks(state);
        return (
          <TextInput
            key={key}
            id={i === 0 ? `field-${field.key}` : undefined}
            variant="unstyled"
            size="sm"
            placeholder={label}
            aria-label={`${field.label}: ${label}`}
            aria-describedby={describedBy}
            data-part={key}
            className={[
              isAsked && whole.requirement === 'optional' ? classes.asks : '',
              state.isVisible ? (state.isLocked && !isReadOnly ? lines.locked : '') : lines.hidden,
            ].join(' ')}
            hidden={!state.isVisible && !isReadOnly}
            readOnly={isReadOnly || state.isLocked || !state.isVisible}
            required={isAsked}
            value={held[key] ?? ''}
            onChange={(event) => change(key, event.currentTarget.value)}
          />
        );
      })}
    </div>
  );
}
