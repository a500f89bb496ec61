import type { FieldType, Option } from '../api/generated';
import type { Value } from '../engine/answers';
import { writtenDate } from './dates';
import { writtenAmount, writtenNumber } from './numbers';

/**
 * A value as it is written, so that it is read back as the same; nothing for a blank. People and linked records are called by name by
 * those who know them. As NotationWriting in Dibujo.Core, against which `written.json` holds this.
 */
export function shown(type: FieldType | undefined, value: Value): string {
  if (value === null || value === undefined) {
    return '';
  }
  if (typeof value === 'boolean') {
    return value ? 'yes' : 'no';
  }
  const options = type && 'options' in type ? type.options : [];
  if (Array.isArray(value)) {
    return value.map((key) => item(called(options, key))).join(', ');
  }
  if (typeof value === 'object') {
    return type?.kind === 'address' ? address(value) : fullName(value);
  }
  if (typeof value === 'number') {
    switch (type?.kind) {
      case 'money':
        return `${type.currency} ${writtenAmount(value)}`;
      case 'number':
        return `${writtenNumber(value, !type.ungrouped)}${type.unit ? ` ${type.unit}` : ''}`;
      case 'link':
        return `No. ${value}`;
      default:
        return writtenNumber(value);
    }
  }
  return type?.kind === 'date' || type?.kind === 'dateTime' ? writtenDate(value) : called(options, value);
}

const folded = (text: string) => text.trim().normalize('NFC').toUpperCase();

/** What one of several choices is called: its label, or its key where the label is another's as well. */
function called(options: Option[], key: string): string {
  const label = options.find((option) => option.key === key)?.label;
  return label !== undefined &&
    options.every((other) => other.key === key || (folded(other.label) !== folded(label) && folded(other.key) !== folded(label)))
    ? label
    : key;
}

/** A text among others that commas part: in quotation marks where it has such marks itself. */
const item = (text: string) => (/[,;"\r\n]|^\s|\s$/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);

const isWord = (text: string) => text !== '' && !/[\s,;"]/.test(text);

function fullName({ given = '', family = '' }: Record<string, string>): string {
  return isWord(given) && isWord(family)
    ? `${given} ${family}`
    : given === '' && isWord(family)
      ? family
      : `${item(family)}, ${item(given)}`;
}

function address({ street = '', postalCode = '', city = '', country = '' }: Record<string, string>): string {
  const all = [street, postalCode, city, country];
  return all.every((part) => part !== '' && item(part) === part) &&
    isWord(postalCode) &&
    /\d/.test(postalCode) &&
    !/^\d/.test(city)
    ? `${street}, ${postalCode} ${city}, ${country}`
    : all.map(item).join(', ');
}
