import { Button, Group, Text, TextInput, UnstyledButton } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { IconPlus, IconSearch } from '@tabler/icons-react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router-dom';
import { answered, type Problem } from '../api/client';
import {
  listPeople,
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
import { editions, engine } from '../engine/pageEngine';
import { Place } from '../frame/Place';
import { useRecordType } from '../records/queries';
import { recentRecords } from '../records/recent';
import { shelved } from '../pending/shelf';
import { Bulk } from './Bulk';
import { changeBack, changeInTurns, goOn, type Change, type Changed } from './changing';
import { Closed } from './Closed';
import { ColumnChoice } from './ColumnChoice';
import { Files } from './Files';
import { AddTest, FilterBar } from './FilterBar';
import { Grid } from './Grid';
import { layoutOf, leftOut, requestOf, writtenLayout, type Layout } from './layout';
import classes from './ListPage.module.css';
import { Outcomes, type Batch } from './Outcomes';
import { useEditing } from './useEditing';
import { useMeetingWords } from './useMeetingWords';
import { useRows } from './useRows';
import { Views } from './Views';

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
  const [address, setAddress] = useSearchParams();
  const people = useQuery({ queryKey: ['people'], queryFn: () => answered(listPeople()), staleTime: 60_000 }).data ?? [];
  const last = views.find(({ name }) => name === '')?.layout;
  const written = address.get('list');
  const layout = useMemo(() => layoutOf(written ? writtenLayout(written) : last, type, known), [written, last, type, known]);
  const missing = useMemo(() => leftOut(written ? writtenLayout(written) : last, layout), [written, last, layout]);
  const [search, setSearch] = useState(layout.search);
  const [searched] = useDebouncedValue(search, 200);
  const request = useMemo(() => requestOf({ ...layout, search: searched }, known), [layout, searched, known]);
  const { rows, edition, problem, isPending, count, hasMore, more, replace, hold, settle, isMoved } = useRows(type.key, request);
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const [batch, setBatch] = useState<Batch>();
  const [closed, setClosed] = useState<{ row: number; field: Field }>();
  const editing = useEditing(type, request.columns, replace);
  const { kept } = useMeetingWords(type);

  const { renew } = editing;
  useEffect(() => {
    if (edition !== undefined) {
      void renew(edition);
    }
  }, [edition, renew]);

  const onLayout = (change: Partial<Layout>) => {
    if (change.search !== undefined) {
      setSearch(change.search);
    }
    setAddress({ list: JSON.stringify({ ...layout, search, ...change }) }, { replace: true });
  };

  useEffect(() => {
    // The record page leads back to here.
    sessionStorage.setItem(
      `dibujo list ${type.key}`,
      `/types/${type.key}/records?${new URLSearchParams({ list: JSON.stringify({ ...layout, search: searched }) }).toString()}`,
    );
  }, [type.key, layout, searched]);

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

  function show(what: string, done: Changed) {
    replace(done.steps.flatMap(({ outcome }) => outcome.row ?? []));
    setBatch({ what, ...done });
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
        <Views type={type} views={views} layout={{ ...layout, search }} onChoose={onLayout} />
        <Files type={type} request={request} />
        <Text size="sm" c="dimmed" className={classes.count} role="status">
          {count === undefined ? '' : `${count.records.toLocaleString()} ${count.records === 1 ? 'record' : 'records'}`}
        </Text>
        <Link
          to={`/types/${type.key}/progress?list=${encodeURIComponent(JSON.stringify({ ...layout, search }))}`}
          className={classes.link}
        >
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
          people={people}
          layout={layout}
          onLayout={onLayout}
          rows={rows}
          onMore={hasMore ? more : undefined}
          onHold={hold}
          editing={editing}
          ticked={ticked}
          onTick={setTicked}
          onClosed={setClosed}
          onPaste={(changes) => void change(`Pasted into ${changes.length} ${changes.length === 1 ? 'row' : 'rows'}`, changes)}
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
      {!isPending && rows.length === 0 && !problem && <Text p="md">No record is like that. Take the search or a test away.</Text>}
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
      Typed and not saved:{' '}
      {isBegun && <Link to={`/types/${type.key}/records/new`}>New {type.label.toLowerCase()}</Link>}
      {kept.map(({ id, title }) => (
        <Link key={id} to={`/records/${id}`} title={title}>
          {title || `No. ${id}`}
        </Link>
      ))}
    </nav>
  );
}
