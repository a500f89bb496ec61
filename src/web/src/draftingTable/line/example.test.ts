import { describe, expect, it } from 'vitest';
import type { FieldType, RecordType } from '../../api/generated';
import { exampleOf } from './example';

const typeOf = (...fields: [string, FieldType, boolean?][]) =>
  ({
    key: 'loan',
    label: 'Loan',
    fields: fields.map(([label, type, retired]) => ({ key: label, label, type, retired })),
    forms: [
      {
        key: 'file',
        label: 'File',
        tabs: fields.map(([label]) => ({ key: `tab ${label}`, label, sections: [{ key: label, label, fields: [label] }] })),
      },
    ],
  }) as unknown as RecordType;

const text: FieldType = { kind: 'text' };
const mode: FieldType = {
  kind: 'choice',
  options: [
    { key: 'v', label: 'By van', retired: true },
    { key: 'a', label: 'By air' },
  ],
};

describe('the example beside the line', () => {
  it('speaks of fields that stand on the form, and of choices that are offered', () => {
    expect(exampleOf(typeOf(['Title', text], ['Mode', mode], ['Flight', text]), 'file', '')).toBe(
      'require Flight if Mode is By air',
    );
    expect(exampleOf(typeOf(['Title', text], ['Crate', { kind: 'yesNo' }]), 'file', '')).toBe('require Title if Crate is yes');
    expect(exampleOf(typeOf(['Title', text], ['Note', text]), 'file', '')).toBe('require Note if Title is filled in');
  });

  it('begins with the tab that is looked at, names nothing retired, and may be nothing', () => {
    const two = typeOf(['Crate', { kind: 'yesNo' }], ['Title', text], ['Glazing', { kind: 'yesNo' }]);
    expect(exampleOf(two, 'file', 'tab Glazing')).toBe('require Crate if Glazing is yes');
    expect(exampleOf(typeOf(['Title', text], ['Crate', { kind: 'yesNo' }, true]), 'file', '')).toBe('');
    expect(exampleOf(typeOf(), 'file', '')).toBe('');
  });
});
