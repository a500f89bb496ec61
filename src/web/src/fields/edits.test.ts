import { describe, expect, it } from 'vitest';
import type { RecordType } from '../api/generated';
import { withFieldAt, withNewForm, withoutSection, withSectionCopied, withSectionOn } from '../forms/edits';
import { withNewStage, withoutStage, withStageMoved } from '../workflow/edits';
import { placed, sectionOf, withNewField, withoutField } from './edits';
import { optionsFrom } from './fieldKinds';
import { keyFor } from './keyFor';

const type: RecordType = {
  key: 'frame',
  label: 'Frame',
  titleField: 'title',
  fields: [
    { key: 'title', label: 'Title', type: { kind: 'text' } },
    { key: 'width', label: 'Width', type: { kind: 'number' } },
    { key: 'height', label: 'Height', type: { kind: 'number' } },
  ],
  forms: [
    {
      key: 'main',
      label: 'Main',
      tabs: [
        { key: 'first', label: 'First', sections: [{ key: 'what', label: 'What', fields: ['title', 'width', 'height'] }] },
        { key: 'second', label: 'Second', sections: [{ key: 'more', label: 'More', fields: [] }] },
      ],
    },
  ],
  workflows: [
    {
      key: 'standard',
      label: 'Standard',
      stages: [
        { key: 'open', label: 'Open' },
        { key: 'done', label: 'Done' },
      ],
      moves: [{ key: 'finish', label: 'Finish', from: 'open', to: 'done' }],
    },
  ],
};
const [form] = type.forms;
const [workflow] = type.workflows;
const fieldsOf = (section: string, of = form!) =>
  of.tabs.flatMap(({ sections }) => sections).find(({ key }) => key === section)?.fields;

describe('a key', () => {
  it('is made of the words, without accents, and is unlike all that are taken', () => {
    expect(keyFor('Maße des Rahmens', new Set())).toBe('masseDesRahmens');
    expect(keyFor('Dépôt légal', new Set())).toBe('depotLegal');
    expect(keyFor('Width', new Set(['width', 'width2']))).toBe('width3');
    expect(keyFor('12 months', new Set())).toBe('f12Months');
  });
});

describe('a field', () => {
  it('stands on the form as soon as it is there, and goes with all its places', () => {
    const grown = withNewField(type, 'Depth', 'number');
    expect(sectionOf(grown.type, grown.key)).toBe('more');
    expect(withoutField(grown.type, grown.key)).toEqual(type);
    expect(sectionOf(placed(type, 'width', null), 'width')).toBeNull();
  });

  it('is dragged before another, to another section, and into the margin', () => {
    expect(fieldsOf('what', withFieldAt(form!, 'height', 'what', 'title'))).toEqual(['height', 'title', 'width']);
    expect(fieldsOf('what', withFieldAt(form!, 'title', 'what', null))).toEqual(['width', 'height', 'title']);
    const moved = withFieldAt(form!, 'width', 'more', null);
    expect([fieldsOf('what', moved), fieldsOf('more', moved)]).toEqual([['title', 'height'], ['width']]);
    expect(fieldsOf('what', withFieldAt(form!, 'width', null, null))).toEqual(['title', 'height']);
  });
});

describe('a section', () => {
  it('goes to another tab with its fields, and away without them', () => {
    const moved = withSectionOn(form!, 'what', 'second');
    expect(moved.tabs.map(({ sections }) => sections.map(({ key }) => key))).toEqual([[], ['more', 'what']]);
    expect(fieldsOf('what', withoutSection(form!, 'what'))).toBeUndefined();
  });

  it('stands on another form as the same section', () => {
    const { type: grown, key } = withNewForm(type, 'Short');
    const [what] = form!.tabs[0]!.sections;
    const copied = withSectionCopied(grown, what!, key).forms[1];
    expect(fieldsOf('what', copied)).toEqual(['title', 'width', 'height']);
  });
});

describe('choices', () => {
  const before = [
    { key: 'oak', label: 'Oak' },
    { key: 'pine', label: 'Pine' },
  ];

  it('keep their keys in another order, and where one is called otherwise', () => {
    expect(optionsFrom('Pine\nOak', before, true).map(({ key }) => key)).toEqual(['pine', 'oak']);
    expect(optionsFrom('Oak\nScots pine', before, true)).toEqual([
      { key: 'oak', label: 'Oak' },
      { key: 'pine', label: 'Scots pine' },
    ]);
  });

  it('are kept for records that may have them, and gone where none can', () => {
    expect(optionsFrom('Oak', before, true)).toEqual([
      { key: 'oak', label: 'Oak' },
      { key: 'pine', label: 'Pine', retired: true },
    ]);
    expect(optionsFrom('Oak', before, false)).toEqual([{ key: 'oak', label: 'Oak' }]);
  });
});

describe('a stage', () => {
  it('is put after another, moved, and taken away with its moves', () => {
    const grown = { ...workflow!, ...withNewStage(type, workflow!, 0, 'Half way') };
    expect(grown.stages.map(({ key }) => key)).toEqual(['open', 'halfWay', 'done']);
    expect(withStageMoved(grown, 1, 1).stages?.map(({ key }) => key)).toEqual(['open', 'done', 'halfWay']);
    expect(withoutStage(workflow!, 'done')).toEqual({ stages: [{ key: 'open', label: 'Open' }], moves: [] });
  });
});
