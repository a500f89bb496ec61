import type { Field } from '../api/generated';
import { absent, asks } from '../engine/elementState';
import type { FieldView } from '../engine/drawnRecord';
import { partsOf } from '../engine/parts';

/** Labels of the parts that are asked for where the field as a whole is not, in order to save or, where a move leads on, to move on. */
export function partsAskedFor(field: Field, view: FieldView, leadsOn: boolean): string[] {
  return partsOf(field.type.kind)
    .filter(({ key }) => {
      const state = view.parts[key] ?? absent;
      return asks(state) && (leadsOn || state.requirement === 'toSave');
    })
    .map(({ label }) => label.toLowerCase());
}
