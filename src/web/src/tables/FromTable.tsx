import { Button, FileButton, Group, Loader, Select, Text, Textarea, TextInput, Title } from '@mantine/core';
import { useState, type DragEvent } from 'react';
import { answered, type Problem } from '../api/client';
import { takeTable, type TableTaken } from '../api/generated';
import { useRecordTypes } from '../api/recordTypes';
import { addressKeyFor } from '../recordTypes/addressKey';
import { Place } from '../frame/Place';
import lines from '../sheet/lines.module.css';
import { ColumnRow } from './ColumnRow';
import { Intake } from './Intake';
import classes from './Tables.module.css';
import { useTable, type Table } from './useTable';
import { writtenNumber } from '../writing/numbers';

/** Makes a record type of a table that people have kept: a file, or cells that are pasted. Everything is shown before anything is made. */
export function FromTable() {
  const read = useTable();
  const [taken, setTaken] = useState<TableTaken & { label: string }>();
  const steps = [{ label: 'Record types', to: '/' }, { label: 'From a table' }];
  return (
    <>
      <Place steps={steps} />
      {taken ? (
        <Intake recordType={taken.key} label={taken.label} id={taken.import} />
      ) : read.table ? (
        <Looked key={read.table.id} table={read.table} read={read} onTaken={setTaken} />
      ) : (
        <Sources read={read} />
      )}
    </>
  );
}

type Read = ReturnType<typeof useTable>;

function Sources({ read }: { read: Read }) {
  const [pasted, setPasted] = useState('');
  const [isOver, setOver] = useState(false);

  function drop(event: DragEvent) {
    event.preventDefault();
    setOver(false);
    const [file] = event.dataTransfer.files;
    if (file) {
      void read.readFile(file);
    }
  }

  return (
    <main
      className={classes.page}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <section className={classes.sheet} data-over={isOver || undefined} aria-label="Where the table is">
        <Title order={2} className={classes.heading}>
          A record type out of a table
        </Title>
        <Text size="sm">
          The first row names the columns; each becomes a field. Every other row becomes a record. What the columns seem to hold
          is shown first and can be changed; nothing is made before that.
        </Text>
        <Group mt="sm">
          <FileButton accept=".xlsx,.csv,.tsv,.txt,text/csv" onChange={(file) => file && void read.readFile(file)}>
            {(props) => <Button {...props}>Choose a workbook (.xlsx) or CSV…</Button>}
          </FileButton>
          <Text size="sm" c="dimmed">
            or drag one onto this page
          </Text>
        </Group>
        <Textarea
          mt="md"
          label="Or paste cells, headings included"
          autosize
          minRows={6}
          maxRows={14}
          value={pasted}
          onChange={(event) => setPasted(event.currentTarget.value)}
        />
        <Group mt="xs">
          <Button variant="default" disabled={!pasted.trim()} onClick={() => void read.readText(pasted)}>
            Look at them
          </Button>
          {read.isReading && <Loader size="sm" aria-label="Reading" />}
        </Group>
        {read.problem && <Refused problem={read.problem} />}
      </section>
    </main>
  );
}

interface LookedProps {
  table: Table;
  read: Read;
  onTaken: (taken: TableTaken & { label: string }) => void;
}

function Looked({ table, read, onTaken }: LookedProps) {
  const types = useRecordTypes().data ?? [];
  const [label, setLabel] = useState('');
  const [ownKey, setOwnKey] = useState<string>();
  const [ownTitle, setTitle] = useState<string>();
  const [isTaking, setTaking] = useState(false);
  const columns = table.columns.map((column, at) => ({ ...column, at })).filter(({ isTaken }) => isTaken);
  // Records are called by the first column of text, else by the first.
  const title =
    columns.find(({ key }) => key === ownTitle)?.key ?? (columns.find(({ type }) => type.kind === 'text') ?? columns[0])?.key;
  const key =
    ownKey ??
    addressKeyFor(
      label,
      types.map((type) => type.key),
    );
  const misfits = columns.reduce((count, column) => count + column.misfits, 0);

  async function take() {
    setTaking(true);
    read.setProblem(undefined);
    try {
      const taken = await answered(
        takeTable({
          path: { id: table.id },
          body: {
            key,
            label,
            titleField: title!,
            columns: columns.map((column) => ({
              column: column.at,
              label: column.label,
              key: column.key,
              type: column.type,
              format: column.format,
            })),
          },
        }),
      );
      onTaken({ ...taken, label });
    } catch (refusal) {
      read.setProblem(refusal as Problem);
    }
    setTaking(false);
  }

  return (
    <main className={classes.page}>
      <section className={classes.sheet} aria-label="What the columns hold">
        <Group justify="space-between" align="end">
          <Title order={2} className={classes.heading}>
            {table.name}: {writtenNumber(table.rows)} rows, {table.columns.length} columns
          </Title>
          <Group gap="xs">
            {table.sheets.length > 1 && (
              <Select
                aria-label="Sheet of the workbook"
                w={180}
                data={table.sheets}
                placeholder={table.sheets[0]}
                onChange={(sheet) => sheet && void read.readSheet(sheet)}
              />
            )}
            <Button variant="default" onClick={read.leave}>
              Another table
            </Button>
          </Group>
        </Group>
        <div className={classes.scroll}>
          <table className={classes.table} aria-label="Columns">
            <thead>
              <tr>
                <th>Take</th>
                <th>Field</th>
                <th>Type</th>
                <th>Some cells, and what they are read as</th>
                <th>Filled in</th>
                <th>Misfits</th>
              </tr>
            </thead>
            <tbody>
              {table.columns.map((column, at) => (
                <ColumnRow
                  key={column.key}
                  column={column}
                  table={table}
                  labels={new Map(types.map((type) => [type.key, type.label]))}
                  onChange={(part) => read.change(at, part)}
                  onReread={(type, format) => void read.reread(at, type, format)}
                />
              ))}
            </tbody>
          </table>
        </div>
        <form
          className={classes.making}
          onSubmit={(event) => {
            event.preventDefault();
            void take();
          }}
        >
          <TextInput
            label="What one such record is called"
            placeholder="such as Loan enquiry"
            value={label}
            onChange={(event) => setLabel(event.currentTarget.value)}
          />
          <TextInput
            label="Key, in addresses and files"
            value={label.trim() || ownKey !== undefined ? key : ''}
            onChange={(event) => setOwnKey(event.currentTarget.value)}
          />
          <Select
            label="Records are called by"
            allowDeselect={false}
            data={columns.map((column) => ({ value: column.key, label: column.label }))}
            value={title ?? null}
            onChange={(next) => next && setTitle(next)}
          />
          <Button type="submit" disabled={!label.trim() || columns.length === 0} loading={isTaking}>
            Make it, with {writtenNumber(table.rows)} {table.rows === 1 ? 'row' : 'rows'}
          </Button>
        </form>
        <Text size="xs" c="dimmed">
          {misfits > 0
            ? 'A row with a cell that does not fit is not taken in; it is reported with its reason. '
            : 'Every cell fits. '}
          It comes into force at once, with a form of these fields and two stages; all of that can be changed after.
        </Text>
        {read.problem && <Refused problem={read.problem} />}
      </section>
    </main>
  );
}

const Refused = ({ problem }: { problem: Problem }) => (
  <Text className={lines.wrong} role="alert" mt="xs">
    {problem.title} {problem.detail}
  </Text>
);
