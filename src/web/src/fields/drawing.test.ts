import { describe, expect, it } from 'vitest';
import type { Form, RecordType, Workflow } from '../api/generated';
import {
  withFieldAt,
  withNewForm,
  withoutSection,
  withSectionAt,
  withSectionCopied,
  withSectionOn,
  withSectionOnNewTab,
  withTabAt,
  withWidth,
} from '../forms/edits';
import { withNewStage, withoutStage, withStageLabel, withStageMoved } from '../workflow/edits';
import { arrowsOf } from '../workflow/lanes';
import { placed, retired, sectionOf, withField, withoutField } from './edits';
import { optionsFrom } from './fieldKinds';
import { keyFor } from './keyFor';
import { newFieldFrom, withNewField } from './newField';
import { originOf } from './origin';

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
    const grown = withNewField(type, newFieldFrom('Depth', 'number'));
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

  it('is dragged to where another one is, on whatever tab, or onto an empty tab', () => {
    const keysOf = (drawn: Form) => drawn.tabs.map(({ sections }) => sections.map(({ key }) => key));
    expect(keysOf(withSectionAt(form!, 'what', 'move section more'))).toEqual([[], ['what', 'more']]);
    const emptied = withSectionAt(form!, 'what', 'move section more');
    expect(keysOf(withSectionAt(emptied, 'more', 'move tab first'))).toEqual([['more'], ['what']]);
    expect(withSectionAt(form!, 'what', 'nowhere')).toBe(form);
    expect(withTabAt(form!, 'first', 'second').tabs.map(({ key }) => key)).toEqual(['second', 'first']);
  });

  it('gets a tab of its own behind the one where it stood, and fields of other widths', () => {
    const split = withSectionOnNewTab(form!, form!.tabs[0]!.sections[0]!);
    expect(split.tabs.map(({ label }) => label)).toEqual(['First', 'What', 'Second']);
    expect(split.tabs.map(({ sections }) => sections.length)).toEqual([0, 1, 1]);
    expect(withWidth(withWidth(undefined, 'title', 4), 'width', 2)).toEqual({ title: 4, width: 2 });
    expect(withWidth({ title: 4 }, 'title', 1)).toEqual({});
  });

  it('stands on another form as the same section', () => {
    const { type: grown, key } = withNewForm(type, 'Short');
    const [what] = form!.tabs[0]!.sections;
    const copied = withSectionCopied(grown, what!, key).forms[1];
    expect(fieldsOf('what', copied)).toEqual(['title', 'width', 'height']);
  });
});

describe('a retired field', () => {
  it('is off every form, and in the margin when it is brought back', () => {
    const away = retired(type, 'width', true);
    expect(sectionOf(away, 'width')).toBeNull();
    expect(away.fields.find(({ key }) => key === 'width')?.retired).toBe(true);
    expect(retired(away, 'width', false).fields.find(({ key }) => key === 'width')?.retired).toBe(false);
  });

  it('is known under the key that the edition in force has', () => {
    const renamed: RecordType = {
      ...withField(type, 'width', { key: 'breadth' }),
      reshaping: [
        { kind: 'field', from: 'width', to: 'wide' },
        { kind: 'field', from: 'wide', to: 'breadth' },
      ],
    };
    expect(originOf(renamed, type, 'breadth')?.key).toBe('width');
    expect(originOf(renamed, type, 'height')?.key).toBe('height');
    expect(originOf(renamed, undefined, 'height')).toBeUndefined();
  });
});

describe('a workflow', () => {
  const three: Workflow = {
    ...type.workflows[0]!,
    stages: ['a', 'b', 'c', 'd'].map((key) => ({ key, label: key })),
    moves: [
      { key: 'ab', label: 'ab', from: 'a', to: 'b' },
      { key: 'ad', label: 'ad', from: 'a', to: 'd' },
      { key: 'bc', label: 'bc', from: 'b', to: 'c' },
      { key: 'ca', label: 'ca', from: 'c', to: 'a' },
    ],
  };

  it('is drawn with the short arrows close to the line, those that lead back below it', () => {
    const { on, back } = arrowsOf(three);
    expect(on.map(({ move, lane }) => [move.key, lane])).toEqual([
      ['ab', 1],
      ['ad', 2],
      ['bc', 1],
    ]);
    expect(back.map(({ move, lane }) => [move.key, lane])).toEqual([['ca', 1]]);
  });

  it('leads through a stage that is put between two others', () => {
    const grown = { ...three, ...withNewStage(type, three, 0, 'Half way') };
    expect(grown.stages.map(({ key }) => key)).toEqual(['a', 'halfWay', 'b', 'c', 'd']);
    expect(grown.moves.map(({ from, to }) => `${from}-${to}`)).toEqual(['a-halfWay', 'halfWay-b', 'a-d', 'b-c', 'c-a']);
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
    expect(withoutStage(workflow!, 'done').part).toEqual({ stages: [{ key: 'open', label: 'Open' }], moves: [] });
  });

  it('that goes lets the moves to it lead on, and says what became of each', () => {
    const grown = { ...workflow!, ...withNewStage(type, workflow!, 0, 'Half way') };
    const { part, told } = withoutStage(grown, 'halfWay');
    expect(part.stages?.map(({ key }) => key)).toEqual(['open', 'done']);
    expect(part.moves?.map(({ from, to }) => [from, to])).toEqual(workflow!.moves.map(({ from, to }) => [from, to]));
    expect(told).toHaveLength(grown.moves.length);
  });

  it('that is called otherwise takes the moves along that are called after it', () => {
    const grown = {
      ...type,
      workflows: [
        {
          ...workflow!,
          moves: [
            { key: 'm', label: 'To done', from: 'open', to: 'done' },
            { key: 'n', label: 'Finish', from: 'open', to: 'done' },
          ],
        },
      ],
    };
    expect(withStageLabel(grown, 'done', 'All through').workflows[0]!.moves.map(({ label }) => label)).toEqual([
      'To all through',
      'Finish',
    ]);
  });
});
