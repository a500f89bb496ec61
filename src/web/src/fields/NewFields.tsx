import { Button, Select, TextInput } from '@mantine/core';
import { IconPlus } from '@tabler/icons-react';
import { useState } from 'react';
import type { RecordType } from '../api/generated';
import { fieldKinds, type FieldKind } from './fieldKinds';
import classes from './Fields.module.css';
import { newFieldFrom, withNewField } from './newField';

interface Props {
  type: RecordType;
  /** Told of the record type with the new fields, and of the key of the last of them. */
  onAdd: (type: RecordType, key: string) => void;
}

/** Where new fields are written, one on a line: by label and type, or with the type said behind a colon. Lines that are pasted are a field each. */
export function NewFields({ type, onAdd }: Props) {
  const [line, setLine] = useState('');
  const [kind, setKind] = useState<FieldKind>('text');
  const said = newFieldFrom(line, kind).type.kind;

  function add(lines: string[]) {
    const grown = lines
      .filter((one) => one.trim() !== '')
      .reduce((all, one) => withNewField(all.type, newFieldFrom(one, kind)), { type, key: '' });
    if (grown.key !== '') {
      onAdd(grown.type, grown.key);
      setLine('');
    }
  }

  return (
    <form
      className={classes.adding}
      onSubmit={(event) => {
        event.preventDefault();
        add([line]);
      }}
    >
      <TextInput
        className={classes.grow}
        aria-label="Label of the new field"
        placeholder="A new field: Title, or Price: money, or Frame: oak, gilt"
        value={line}
        onChange={(event) => setLine(event.currentTarget.value)}
        onPaste={(event) => {
          const lines = event.clipboardData.getData('text/plain').split(/\r?\n/);
          if (lines.filter((one) => one.trim() !== '').length > 1) {
            event.preventDefault();
            add(lines.map((one) => one.replaceAll('\t', ': ')));
          }
        }}
      />
      <Select
        aria-label="Type of the new field"
        w={140}
        allowDeselect={false}
        data={fieldKinds.map(({ value, label }) => ({ value, label }))}
        value={said}
        readOnly={said !== kind}
        onChange={(next) => setKind(next as FieldKind)}
      />
      <Button type="submit" disabled={!line.trim()} leftSection={<IconPlus size={14} />}>
        Add
      </Button>
    </form>
  );
}
