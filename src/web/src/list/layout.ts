import type { ColumnView, Filter, ListRequest, RecordType } from '../api/generated';

export interface Column {
  key: string;
  /** In CSS pixels. */
  width: number;
}

/** One test on a column, as it is put together: complete once it has as many values as the test takes. */
export interface Clause {
  of: string;
  test: string;
  values: unknown[];
}

/** How a list is seen. All of it is in the address, so that Back leads to it and it can be sent to a colleague. */
export interface Layout {
  columns: Column[];
  search: string;
  /** Whether one of the tests is enough. */
  isAny: boolean;
  clauses: Clause[];
  /** Key of a column; null for the latest saved first. */
  sortBy: string | null;
  descending: boolean;
}

const usualWidth = 150;

/** As many as the server takes. */
const [mostClauses, mostValues] = [30, 1000];
const widths: Record<string, number> = { '@number': 70, '@stage': 120, '@changedAt': 190, '@changedBy': 140 };

export const widthOf = (key: string) => widths[key] ?? usualWidth;

/** What a list shows before anybody has chosen: the title and a few fields that are filled in first. */
export function usualLayout(type: RecordType): Layout {
  const first = (type.forms[0]?.tabs ?? []).flatMap((tab) => tab.sections).flatMap((section) => section.fields);
  const some = first.filter((key) => {
    const field = type.fields.find((one) => one.key === key);
    return key !== type.titleField && field && !['longText', 'address'].includes(field.type.kind);
  });
  return {
    columns: [
      { key: '@number', width: 70 },
      { key: type.titleField, width: 260 },
      { key: '@stage', width: 120 },
      ...some.slice(0, 3).map((key) => ({ key, width: usualWidth })),
      { key: '@changedAt', width: 190 },
      { key: '@changedBy', width: 140 },
    ],
    search: '',
    isAny: false,
    clauses: [],
    sortBy: null,
    descending: false,
  };
}

/** What an address says of a layout; undefined where it says nothing that can be read. */
export function writtenLayout(text: string | null): unknown {
  try {
    return JSON.parse(text ?? 'null');
  } catch {
    return undefined;
  }
}

/** What of a list can be looked into; nothing where it is none. */
const listOf = <T extends object>(written: unknown) =>
  (Array.isArray(written) ? written : []).filter((one): one is T => typeof one === 'object' && one !== null);

/** Whether a column can be compared with that: what is not filled in yet can always. */
function fits({ type }: ColumnView, value: unknown): boolean {
  if (value === null || value === undefined || value === '') {
    return true;
  }
  switch (type?.kind) {
    case 'number':
    case 'money':
    case 'link':
      return typeof value === 'number';
    case 'yesNo':
      return typeof value === 'boolean';
    case 'choice':
      return type.options.some(({ key }) => key === value);
    case 'choices':
      return [value].flat().every((one) => type.options.some(({ key }) => key === one));
    case 'date':
    case 'dateTime':
      return typeof value === 'string' && /^\d{4}-\d{2}-\d{2}/.test(value);
    default:
      return typeof value === 'string' || typeof value === 'number';
  }
}

/** A test as far as it still makes sense; undefined where it makes none. */
function fitting(clause: Clause, known: ColumnView[]): Clause | undefined {
  const column = known.find(({ key }) => key === clause.of);
  if (!column || !Array.isArray(clause.values) || column.tests?.every(({ test }) => test !== clause.test)) {
    return undefined;
  }
  const values = clause.values.filter((value) => fits(column, value)).slice(0, mostValues);
  return values.length === 0 && clause.values.length > 0 ? undefined : { ...clause, values };
}

/** How many of the columns and tests that were asked for are not there any more, or do not fit what they are about. */
export function leftOut(written: unknown, layout: Layout): number {
  const given = (typeof written === 'object' && written !== null ? written : {}) as Partial<Layout>;
  const columns = new Set(listOf<Column>(given.columns).map(({ key }) => key));
  const gone = [...columns].filter((key) => !layout.columns.some((column) => column.key === key)).length;
  const sort = typeof given.sortBy === 'string' && layout.sortBy === null ? 1 : 0;
  return gone + sort + listOf<Clause>(given.clauses).length - layout.clauses.length;
}

/** The layout that an address, or a kept view, gives, as far as it fits; what it does not say is as usual. See {@link leftOut}. */
export function layoutOf(written: unknown, type: RecordType, known: ColumnView[]): Layout {
  const usual = usualLayout(type);
  const given = (typeof written === 'object' && written !== null ? written : {}) as Partial<Layout>;
  const isKnown = (key: unknown) => known.some((column) => column.key === key);
  const isFirst = (column: Column, i: number, all: Column[]) => all.findIndex(({ key }) => key === column.key) === i;
  const columns = listOf<Column>(given.columns)
    .filter(({ key }) => isKnown(key))
    .filter(isFirst);
  return {
    columns:
      columns.length > 0 ? columns.map(({ key, width }) => ({ key, width: Number(width) || widthOf(key) })) : usual.columns,
    search: typeof given.search === 'string' ? given.search : '',
    isAny: given.isAny === true,
    clauses: listOf<Clause>(given.clauses)
      .flatMap((clause) => fitting(clause, known) ?? [])
      .slice(0, mostClauses),
    sortBy: isKnown(given.sortBy) ? (given.sortBy ?? null) : null,
    descending: given.descending === true,
  };
}

/** What the server is asked for; tests that are not complete yet count for nothing. */
export function requestOf(layout: Layout, known: ColumnView[]): Omit<ListRequest, 'after' | 'take'> {
  const complete = layout.clauses.filter(({ of, test, values }) => {
    const shape = known.find(({ key }) => key === of)?.tests.find((one) => one.test === test)?.shape;
    const filled = values.filter((value) => value !== null && value !== undefined && value !== '').length;
    return (
      shape === 'alone' ||
      (shape === 'one' && filled === 1) ||
      (shape === 'range' && filled === 2) ||
      (shape === 'many' && filled > 0)
    );
  });
  const members = complete.map((clause): Filter => ({
    kind: 'clause',
    ...(clause as { of: string; test: 'is'; values: unknown[] }),
    // What is still being put together asks for nothing.
    values: clause.values.map((value) => (typeof value === 'string' ? value.trim() : value)).filter((value) => value !== ''),
  }));
  return {
    columns: layout.columns.map(({ key }) => key),
    filter: members.length > 0 ? { kind: 'group', quantifier: layout.isAny ? 'anyOf' : 'allOf', members } : null,
    search: layout.search.trim() || null,
    sortBy: layout.sortBy,
    descending: layout.descending,
  };
}
