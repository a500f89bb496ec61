import type { ConditionClause, Definition } from '../api/generated';

/** A definition that has a little of everything, for the engine to warm up with. */
export const sample: Definition = {
  recordType: {
    key: 't',
    label: 'T',
    titleField: 'a',
    fields: [
      { key: 'a', label: 'A', type: { kind: 'text' } },
      { key: 'b', label: 'B', type: { kind: 'number', scale: 1, min: 0 } },
      { key: 'c', label: 'C', type: { kind: 'choice', options: [{ key: 'x', label: 'X' }] } },
      { key: 'd', label: 'D', type: { kind: 'yesNo' } },
      { key: 'e', label: 'E', type: { kind: 'date' } },
      { key: 'n', label: 'N', type: { kind: 'fullName' } },
      { key: 'm', label: 'M', type: { kind: 'money', currency: 'EUR' } },
    ],
    forms: [
      {
        key: 'f',
        label: 'F',
        tabs: [{ key: 't', label: 'T', sections: [{ key: 's', label: 'S', fields: ['a', 'b', 'c', 'd'] }] }],
      },
      { key: 'g', label: 'G', tabs: [{ key: 'u', label: 'U', sections: [{ key: 'v', label: 'V', fields: ['a', 'n'] }] }] },
    ],
    workflows: [
      {
        key: 'w',
        label: 'W',
        stages: [
          { key: 's', label: 'S' },
          { key: 'r', label: 'R' },
        ],
        moves: [{ key: 'o', label: 'O', from: 's', to: 'r' }],
      },
    ],
  },
  rules: [
    {
      key: 'r',
      name: 'R',
      cases: [
        {
          while: {
            kind: 'group',
            quantifier: 'anyOf',
            members: [
              clause('b', 'atLeast', 2),
              clause('a', 'contains', 'x'),
              clause('c', 'is', 'x'),
              { kind: 'clause', subject: { kind: 'stage' }, test: 'before', comparands: [{ kind: 'literal', value: 'r' }] },
            ],
          },
          effects: [
            { kind: 'require', targets: [{ kind: 'field', key: 'd' }], level: 'toMoveOn' },
            { kind: 'lock', targets: [{ kind: 'section', key: 'v' }] },
            { kind: 'calculate', field: 'm', from: { kind: 'expression', expression: 'b * 2' } },
            { kind: 'message', severity: 'note', text: 'B is {b}.' },
          ],
        },
        { effects: [{ kind: 'hide', targets: [{ kind: 'field', key: 'd' }], value: 'clear' }] },
      ],
    },
  ],
};

function clause(field: string, test: 'atLeast' | 'contains' | 'is', value: string | number): ConditionClause {
  return { kind: 'clause', subject: { kind: 'field', field }, test, comparands: [{ kind: 'literal', value }] };
}
