import { Text } from '@mantine/core';
import type { RecordType } from '../api/generated';
import { usePeople } from '../api/people';
import type { OpenRecord } from '../engine/openRecord';
import { useFromRecord, useSummary } from '../engine/useRecord';
import { fieldLabel, stageLabel } from '../sheet/lookUp';
import classes from './RecordForm.module.css';
import { differences, seen } from './states';
import type { News } from './useFilling';

/** Says in a line what has become different without this person's doing. */
export function NewsLine({ news, type, record }: { news: News; type: RecordType; record: OpenRecord }) {
  const nameOf = usePeople();
  const { isLive } = useSummary(record);
  const different = useFromRecord(record, () => differences(news.before, seen(type, record)));
  const { edition, meanwhile } = news;
  return (
    <div className={classes.notice} role="status" data-news>
      {meanwhile && (
        <Text size="sm">
          {[...new Set([...meanwhile.changes, ...(meanwhile.moved ? [meanwhile.moved] : [])].map(({ by }) => nameOf(by)))].join(
            ' and ',
          )}{' '}
          saved this record:{' '}
          {[
            ...meanwhile.changes.map(({ field }) => fieldLabel({ recordType: type }, field)),
            ...(meanwhile.moved ? [`moved to ${stageLabel({ recordType: type }, meanwhile.moved.stage)}`] : []),
          ].join(', ')}
          . What you typed is still here.
        </Text>
      )}
      {edition !== undefined && (
        <Text size="sm">
          Edition {edition} is in force since a moment ago.{' '}
          {!isLive
            ? 'Looking at what is different…'
            : different
              ? `For this record: ${different}.`
              : 'For this record nothing is different.'}{' '}
          What you typed is still here.
        </Text>
      )}
    </div>
  );
}
