import { TextInput } from '@mantine/core';
import type { Field } from '../api/generated';
import type { FormRecord } from '../engine/formRecord';
import classes from './CompoundInput.module.css';
import lines from './lines.module.css';
import { partsOf } from './parts';

interface Props {
  field: Field;
  record: FormRecord;
  isReadOnly: boolean;
  describedBy?: string;
}

/** A value of several parts, each with a state of its own. */
export function CompoundInput({ field, record, isReadOnly, describedBy }: Props) {
  const whole = record.state('field', field.key);
  const held = (record.value(field.key) as Record<string, string> | null) ?? {};

  function change(part: string, text: string) {
    const next = Object.fromEntries(Object.entries({ ...held, [part]: text }).filter(([, filled]) => filled !== ''));
    record.change(field.key, Object.keys(next).length === 0 ? null : next);
  }

  return (
    <div className={classes.parts} role="group" aria-label={field.label}>
      {partsOf(field).map(({ key, label }, i) => {
        const state = record.state('part', `${field.key}.${key}`);
        const asks = state.requirement !== 'optional' && !state.isSuspended && state.isVisible;
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
              asks && whole.requirement === 'optional' ? classes.asks : '',
              state.isVisible ? (state.isLocked ? lines.locked : '') : lines.hidden,
            ].join(' ')}
            hidden={!state.isVisible && !isReadOnly}
            readOnly={isReadOnly || state.isLocked || !state.isVisible}
            required={asks}
            value={held[key] ?? ''}
            onChange={(event) => change(key, event.currentTarget.value)}
          />
        );
      })}
    </div>
  );
}
