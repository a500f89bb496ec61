import { Text } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo, useRef } from 'react';
import { Link, useParams, useSearchParams } from 'react-router-dom';
import { answered } from '../api/client';
import { countRows, readColumns, type ColumnView, type RecordType } from '../api/generated';
import type { Progress } from '../engine/answers';
import { Place } from '../frame/Place';
import { ProgressMark, progressWords } from '../records/ProgressMark';
import { useRecordType } from '../records/queries';
import { stageLabel } from '../sheet/lookUp';
import { layoutOf, requestOf, writtenLayout } from './layout';
import classes from './ProgressPage.module.css';
import { useRows } from './useRows';
import { writtenNumber } from '../writing/numbers';

/** Records down, forms across: how far each form of each record is. Filtered as the list from which one comes. */
export function ProgressPage() {
  const key = useParams().type ?? '';
  const type = useRecordType(key).data;
  const known = useQuery({
    queryKey: ['columns', key, type?.number],
    queryFn: () => answered(readColumns({ path: { key } })),
    enabled: type !== undefined,
    placeholderData: keepPreviousData,
  }).data;
  return type && known ? <Overview type={type.recordType} known={known} /> : null;
}

function Overview({ type, known }: { type: RecordType; known: ColumnView[] }) {
  const [address] = useSearchParams();
  const written = address.get('list');
  const request = useMemo(
    () => ({
      ...requestOf(layoutOf(writtenLayout(written), type, known), known),
      columns: [...type.forms.map(({ key }) => `@form:${key}`), '@missing'],
    }),
    [written, type, known],
  );
  const { rows, hasMore, more } = useRows(type.key, request);
  const count = useQuery({
    queryKey: ['records', type.key, 'progress', request.filter, request.search],
    queryFn: () => answered(countRows({ path: { key: type.key }, body: request })),
  }).data;
  const scroller = useRef<HTMLDivElement>(null);
  const tallies = (count?.tallies ?? {}) as Record<string, Record<string, number>>;
  return (
    <main className={classes.page}>
      <Place
        steps={[
          { label: 'Record types', to: '/' },
          { label: type.label, to: `/types/${type.key}/records${written ? `?list=${encodeURIComponent(written)}` : ''}` },
          { label: 'Progress' },
        ]}
      />
      <Text size="sm" c="dimmed" pb={6}>
        {writtenNumber(count?.records ?? 0)} records{(request.filter ?? request.search) ? ', filtered as the list' : ''}. Counts
        are as of when each record was last saved, or an edition published; the rows are as of now.
      </Text>
      <div
        ref={scroller}
        className={classes.sheet}
        tabIndex={0}
        role="region"
        aria-label="Progress of the forms"
        onScroll={({ currentTarget: { scrollTop, clientHeight, scrollHeight } }) =>
          hasMore && scrollTop + clientHeight > scrollHeight - 600 && more()
        }
      >
        <table className={classes.table}>
          <thead>
            <tr>
              <th>Record</th>
              <th>Stage</th>
              {type.forms.map(({ key, label }) => {
                const tally = tallies[`@form:${key}`] ?? {};
                return (
                  <th key={key}>
                    {label}
                    <small>
                      {Object.entries(progressWords)
                        .map(([progress, word]) => ({ word, number: tally[progress.toUpperCase()] ?? 0 }))
                        .filter(({ number }) => number > 0)
                        .map(({ word, number }) => `${writtenNumber(number)} ${word}`)
                        .join(' · ')}
                    </small>
                  </th>
                );
              })}
              <th>Missing for the next move</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => {
              const standing = row.standing as Record<string, Progress | boolean>;
              return (
                <tr key={row.id}>
                  <th scope="row">
                    <Link to={`/records/${row.id}`}>
                      {row.title || '(no title)'} <small>No. {row.id}</small>
                    </Link>
                  </th>
                  <td>{stageLabel({ recordType: type }, row.stage)}</td>
                  {type.forms.map(({ key }) => {
                    const progress = standing[`@form:${key}`] as Progress;
                    return (
                      <td key={key} data-progress={progress}>
                        {progress === 'notRelevant' ? (
                          <span className={classes.none}>{progressWords[progress]}</span>
                        ) : (
                          <Link to={`/records/${row.id}?form=${key}`}>
                            <ProgressMark progress={progress} />
                            {progressWords[progress]}
                          </Link>
                        )}
                      </td>
                    );
                  })}
                  <td>{standing['@missing'] ? 'something' : 'nothing'}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </main>
  );
}
