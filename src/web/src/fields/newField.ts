import type { Field, FieldType, RecordType } from '../api/generated';
import { placed } from './edits';
import { fieldKinds, optionsFrom, type FieldKind } from './fieldKinds';
import { keyFor } from './keyFor';

/** A field as it is said in one line: what people call it, and of which type it is. */
export interface NewField {
  label: string;
  type: FieldType;
}

/** Other words for a type than those that stand in the list of types. */
const words: Record<string, FieldKind> = {
  notes: 'longText',
  amount: 'money',
  'yes/no': 'yesNo',
  day: 'date',
  moment: 'dateTime',
  name: 'fullName',
  link: 'link',
};

/**
 * Reads a line such as “Price: money”, “Width: number in cm” or “Frame: oak, lime, gilt”. What follows a colon and is no type, nor several
 * choices, is part of the label: then, and where there is no colon, the field is of the type that is given beside it.
 */
export function newFieldFrom(line: string, kind: FieldKind): NewField {
  const [, label, said] = /^(.+?)\s*:\s*(.*?)\s*$/.exec(line) ?? [];
  const type = label && said ? typeFrom(said) : undefined;
  return type ? { label: label!.trim(), type } : { label: line.trim().replace(/\s*:$/, ''), type: firstOf(kind) };
}

const firstOf = (kind: FieldKind): FieldType => fieldKinds.find(({ value }) => value === kind)!.first;

function typeFrom(said: string): FieldType | undefined {
  const [, name = '', unit] = /^(.*?)(?:\s+in\s+(.+))?$/.exec(said) ?? [];
  const folded = name.trim().toLowerCase();
  const kind = fieldKinds.find(({ label }) => label.toLowerCase() === folded)?.value ?? words[folded];
  if (kind !== undefined && kind !== 'choice' && kind !== 'choices') {
    const first = firstOf(kind);
    return unit === undefined
      ? first
      : first.kind === 'number'
        ? { ...first, unit }
        : first.kind === 'money'
          ? { ...first, currency: unit.toUpperCase() }
          : undefined;
  }
  const [, several, listed = ''] = /^(several of\s+)?(?:one of\s+)?(.*)$/i.exec(said) ?? [];
  const labels = listed
    .split(/[,;]|\s+or\s+/)
    .map((one) => one.trim())
    .filter(Boolean);
  return labels.length > 1
    ? { kind: several ? 'choices' : 'choice', options: optionsFrom(labels.join('\n'), [], false) }
    : undefined;
}

/** The record type with another field, at the end of the main form's last section. */
export function withNewField(type: RecordType, { label, type: of }: NewField): { type: RecordType; key: string } {
  const key = keyFor(label, new Set(type.fields.map((field) => field.key)));
  const field: Field = { key, label, type: of };
  const last = type.forms[0]?.tabs.flatMap((tab) => tab.sections).at(-1)?.key;
  const grown = { ...type, fields: [...type.fields, field] };
  return { type: last === undefined ? grown : placed(grown, key, last), key };
}
