import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { answered } from '../api/client';
import { listRecords, readLinked, readTitle } from '../api/generated';
import type { OpenRecord } from '../engine/openRecord';
import { ChoiceInput } from './ChoiceInput';
import { only } from './offer';

interface Props {
  id: string;
  variant: 'unstyled';
  size: 'sm';
  readOnly: boolean;
  /** Key of the record type to which the link leads. */
  recordType: string;
  field: string;
  record: OpenRecord;
  /** Its number; a text that was typed and names none yet. */
  value: number | string | null;
}

/** A record of another type, found by its title. What rules know of it is fetched before the link is taken over. */
export function LinkInput({ recordType, field, record, value, ...common }: Props) {
  const [search, setSearch] = useState('');
  const [searched] = useDebouncedValue(search, 200);
  const [wasOpened, setOpened] = useState(false);
  const number = typeof value === 'number' ? value : null;
  const known = record.titleOf(recordType, number);
  const current = useQuery({
    queryKey: ['title', number],
    queryFn: () => answered(readTitle({ path: { id: number ?? 0 } })),
    enabled: number !== null && known === undefined,
  }).data;
  const found = useQuery({
    queryKey: ['samples', recordType, searched],
    queryFn: () => answered(listRecords({ path: { key: recordType }, query: { search: searched } })),
    placeholderData: keepPreviousData,
    // Nobody needs the list before it is opened.
    enabled: wasOpened,
  }).data?.rows;
  const options =
    number !== null
      ? [option(number, known ?? current?.title)]
      : value !== null
        ? [{ value: String(value), label: String(value) }]
        : [];
  found?.filter((row) => row.id !== value).forEach((row) => options.push(option(row.id, row.title)));

  // What rules know of it has to be known here as well, however the link came to be.
  useEffect(() => {
    if (number !== null && known === undefined && !common.readOnly) {
      void answered(readLinked({ path: { key: record.recordType, field, number } })).then(
        (linked) => record.know(linked),
        () => undefined,
      );
    }
  }, [number, known, common.readOnly, record, field]);

  async function choose(next: string | null) {
    if (next !== null) {
      // What cannot be fetched now is looked at by the server.
      await answered(readLinked({ path: { key: record.recordType, field, number: Number(next) } })).then(
        (linked) => record.know(linked),
        () => undefined,
      );
    }
    record.change(field, next === null ? null : Number(next));
  }

  /** Nothing typed is lost where one goes on before its records are found. */
  async function leave(text: string | null) {
    record.change(field, text);
    if (text !== null) {
      const rows = await answered(listRecords({ path: { key: recordType }, query: { search: text } })).then(
        (page) => page.rows,
        () => [],
      );
      const meant = only(
        rows.map(({ id, title }) => ({ value: String(id), label: title })),
        text,
      );
      if (meant && record.value(field) === text) {
        await choose(meant.value);
      }
    }
  }

  return (
    <ChoiceInput
      {...common}
      clearable={!common.readOnly}
      onDropdownOpen={() => setOpened(true)}
      data={options}
      filter={({ options }) => options}
      onSearchChange={(text) => setSearch(text === options[0]?.label ? '' : text)}
      value={value === null ? null : String(value)}
      onChange={(next) => void choose(next)}
      isPartial
      onTyped={(text) => void leave(text)}
    />
  );
}

/** Records may be called alike; their numbers are never. */
const option = (id: number, title: string | undefined) => ({
  value: String(id),
  label: title ? `${title} (No. ${id})` : `No. ${id}`,
});
