import type { FieldType } from '../api/generated';
import { keyFor } from './keyFor';

export type FieldKind = FieldType['kind'];

/** The types that a field may have, as they are called, with what a field of each is at first. */
export const fieldKinds: { value: FieldKind; label: string; first: FieldType }[] = [
  { value: 'text', label: 'Text', first: { kind: 'text' } },
  { value: 'longText', label: 'Long text', first: { kind: 'longText' } },
  { value: 'number', label: 'Number', first: { kind: 'number' } },
  { value: 'money', label: 'Money', first: { kind: 'money', currency: 'EUR' } },
  { value: 'yesNo', label: 'Yes or no', first: { kind: 'yesNo' } },
  { value: 'date', label: 'Date', first: { kind: 'date' } },
  { value: 'dateTime', label: 'Date and time', first: { kind: 'dateTime' } },
  { value: 'choice', label: 'One choice', first: { kind: 'choice', options: [] } },
  { value: 'choices', label: 'Several choices', first: { kind: 'choices', options: [] } },
  { value: 'fullName', label: 'Full name', first: { kind: 'fullName' } },
  { value: 'address', label: 'Address', first: { kind: 'address' } },
  { value: 'link', label: 'Link to a record', first: { kind: 'link', recordType: '' } },
  { value: 'person', label: 'Person', first: { kind: 'person' } },
];

export const kindLabel = (kind: FieldKind): string => fieldKinds.find(({ value }) => value === kind)!.label;

/**
 * The settings of a type in a few words: its unit, its limits, its choices.
 * @param nameOf What a record type is called, where a link leads to it.
 */
export function settingsOf(type: FieldType, nameOf: (recordType: string) => string = (key) => key): string {
  switch (type.kind) {
    case 'text':
    case 'longText':
      return type.maxLength ? `up to ${type.maxLength} characters` : '';
    case 'number':
      return [
        type.unit,
        type.scale ? `${type.scale} ${type.scale === 1 ? 'digit' : 'digits'} after the point` : 'whole',
        limits(type.min, type.max),
      ]
        .filter(Boolean)
        .join(', ');
    case 'money':
      return [type.currency ?? 'EUR', limits(type.min, type.max)].filter(Boolean).join(', ');
    case 'choice':
    case 'choices': {
      const offered = type.options.filter(({ retired }) => !retired);
      const named = offered.slice(0, 4).map(({ label }) => label);
      return named.join(', ') + (offered.length > named.length ? ` and ${offered.length - named.length} more` : '');
    }
    case 'link':
      return type.recordType ? `to ${nameOf(type.recordType)}` : 'to nothing yet';
    default:
      return '';
  }
}

function limits(min: number | null | undefined, max: number | null | undefined): string {
  return min != null && max != null ? `${min} to ${max}` : min != null ? `from ${min} on` : max != null ? `up to ${max}` : '';
}

/**
 * Choices by their labels, one on a line. Those that were there keep their keys, also where one line is called otherwise;
 * what is no longer there is retired where it may be held.
 */
export function optionsFrom(text: string, before: { key: string; label: string; retired?: boolean }[], isHeld: boolean) {
  const labels = [...new Set(text.split('\n').map((line) => line.trim()))].filter(Boolean);
  const keys = new Set(before.map(({ key }) => key));
  const offered = before.filter(({ retired }) => !retired);
  const differing = labels.length === offered.length ? labels.filter((label, i) => offered[i]?.label !== label) : [];
  const named = labels.map((label, i) => {
    const isRenamed = differing.length === 1 && differing[0] === label;
    const known = before.find((option) => option.label === label) ?? (isRenamed ? offered[i] : undefined);
    const key = known?.key ?? keyFor(label, keys);
    keys.add(key);
    return { key, label };
  });
  const gone = before.filter(({ key }) => !named.some((option) => option.key === key));
  return [...named, ...(isHeld ? gone.map((option) => ({ ...option, retired: true })) : [])];
}
