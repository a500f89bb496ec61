import { Button, Group, Text, TextInput, UnstyledButton } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { IconPlus, IconSearch } from '@tabler/icons-react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useParams } from 'react-router-dom';
import { answered, type Problem } from '../api/client';
import {
  readColumns,
  readViews,
  type ColumnView,
  type Field,
  type ListRow,
  type RecordType,
  type ViewEntry,
} from '../api/generated';
import { useSignedIn } from '../api/signedIn';
import { afterPaint } from '../engine/afterPaint';
import type { Values } from '../engine/answers';
import { editions, engine } from '../engine/pageEngine';
import { Place } from '../frame/Place';
import { useRecordType } from '../records/queries';
import { recentRecords } from '../records/recent';
import { shelved } from '../pending/shelf';
import { Bulk } from './Bulk';
import type { changesOf } from './block';
import { changeBack, changeInTurns, goOn, undoing, type Change, type Changed, type Step } from './changing';
import { Closed } from './Closed';
import { ColumnChoice } from './ColumnChoice';
import { Files } from './Files';
import { AddTest, FilterBar } from './FilterBar';
import { Grid } from './Grid';
import { requestOf } from './layout';
import classes from './ListPage.module.css';
import { Outcomes, type Batch } from './Outcomes';
import { PastePreview } from './PastePreview';
import { useEditing } from './useEditing';
import { useLayout } from './useLayout';
import { useMeetingWords } from './useMeetingWords';
import { useRows } from './useRows';
import { Views } from './Views';
import { writtenNumber } from '../writing/numbers';
import { peopleQuery } from '../api/people';

/** The records of one type, as a person wants to see them. */
export function ListPage() {
  const key = useParams().type ?? '';
  const type = useRecordType(key).data;
  const columns = useQuery({
    queryKey: ['columns', key, type?.number],
    queryFn: () => answered(readColumns({ path: { key } })),
    enabled: type !== undefined,
    // Where another edition comes into force, what was typed stays on the page meanwhile.
    placeholderData: keepPreviousData,
  });
  const views = useQuery({ queryKey: ['views', key], queryFn: () => answered(readViews({ path: { key } })) });
  return type && columns.data && views.data ? (
    <List key={key} type={type.recordType} known={columns.data} views={views.data} />
  ) : null;
}

function List({ type, known, views }: { type: RecordType; known: ColumnView[]; views: ViewEntry[] }) {
  const people = useQuery(peopleQuery).data ?? [];
  const last = views.find(({ name }) => name === '')?.layout;
  const { layout, missing, change: onLayout } = useLayout(type, known, last);
  const { search } = layout;
  // Only what is typed waits for the next letter.
  const [[searched, clauses]] = useDebouncedValue([search, layout.clauses] as const, 200);
  const settled = useMemo(() => ({ ...layout, search: searched, clauses }), [layout, searched, clauses]);
  const request = useMemo(() => requestOf(settled, known), [settled, known]);
  const { rows, edition, problem, isPending, count, hasMore, more, replace, hold, settle, isMoved } = useRows(type.key, request);
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const [batch, setBatch] = useState<Batch>();
  const [closed, setClosed] = useState<{ row: number; field: Field }>();
  /** What can be undone, the latest last: single rows as they were saved, and several at once. */
  const done = useRef<Step[][]>([]);
  const [pasted, setPasted] = useState<ReturnType<typeof changesOf>>();
  const editing = useEditing(type, request.columns, (sent, outcome) => {
    const row = rows.find(({ id }) => id === sent.id);
    if (row && outcome.row) {
      done.current.push([{ row, changes: sent.changes as Values, outcome }]);
      replace([outcome.row]);
    }
  });
  const { kept } = useMeetingWords(type);

  const { renew } = editing;
  useEffect(() => {
    if (edition !== undefined) {
      void renew(edition);
    }
  }, [edition, renew]);

  useEffect(() => {
    // The record page leads back to here.
    sessionStorage.setItem(
      `dibujo list ${type.key}`,
      `/types/${type.key}/records?${new URLSearchParams({ list: JSON.stringify(settled) }).toString()}`,
    );
  }, [type.key, settled]);

  useEffect(() => {
    // While the list is read; the record that is opened next need not wait for the engine.
    const prepare = (number: number) => editions.program(type.key, number).then(() => engine.warm());
    return edition === undefined ? undefined : afterPaint(() => void prepare(edition).catch(() => undefined));
  }, [edition, type.key]);

  /** Changes several rows at once, each under its own rules, and tells what came of it. */
  async function change(what: string, changes: Change[], make = changeInTurns) {
    // What was typed into these rows comes first, and is not in its own way.
    const left = await Promise.all(changes.map(({ row }) => editing.leave(row.id)));
    show(
      what,
      await make(
        type,
        request.columns,
        changes.map((one, i) => ({ ...one, row: left[i] ?? one.row })),
      ),
    );
  }

  function show(what: string, came: Changed) {
    replace(came.steps.flatMap(({ outcome }) => outcome.row ?? []));
    setBatch({ what, ...came });
    done.current.push(came.steps);
  }

  /** Puts back what was done last: a row that was saved, or several at once. */
  function undo() {
    const last = done.current.pop();
    const changes = last ? undoing(type, last) : [];
    if (changes.length > 0) {
      // What is undone cannot be undone again: one goes back step by step.
      void change('Undone', changes, changeBack).then(() => done.current.pop());
    }
  }

  function paste(all: ReturnType<typeof changesOf>) {
    if (all.changes.length > 1 || all.untaken.length > 0 || all.beyond > 0) {
      setPasted(all);
    } else if (all.changes.length === 1) {
      void change('Pasted into 1 row', all.changes);
    }
  }

  function endPasting() {
    setPasted(undefined);
    document.querySelector<HTMLElement>('[role=grid]')?.focus();
  }

  const chosen = rows.filter(({ id }) => ticked.has(id));
  return (
    <main className={classes.page}>
      <Place steps={[{ label: 'Record types', to: '/' }, { label: type.label }]} />
      <Group className={classes.controls} gap={8}>
        <TextInput
          aria-label="Search texts"
          placeholder="Search texts"
          leftSection={<IconSearch size={15} />}
          value={search}
          onChange={(event) => onLayout({ search: event.currentTarget.value })}
        />
        <AddTest known={known} layout={layout} onLayout={onLayout} />
        <ColumnChoice known={known} layout={layout} onLayout={onLayout} />
        <Views type={type} views={views} layout={layout} onChoose={onLayout} />
        <Files type={type} request={request} />
        <Text size="sm" c="dimmed" className={classes.count} role="status">
          {count === undefined ? '' : `${writtenNumber(count.records)} ${count.records === 1 ? 'record' : 'records'}`}
        </Text>
        <Link to={`/types/${type.key}/progress?list=${encodeURIComponent(JSON.stringify(layout))}`} className={classes.link}>
          Progress
        </Link>
        <Begin type={type} />
      </Group>
      <FilterBar known={known} people={people} layout={layout} onLayout={onLayout} />
      {missing > 0 && (
        <Text size="sm" role="status">
          {missing === 1 ? 'One column or test' : `${missing} columns or tests`} of this view no longer{' '}
          {missing === 1 ? 'fits' : 'fit'} the records, and {missing === 1 ? 'is' : 'are'} left out.
        </Text>
      )}
      {chosen.length > 0 && (
        <Bulk type={type} rows={chosen} people={people} onChange={change} onDone={() => setTicked(new Set())} />
      )}
      {batch && (
        <Outcomes
          type={type}
          batch={batch}
          onUndo={(what, changes) => change(what, changes, changeBack)}
          onGoOn={() => void goOn(type, request.columns, batch).then((done) => show(batch.what, done))}
          onClose={() => setBatch(undefined)}
        />
      )}
      {pasted && (
        <PastePreview
          type={type}
          columns={request.columns}
          pasted={pasted}
          onSave={() => {
            endPasting();
            void change(`Pasted into ${pasted.changes.length} rows`, pasted.changes);
          }}
          onCancel={endPasting}
        />
      )}
      {editing.problem && (
        <Text role="alert" className={classes.notice}>
          {editing.problem}
        </Text>
      )}
      {problem ? (
        <Text role="alert">
          {(problem as unknown as Problem).title} {(problem as unknown as Problem).detail}
        </Text>
      ) : (
        <Grid
          type={type}
          known={known}
          layout={layout}
          onLayout={onLayout}
          rows={rows}
          onMore={hasMore ? more : undefined}
          onHold={hold}
          editing={editing}
          ticked={ticked}
          onTick={setTicked}
          onClosed={setClosed}
          onPaste={paste}
          onUndo={undo}
        />
      )}
      {closed && <Closed key={`${closed.row} ${closed.field.key}`} type={type} {...closed} />}
      {editing.met && (
        <Text size="sm" role="status" className={classes.notice}>
          {kept(editing.met)}
        </Text>
      )}
      {isMoved && (
        <Text size="sm" role="status" className={classes.notice}>
          Rows stay where they were while you change them; by now some belong elsewhere.{' '}
          <UnstyledButton className={classes.link} onClick={settle}>
            Put them in order
          </UnstyledButton>
        </Text>
      )}
      {!isPending && rows.length === 0 && !problem && <Text p="md">No record is like that. Delete the search or a test.</Text>}
      <Recent type={type} />
      <Unsaved type={type} rows={rows.filter(({ id }) => !editing.rows.has(id))} />
    </main>
  );
}

/** Begins a record, in one of its workflows where there are several. */
function Begin({ type }: { type: RecordType }) {
  const label = `New ${type.label.toLowerCase()}`;
  return (
    <Button component={Link} to={`/types/${type.key}/records/new`} leftSection={<IconPlus size={15} />}>
      {label}
    </Button>
  );
}

/** The records that this person had open last, each one press away. */
function Recent({ type }: { type: RecordType }) {
  const recent = recentRecords().filter((one) => one.recordType === type.key);
  return recent.length === 0 ? null : (
    <nav aria-label="Opened lately" className={classes.recent}>
      Opened lately:{' '}
      {recent.map(({ id, title }) => (
        <Link key={id} to={`/records/${id}`} title={title}>
          {title || `No. ${id}`}
        </Link>
      ))}
    </nav>
  );
}

/** Rows into which this person typed something that was never saved: it is offered again on the record's page. */
function Unsaved({ type, rows }: { type: RecordType; rows: ListRow[] }) {
  const person = useSignedIn().data?.person?.userName ?? '';
  const all = shelved(person);
  const kept = rows.filter(({ id }) => all.has(`record ${id}`));
  const isBegun = all.has(`new ${type.key}`);
  return kept.length === 0 && !isBegun ? null : (
    <nav aria-label="Typed and not saved" className={classes.recent}>
      Typed and not saved: {isBegun && <Link to={`/types/${type.key}/records/new`}>New {type.label.toLowerCase()}</Link>}
      {kept.map(({ id, title }) => (
        <Link key={id} to={`/records/${id}`} title={title}>
          {title || `No. ${id}`}
        </Link>
      ))}
    </nav>
  );
}
