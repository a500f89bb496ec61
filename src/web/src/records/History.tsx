import { UnstyledButton } from '@mantine/core';
import { useInfiniteQuery } from '@tanstack/react-query';
import { answered } from '../api/client';
import { readHistory, type RecordType } from '../api/generated';
import { when } from '../api/when';
import { fieldLabel, stageLabel } from '../sheet/lookUp';
import classes from './RecordForm.module.css';

/** Who saved the record, when, and what changed. */
export function History({ type, id, version }: { type: RecordType; id: number; version: number }) {
  const history = useInfiniteQuery({
    queryKey: ['history', id, version],
    queryFn: ({ pageParam }) => answered(readHistory({ path: { id }, query: { before: pageParam } })),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => ((page.at(-1)?.version ?? 1) > 1 ? page.at(-1)!.version : undefined),
  });
  const entries = history.data?.pages.flat() ?? [];
  return (
    <section aria-label="History">
      <h3 className={classes.heading}>History</h3>
      <ul className={classes.list}>
        {entries.map((entry) => (
          <li key={entry.version}>
            {when(entry.at)}, {entry.by}: {what({ recordType: type }, entry)}
          </li>
        ))}
      </ul>
      {history.hasNextPage && (
        <UnstyledButton className={classes.link} onClick={() => void history.fetchNextPage()}>
          Show earlier saves
        </UnstyledButton>
      )}
    </section>
  );
}

function what(
  definition: { recordType: RecordType },
  entry: { version: number; before: object; after: object; fromStage: string; toStage: string },
) {
  if (entry.version === 1) {
    return 'begun';
  }
  const fields = [...new Set([...Object.keys(entry.before), ...Object.keys(entry.after)])].map((key) =>
    fieldLabel(definition, key),
  );
  const moved = entry.fromStage === entry.toStage ? [] : [`moved to ${stageLabel(definition, entry.toStage)}`];
  return (
    [
      ...moved,
      ...(fields.length > 0
        ? [`changed ${fields.slice(0, 4).join(', ')}${fields.length > 4 ? ` and ${fields.length - 4} more` : ''}`]
        : []),
    ].join(', ') || 'saved unchanged'
  );
}
