import type { ReactNode } from 'react';
import type { Field } from '../api/generated';
import type { FormRecord } from '../engine/formRecord';
import classes from './FieldCell.module.css';
import { Beside } from './Beside';
import { FieldInput } from './FieldInput';
import lines from './lines.module.css';
import { partsAskedFor } from './parts';

interface Props {
  field: Field;
  record: FormRecord;
  /** Balloons, "Why?" and the like, to the right of the label. */
  aside?: ReactNode;
  /** Whether a rule could alter this field. */
  depends?: boolean;
  isPointedAt?: boolean;
  refusal?: string;
  isWaiting?: boolean;
}

/** One field, drawn in the line language, with its input. */
export function FieldCell({ field, record, aside, depends = false, isPointedAt = false, refusal, isWaiting = false }: Props) {
  const state = record.state('field', field.key);
  const asks = state.requirement !== 'optional' && !state.isSuspended && state.isVisible;
  const wrong = refusal ?? record.violation(field.key);
  const askedParts = partsAskedFor(field, record);
  const wrongId = `wrong-${field.key}`;
  return (
    <div
      className={classes.cell}
      data-field={field.key}
      data-visible={state.isVisible}
      data-locked={state.isLocked || undefined}
      data-requirement={asks ? state.requirement : undefined}
      data-pointed-at={isPointedAt || undefined}
    >
      <div className={classes.heading}>
        <label htmlFor={`field-${field.key}`} className={`${classes.label} ${depends ? lines.depends : ''}`}>
          {field.label}
        </label>
        {!state.isVisible && <span className={lines.word}>hidden</span>}
        {state.isLocked && state.isVisible && <span className={lines.word}>locked</span>}
        {asks && (
          <span className={lines.word}>
            {state.requirement === 'toSave'
              ? 'required to save'
              : state.isForSomeMoves
                ? 'required for a move'
                : 'required to move on'}
          </span>
        )}
        {!asks && askedParts.length > 0 && <span className={lines.word}>{askedParts.join(', ')} required</span>}
        {state.isSetAside && <span className={lines.word}>change set aside</span>}
        {aside}
      </div>
      <div
        className={[
          classes.box,
          state.isVisible ? lines.shown : lines.hidden,
          asks ? lines.required : '',
          state.isLocked && state.isVisible ? lines.locked : '',
          wrong ? classes.wrongBox : '',
        ].join(' ')}
      >
        <FieldInput
          field={field}
          record={record}
          isReadOnly={isWaiting || state.isLocked || !state.isVisible}
          describedBy={wrong ? wrongId : undefined}
        />
      </div>
      <div>
        <Beside record={record} field={field} isReadOnly={isWaiting || state.isLocked || !state.isVisible} />
        {wrong ? (
          <div id={wrongId} role="alert" className={lines.wrong}>
            {wrong}
          </div>
        ) : (
          field.help && <div className={classes.help}>{field.help}</div>
        )}
      </div>
    </div>
  );
}
