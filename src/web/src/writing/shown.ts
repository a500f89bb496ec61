import type { FieldType } from '../api/generated';
import type { Value } from '../engine/answers';
import { writtenDate } from './dates';
import { writtenAmount, writtenNumber } from './numbers';

/** A value in words, as short as it goes; nothing for a blank. People and linked records are called by name by those who know them. */
export function shown(type: FieldType | undefined, value: Value): string {
  if (value === null || value === undefined) {
    return '';
  }
  if (typeof value === 'boolean') {
    return value ? 'yes' : 'no';
  }
  if (Array.isArray(value)) {
    return value.map((one) => shown(type, one)).join(', ');
  }
  if (typeof value === 'object') {
    const order = type?.kind === 'address' ? ['street', 'postalCode', 'city', 'country'] : ['given', 'family'];
    return order
      .map((part) => value[part])
      .filter(Boolean)
      .join(type?.kind === 'address' ? ', ' : ' ');
  }
  if (typeof value === 'number') {
    return type?.kind === 'money'
      ? `${type.currency} ${writtenAmount(value)}`
      : type?.kind === 'number' && type.unit
        ? `${writtenNumber(value)} ${type.unit}`
        : type?.kind === 'link'
          ? `No. ${value}`
          : writtenNumber(value);
  }
  if (type?.kind === 'date' || type?.kind === 'dateTime') {
    return writtenDate(value);
  }
  const options = type && 'options' in type ? type.options : [];
  return options.find((option) => option.key === value)?.label ?? value;
}
