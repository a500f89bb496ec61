import { memo, type ReactNode } from 'react';
import type { ElementKind, Field } from '../api/generated';
import { asks } from '../engine/elementState';
import type { FieldView } from '../engine/drawnRecord';
import type { OpenRecord } from '../engine/openRecord';
import { useElement, useField } from '../engine/useRecord';
import { Beside } from './Beside';
import classes from './FieldCell.module.css';
import { FieldInput } from './FieldInput';
import lines from './lines.module.css';
import { Possible } from './Possible';
import { inLocale } from '../writing/dates';
import { shown } from '../writing/shown';
import { partsAskedFor } from './parts';

interface Props {
  field: Field;
  /** How many columns it takes where there are several; undefined for one. */
  width?: number;
  record: OpenRecord;
  /** Draws the field though it is hidden, dashed. */
  showHidden: boolean;
  /** Balloons, "Why?" and the like, to the right of the label. The same function at every drawing. */
  aside?: (kind: ElementKind, key: string) => ReactNode;
  /** Whether a rule could alter this field. */
  depends?: boolean;
  isPointedAt?: boolean;
  refusal?: string;
}

/** One field, drawn in the line language, with its input. Draws itself anew when its own state differs, and at no other change. */
export const FieldCell = memo(function FieldCell({
  field,
  width,
  record,
  showHidden,
  aside,
  depends = false,
  isPointedAt = false,
  refusal,
}: Props) {
  const view = useField(record, field.key);
  // Of a record that is locked as a whole that is said once, above.
  const isAllLocked = useElement(record, 'record', 'record').isLocked;
  const { state } = view;
  if (!state.isVisible && !showHidden) {
    return null;
  }
  const isAsked = asks(state) && (state.requirement === 'toSave' || record.leadsOn);
  const unfit = unfitChoices(field, view);
  const wrong = inLocale(refusal || view.violation) || unfit;
  const askedParts = partsAskedFor(field, view, record.leadsOn);
  const wrongId = `wrong-${field.key}`;
  const isReadOnly = state.isLocked || !state.isVisible;
  return (
    <div
      className={classes.cell}
      data-field={field.key}
      data-width={width}
      data-visible={state.isVisible}
      data-locked={state.isLocked || undefined}
      data-requirement={isAsked ? state.requirement : undefined}
      data-pointed-at={isPointedAt || undefined}
      data-marked={view.isMarked || undefined}
    >
      <div className={classes.heading}>
        <label htmlFor={`field-${field.key}`} className={`${classes.label} ${depends ? lines.depends : ''}`}>
          {field.label}
        </label>
        {!state.isVisible && <span className={lines.word}>hidden</span>}
        {state.isLocked && state.isVisible && !isAllLocked && <span className={lines.word}>locked</span>}
        {isAsked && (
          <span className={lines.word}>
            {state.requirement === 'toSave'
              ? 'required to save'
              : state.isForSomeMoves
                ? 'required for a move'
                : 'required to move on'}
          </span>
        )}
        {!isAsked && askedParts.length > 0 && <span className={lines.word}>{askedParts.join(', ')} required</span>}
        {view.isMarked && <span className={lines.changed}>changed just now</span>}
        {state.isSetAside && <span className={lines.word}>change set aside</span>}
        {aside?.('field', field.key)}
      </div>
      <div
        className={[
          classes.box,
          state.isVisible ? lines.shown : lines.hidden,
          isAsked ? lines.required : '',
          state.isLocked && state.isVisible ? lines.locked : '',
          wrong ? classes.wrongBox : '',
        ].join(' ')}
      >
        <FieldInput field={field} record={record} view={view} isReadOnly={isReadOnly} describedBy={wrong ? wrongId : undefined} />
      </div>
      <div>
        <Beside record={record} field={field} view={view} isReadOnly={isReadOnly} />
        {wrong ? (
          <div id={wrongId} role="alert" className={lines.wrong}>
            {wrong}
            <Possible record={record} field={field} view={view} />
          </div>
        ) : (
          field.help && <div className={classes.help}>{field.help}</div>
        )}
      </div>
    </div>
  );
});

/** Says which of the choices made a rule does not leave to the field any more; empty for none. */
function unfitChoices({ type }: Field, { value, offers, state }: FieldView): string {
  const chosen = Array.isArray(value) ? value : typeof value === 'string' ? [value] : [];
  const unfit = offers === null || state.isLocked ? [] : chosen.filter((key) => !offers.includes(key));
  return unfit.length === 0
    ? ''
    : `“${unfit.map((key) => shown(type, key)).join('”, “')}” cannot be chosen here now. Choose another.`;
}
