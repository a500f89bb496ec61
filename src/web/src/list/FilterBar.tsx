import { ActionIcon, Button, Group, SegmentedControl, Select, TextInput } from '@mantine/core';
import { IconPlus, IconX } from '@tabler/icons-react';
import type { ColumnView, Option, PersonEntry } from '../api/generated';
import { ChoiceInput } from '../sheet/ChoiceInput';
import { ChoicesInput } from '../sheet/ChoicesInput';
import { ReadInput } from '../sheet/ReadInput';
import classes from './ListPage.module.css';
import type { Clause, Layout } from './layout';

interface Props {
  known: ColumnView[];
  people: PersonEntry[];
  layout: Layout;
  onLayout: (change: Partial<Layout>) => void;
}

/** The tests that records have to pass, each in a line; nothing where there are none. */
export function FilterBar({ known, people, layout, onLayout }: Props) {
  const { clauses } = layout;
  const put = (i: number, clause: Clause | undefined) =>
    onLayout({ clauses: clauses.flatMap((one, j) => (i !== j ? [one] : clause ? [clause] : [])) });
  return (
    <div className={classes.filter} role="group" aria-label="Filter">
      {clauses.length > 1 && (
        <SegmentedControl
          size="xs"
          aria-label="How many tests have to hold"
          data={[
            { value: 'all', label: 'All of these' },
            { value: 'any', label: 'Any of these' },
          ]}
          value={layout.isAny ? 'any' : 'all'}
          onChange={(next) => onLayout({ isAny: next === 'any' })}
        />
      )}
      {clauses.map((clause, i) => {
        const column = known.find(({ key }) => key === clause.of);
        const test = column?.tests.find((one) => one.test === clause.test);
        return (
          <Group key={i} gap={6} wrap="nowrap" data-clause={clause.of}>
            <ChoiceInput
              aria-label="Column"
              w={170}
              data={known.map(({ key, label }) => ({ value: key, label }))}
              value={clause.of}
              onChange={(of) => {
                const next = known.find(({ key }) => key === of);
                if (next) {
                  put(i, { of: next.key, test: next.tests[0]?.test ?? 'is', values: [] });
                }
              }}
            />
            <Select
              aria-label="Test"
              w={150}
              data={column?.tests.map((one) => ({ value: one.test, label: one.words })) ?? []}
              value={clause.test}
              onChange={(next) => put(i, { ...clause, test: next ?? clause.test, values: [] })}
            />
            {column && test && test.shape !== 'alone' && (
              <Compared
                column={column}
                shape={test.shape}
                people={people}
                values={clause.values}
                onChange={(values) => put(i, { ...clause, values })}
              />
            )}
            <ActionIcon variant="subtle" aria-label="Delete this test" onClick={() => put(i, undefined)}>
              <IconX size={14} />
            </ActionIcon>
          </Group>
        );
      })}
    </div>
  );
}

/** Begins another test. */
export function AddTest({ known, layout, onLayout }: Omit<Props, 'people'>) {
  const [column] = known;
  return (
    <Button
      variant="default"
      leftSection={<IconPlus size={14} />}
      onClick={() =>
        column && onLayout({ clauses: [...layout.clauses, { of: column.key, test: column.tests[0]?.test ?? 'is', values: [] }] })
      }
    >
      Filter
    </Button>
  );
}

/** Records are compared by their numbers. */
const recordNumber = { kind: 'number', scale: 0, ungrouped: true } as const;

interface ComparedProps {
  column: ColumnView;
  shape: string;
  people: PersonEntry[];
  values: unknown[];
  onChange: (values: unknown[]) => void;
}

/** Choices that are retired are still held, and found by: they stand last, and say what they are. */
const filterOptions = (options: Option[]) =>
  options
    .toSorted((one, other) => Number(one.retired ?? false) - Number(other.retired ?? false))
    .map(({ key, label, retired }) => ({ value: key, label: retired ? `${label} (retired)` : label }));

/** What a column is compared with, by the column's type. */
function Compared({ column, shape, people, values, onChange }: ComparedProps) {
  const { type } = column;
  const options =
    type.kind === 'choice' || type.kind === 'choices'
      ? filterOptions(type.options)
      : type.kind === 'person'
        ? people.map(({ userName, displayName }) => ({ value: userName, label: displayName }))
        : type.kind === 'yesNo'
          ? [
              { value: 'yes', label: 'yes' },
              { value: 'no', label: 'no' },
            ]
          : undefined;
  if (options && shape === 'many') {
    return (
      <ChoicesInput
        size="xs"
        aria-label="Compared with"
        w={220}
        data={options}
        value={values.filter((one) => typeof one === 'string')}
        onChange={onChange}
      />
    );
  }
  if (options) {
    const shown = values[0] === true ? 'yes' : values[0] === false ? 'no' : ((values[0] as string | undefined) ?? null);
    return (
      <ChoiceInput
        aria-label="Compared with"
        w={170}
        data={options}
        value={shown}
        onChange={(next) => onChange(next === null ? [] : [type.kind === 'yesNo' ? next === 'yes' : next])}
      />
    );
  }
  const put = (i: number) => (next: unknown) =>
    onChange(Array.from({ length: shape === 'range' ? 2 : 1 }, (_, j) => (i === j ? next : (values[j] ?? null))));
  return (shape === 'range' ? [0, 1] : [0]).map((i) => {
    const common = {
      value: (values[i] as string | number | undefined) ?? null,
      onChange: put(i),
      size: 'xs',
      'aria-label': i === 0 ? 'Compared with' : 'and',
    } as const;
    return type.kind === 'date' || type.kind === 'dateTime' || type.kind === 'number' || type.kind === 'money' ? (
      <ReadInput key={i} {...common} type={type} />
    ) : type.kind === 'link' ? (
      <ReadInput key={i} {...common} type={recordNumber} />
    ) : (
      <TextInput
        key={i}
        aria-label="Compared with"
        w={170}
        value={shape === 'many' ? values.join(',') : ((values[i] as string | undefined) ?? '')}
        onChange={(event) =>
          shape === 'many'
            ? onChange(event.currentTarget.value ? event.currentTarget.value.split(',') : [])
            : put(i)(event.currentTarget.value)
        }
      />
    );
  });
}
