import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient, type InfiniteData } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { answered } from '../api/client';
import { countRows, listRows, type ListPage, type ListRequest, type ListRow } from '../api/generated';
import { recordTypeQuery } from '../records/queries';
import { useLiveRecord } from '../records/useLiveRecord';
import { planned } from './planned';
import { standing } from './standing';

/** How many rows are fetched at once. */
const pageSize = 80;

/** How long saves of others are gathered before the list looks again, in milliseconds: where a row is one that is shown, and where none is. */
const [soon, later] = [1200, 15_000];

/** The rows of a list, fetched as they are scrolled to, and looked at again when somebody saves one. They stay in their order while one is at work in them. */
export function useRows(recordType: string, request: Omit<ListRequest, 'after' | 'take'>) {
  const queries = useQueryClient();
  const key = ['records', recordType, request];
  const rows = useInfiniteQuery({
    queryKey: key,
    queryFn: ({ pageParam }) =>
      answered(listRows({ path: { key: recordType }, body: { ...request, after: pageParam, take: pageSize } })),
    initialPageParam: null as string | null,
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: keepPreviousData,
  });
  const count = useQuery({
    queryKey: ['records', recordType, 'count', request.filter, request.search],
    queryFn: () => answered(countRows({ path: { key: recordType }, body: { ...request, columns: [] } })),
    placeholderData: keepPreviousData,
  }).data;
  // Rows that are being changed, in the order in which they stood; good for the request for which they were fetched.
  const [held, setHeld] = useState<{ request: typeof request; rows: ListRow[] }>();
  const fetched = rows.data?.pages.flatMap((page) => page.rows) ?? [];
  const all = held?.request === request ? standing(held.rows, fetched) : fetched;
  const [again] = useState(() => planned(() => void queries.invalidateQueries({ queryKey: ['records', recordType] })));
  useLiveRecord(recordType, undefined, {
    onChanged: (records) => again.within(all.some(({ id }) => records.includes(id)) ? soon : later),
    onPublished: () => {
      again.within(soon);
      void queries.invalidateQueries({ queryKey: recordTypeQuery(recordType).queryKey, exact: true });
    },
  });
  useEffect(() => again.stop, [again]);

  /** Puts rows that have just been saved in the place of what they were. */
  const replace = useCallback(
    (saved: ListRow[]) => {
      const byId = new Map(saved.map((row) => [row.id, row]));
      queries.setQueriesData<InfiniteData<ListPage>>({ queryKey: ['records', recordType] }, (data) =>
        data && 'pages' in data
          ? { ...data, pages: data.pages.map((page) => ({ ...page, rows: page.rows.map((row) => byId.get(row.id) ?? row) })) }
          : data,
      );
      setHeld((before) => before && { ...before, rows: before.rows.map((row) => byId.get(row.id) ?? row) });
      // They may belong elsewhere by now, or not be counted any more; of what one does oneself nobody tells.
      again.within(soon);
    },
    [again, queries, recordType],
  );

  return {
    rows: all,
    edition: rows.data?.pages[0]?.edition,
    problem: rows.error,
    isPending: rows.isPending,
    count,
    hasMore: rows.hasNextPage,
    more: () => !rows.isFetchingNextPage && void rows.fetchNextPage(),
    replace,
    /** Keeps rows where they are from now on, whatever is saved: nobody types into what jumps. */
    hold: () => setHeld({ request, rows: all }),
    /** Puts rows where they belong. */
    settle: () => setHeld(undefined),
    /** Whether rows that are held would stand elsewhere by now, or would not be there. */
    isMoved: all.some(({ id }, i) => fetched[i]?.id !== id),
  };
}
