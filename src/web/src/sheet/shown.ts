import type { Value } from '../engine/answers';
import type { FieldType } from '../api/generated';

/** A value in words, as short as it goes; nothing for a blank. */
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
    return Object.values(value).join(' ');
  }
  if (typeof value === 'number') {
    const digits = value.toLocaleString('en');
    return type?.kind === 'money'
      ? `${type.currency} ${digits}`
      : type?.kind === 'number' && type.unit
        ? `${digits} ${type.unit}`
        : digits;
  }
  const options = type && 'options' in type ? type.options : [];
  return options.find((option) => option.key === value)?.label ?? value;
}
