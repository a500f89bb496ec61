import type { DecisionTable, Element, Output } from '../../api/generated';
import { Chip } from '../rule/Chip';
import { targetOptions } from '../rule/offers';
import { useWriting } from '../rule/writing';
import { withOutput } from './columns';

/** Adds a column on the right: how elements are, what a field holds or offers, or what is said. */
export function OutputChip({ table, onChange }: { table: DecisionTable; onChange: (table: DecisionTable) => void }) {
  const writing = useWriting();
  const { type } = writing;
  const option = (output: Output, label: string, group: string) => ({ value: JSON.stringify(output), label, group });
  const options = () => [
    ...targetOptions(writing).map(({ value, label, note }) => ({
      ...option({ kind: 'state', targets: [JSON.parse(value) as Element] }, label, 'How it is'),
      note,
    })),
    ...type.fields.flatMap(({ key, label }) => [
      option({ kind: 'value', field: key, held: false }, `value of ${label}`, 'What it is set to'),
      option({ kind: 'value', field: key, held: true }, `held value of ${label}`, 'What it is held at'),
    ]),
    ...type.fields
      .filter((field) => 'options' in field.type)
      .map(({ key, label }) => option({ kind: 'choices', field: key }, `choices of ${label}`, 'Which choices are left')),
    option({ kind: 'message', severity: 'note', at: null }, 'note', 'What is said'),
    option({ kind: 'message', severity: 'warning', at: null }, 'warning', 'What is said'),
    option({ kind: 'message', severity: 'stopsMoving', at: null }, 'what stops moving', 'What is said'),
    option({ kind: 'message', severity: 'stopsSaving', at: null }, 'what stops saving', 'What is said'),
  ];
  return (
    <Chip
      blank="output"
      label="+ output"
      isMissing={table.outputs.length === 0}
      options={options}
      onPick={(value) => onChange(withOutput(table, JSON.parse(value) as Output))}
    />
  );
}
