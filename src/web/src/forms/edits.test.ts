import { describe, expect, it } from 'vitest';
import type { Form, RecordType } from '../api/generated';
import { random } from '../pending/random';
import {
  withFieldAt,
  withMainForm,
  withNewForm,
  withNewSection,
  withNewTab,
  withoutSection,
  withSectionAt,
  withSectionCopied,
  withSectionMoved,
  withSectionOn,
  withSectionOnNewTab,
  withTabAt,
  withTabMoved,
  withWidth,
} from './edits';

const form: Form = {
  key: 'loan',
  label: 'Loan',
  tabs: [
    {
      key: 'first',
      label: 'First',
      sections: [
        { key: 'who', label: 'Who', fields: ['borrower', 'contact'] },
        { key: 'what', label: 'What', fields: ['object', 'crate', 'value'] },
      ],
    },
    { key: 'second', label: 'Second', sections: [{ key: 'when', label: 'When', fields: ['start', 'end'] }] },
    { key: 'third', label: 'Third', sections: [] },
  ],
};

const sectionsOf = ({ tabs }: Form) => tabs.flatMap(({ sections }) => sections);
const fieldsOf = (one: Form) => sectionsOf(one).flatMap(({ fields }) => fields);
const keysOf = (one: Form) => [...one.tabs.map(({ key }) => key), ...sectionsOf(one).map(({ key }) => key)];
const sorted = (list: string[]) => list.toSorted();

describe('drawing a form', () => {
  it('loses and doubles nothing, whatever is carried where', () => {
    for (let seed = 1; seed <= 200; seed++) {
      const chance = random(seed);
      const any = <T>(list: T[]): T => list[Math.floor(chance() * list.length)]!;
      let drawn = form;
      for (let step = 0; step < 30; step++) {
        const [tab, other] = [any(drawn.tabs).key, any(drawn.tabs).key];
        const [section, onto] = [any(sectionsOf(drawn)), any(sectionsOf(drawn)).key];
        const field = any(fieldsOf(drawn));
        drawn = any([
          () => withFieldAt(drawn, field, onto, chance() < 0.5 ? null : any(fieldsOf(drawn))),
          () => withTabMoved(drawn, tab, Math.floor(chance() * 7) - 3),
          () => withTabAt(drawn, tab, other),
          () => withSectionMoved(drawn, section.key, Math.floor(chance() * 7) - 3),
          () => withSectionAt(drawn, section.key, chance() < 0.5 ? `move section ${onto}` : `move tab ${tab}`),
          () => withSectionOn(drawn, section.key, tab),
          () => withSectionOnNewTab(drawn, section),
          () => withNewTab(drawn, 'More'),
          () => withNewSection(drawn, tab, 'More'),
        ])();
      }

      expect(sorted(fieldsOf(drawn)), `${seed}`).toEqual(sorted(fieldsOf(form)));
      expect(new Set(keysOf(drawn)).size, `${seed}`).toBe(keysOf(drawn).length);
      expect(sorted(keysOf(drawn)), `${seed}`).toEqual(expect.arrayContaining(sorted(keysOf(form))));
    }
  });

  it('puts a field before another one, at the end, or on no section', () => {
    const fields = (one: Form) => sectionsOf(one).map((section) => section.fields.join(' '));
    expect(fields(withFieldAt(form, 'contact', 'what', 'crate'))).toEqual([
      'borrower',
      'object contact crate value',
      'start end',
    ]);
    expect(fields(withFieldAt(form, 'object', 'what', null))).toEqual(['borrower contact', 'crate value object', 'start end']);
    expect(fields(withFieldAt(form, 'end', null, null))).toEqual(['borrower contact', 'object crate value', 'start']);
    expect(fields(withFieldAt(form, 'crate', 'what', 'crate'))).toEqual(fields(form));
  });

  it('leaves a tab where it is asked to go nowhere, and stops at the ends', () => {
    const tabs = (one: Form) => one.tabs.map(({ key }) => key).join(' ');
    expect(tabs(withTabMoved(form, 'second', 0))).toBe('first second third');
    expect(tabs(withTabMoved(form, 'second', 9))).toBe('first third second');
    expect(tabs(withTabMoved(form, 'second', -9))).toBe('second first third');
    expect(tabs(withTabAt(form, 'first', 'third'))).toBe('second third first');
    expect(withTabAt(form, 'first', 'nowhere')).toBe(form);
  });

  it('gives what is new a key of its own', () => {
    const type = { forms: [form] } as RecordType;
    const { type: then, key } = withNewForm(withNewForm(type, 'Loan').type, 'Loan');
    expect(new Set(then.forms.map((one) => one.key)).size).toBe(3);
    expect(then.forms.at(-1)!.key).toBe(key);
    expect(withMainForm(then, key).forms.map((one) => one.key)).toEqual([key, ...then.forms.slice(0, -1).map((one) => one.key)]);
  });

  it('copies a section to another form without the fields that are there already', () => {
    const other: Form = {
      key: 'quick',
      label: 'Quick',
      tabs: [{ key: 'q', label: 'Q', sections: [{ key: 'x', label: 'X', fields: ['object'] }] }],
    };
    const then = withSectionCopied({ forms: [form, other] } as RecordType, sectionsOf(form)[1]!, 'quick');
    expect(sectionsOf(then.forms[1]!).map(({ fields }) => fields)).toEqual([['object'], ['crate', 'value']]);
    expect(then.forms[0]).toBe(form);
  });

  it('says of widths only what is worth saying', () => {
    expect(withWidth(undefined, 'object', 2)).toEqual({ object: 2 });
    expect(withWidth({ object: 2, crate: 3 }, 'object', 1)).toEqual({ crate: 3 });
  });

  it('leaves the fields of a section that is taken away in the margin', () => {
    expect(fieldsOf(withoutSection(form, 'what'))).toEqual(['borrower', 'contact', 'start', 'end']);
  });
});
