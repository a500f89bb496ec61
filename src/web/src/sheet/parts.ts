import type { Field } from '../api/generated';
import { absent, asks } from '../engine/elementState';
import type { FieldView } from '../engine/openRecord';

const parts = {
  fullName: [
    { key: 'given', label: 'Given name' },
    { key: 'family', label: 'Family name' },
  ],
  address: [
    { key: 'street', label: 'Street' },
    { key: 'postalCode', label: 'Postal code' },
    { key: 'city', label: 'City' },
    { key: 'country', label: 'Country' },
  ],
};

/** The parts of a field with a compound value; none for any other. */
export function partsOf(field: Field) {
  return field.type.kind in parts ? parts[field.type.kind as keyof typeof parts] : [];
}

/** Labels of the parts that are asked for where the field as a whole is not. */
export function partsAskedFor(field: Field, view: FieldView): string[] {
  return partsOf(field)
    .filter(({ key }) => asks(view.parts[key] ?? absent))
    .map(({ label }) => label.toLowerCase());
}
