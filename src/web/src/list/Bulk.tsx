import { Button, Menu, Select, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { ListRow, PersonEntry, RecordType } from '../api/generated';
import type { Change } from './changing';
import classes from './ListPage.module.css';

interface Props {
  type: RecordType;
  rows: ListRow[];
  people: PersonEntry[];
  onChange: (what: string, changes: Change[]) => Promise<void>;
  onDone: () => void;
}

/** What can be done to all ticked rows at once. */
export function Bulk({ type, rows, people, onChange, onDone }: Props) {
  const [field, setField] = useState<string | null>(null);
  const [text, setText] = useState('');
  const chosen = type.fields.find(({ key }) => key === field);
  const moves = type.workflows
    .flatMap((workflow) => workflow.moves.map((move) => ({ ...move, workflow: workflow.key })))
    .filter((move) => rows.some((row) => row.stage === move.from && row.workflow === move.workflow))
    .filter((move, i, all) => all.findIndex(({ key }) => key === move.key) === i);
  const kind = chosen?.type;
  const options =
    kind?.kind === 'choice' || kind?.kind === 'choices'
      ? kind.options.filter(({ retired }) => !retired).map(({ label }) => label)
      : kind?.kind === 'yesNo'
        ? ['yes', 'no']
        : kind?.kind === 'person'
          ? people.map(({ displayName }) => displayName)
          : undefined;
  return (
    <div className={classes.notice} role="group" aria-label="Ticked rows">
      <Text size="sm">
        {rows.length} {rows.length === 1 ? 'row is' : 'rows are'} ticked.
      </Text>
      <Menu>
        <Menu.Target>
          <Button variant="default" disabled={moves.length === 0}>
            Move on
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {moves.map((move) => (
            <Menu.Item
              key={move.key}
              onClick={() =>
                void onChange(
                  move.label,
                  rows.map((row) => ({ row, changes: {}, move: move.key })),
                )
              }
            >
              {move.label}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
      <Select
        aria-label="Field to change"
        placeholder="Change a field"
        searchable
        w={180}
        data={type.fields.filter(({ retired }) => !retired).map(({ key, label }) => ({ value: key, label }))}
        value={field}
        onChange={(next) => {
          setField(next);
          setText('');
        }}
      />
      {chosen &&
        (options ? (
          <Select
            aria-label="To what"
            w={180}
            clearable
            data={options}
            value={text || null}
            onChange={(next) => setText(next ?? '')}
          />
        ) : (
          <TextInput
            aria-label="To what"
            placeholder="nothing"
            w={180}
            value={text}
            onChange={(event) => setText(event.currentTarget.value)}
          />
        ))}
      {chosen && (
        <Button
          onClick={() =>
            void onChange(
              `${chosen.label} changed`,
              rows.map((row) => ({ row, changes: { [chosen.key]: text.trim() === '' ? null : text } })),
            )
          }
        >
          Change in all
        </Button>
      )}
      <Button variant="subtle" onClick={onDone}>
        Untick
      </Button>
    </div>
  );
}
