import type { Field } from '../api/generated';
import { absent, asks } from '../engine/elementState';
import type { FieldView } from '../engine/drawnRecord';
import { partsOf } from '../engine/parts';

/** Labels of the parts that are asked for where the field as a whole is not. */
export function partsAskedFor(field: Field, view: FieldView): string[] {
  return partsOf(field.type.kind)
    .filter(({ key }) => asks(view.parts[key] ?? absent))
    .map(({ label }) => label.toLowerCase());
}
