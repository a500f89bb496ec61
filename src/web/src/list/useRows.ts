import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient, type InfiniteData } from '@tanstack/react-query';
import { useCallback, useEffect, useRef } from 'react';
import { answered } from '../api/client';
import { countRows, listRows, type ListPage, type ListRequest, type ListRow } from '../api/generated';
import { useLiveRecord } from '../records/useLiveRecord';

/** How many rows are fetched at once. */
const pageSize = 80;

/** How long saves of others are gathered before the list looks again, in milliseconds: where a row is one that is shown, and where none is. */
const [soon, later] = [1200, 15_000];

/** The rows of a list, fetched as they are scrolled to, and looked at again when somebody saves one. */
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
  const all = rows.data?.pages.flatMap((page) => page.rows) ?? [];
  const planned = useRef({ timer: 0, at: Infinity });
  const again = (pause: number) => {
    const at = Date.now() + pause;
    // What is planned sooner stays so: saves that keep coming put it off for nobody.
    if (at < planned.current.at) {
      window.clearTimeout(planned.current.timer);
      planned.current.at = at;
      planned.current.timer = window.setTimeout(() => {
        planned.current.at = Infinity;
        void queries.invalidateQueries({ queryKey: ['records', recordType] });
      }, pause);
    }
  };
  useLiveRecord(recordType, undefined, {
    onChanged: (records) => again(all.some(({ id }) => records.includes(id)) ? soon : later),
    onPublished: () => again(soon),
  });
  useEffect(() => {
    const plan = planned.current;
    return () => window.clearTimeout(plan.timer);
  }, []);

  /** Puts rows that have just been saved in the place of what they were. */
  const replace = useCallback(
    (saved: ListRow[]) => {
      const byId = new Map(saved.map((row) => [row.id, row]));
      queries.setQueriesData<InfiniteData<ListPage>>({ queryKey: ['records', recordType] }, (data) =>
        data && 'pages' in data
          ? { ...data, pages: data.pages.map((page) => ({ ...page, rows: page.rows.map((row) => byId.get(row.id) ?? row) })) }
          : data,
      );
    },
    [queries, recordType],
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
  };
}
