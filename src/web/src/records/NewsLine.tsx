import { Text } from '@mantine/core';
import type { RecordType } from '../api/generated';
import { usePeople } from '../api/people';
import type { OpenRecord } from '../engine/openRecord';
import { useFromRecord, useSummary } from '../engine/useRecord';
import { fieldLabel, stageLabel } from '../sheet/lookUp';
import classes from './RecordForm.module.css';
import { differences, seen } from './states';
import type { News } from './filling';
import { whoDid } from './whoDid';

interface Props {
  news: News;
  type: RecordType;
  record: OpenRecord;
  /** Account name of who looks at it. */
  person: string;
}

/** Says in a line what has become different without this person's doing. */
export function NewsLine({ news, type, record, person }: Props) {
  const nameOf = usePeople();
  const hasTyped = useFromRecord(record, () => Object.keys(record.unsaved()).length > 0);
  const still = hasTyped ? ' What you typed is still here.' : '';
  const { isLive } = useSummary(record);
  const different = useFromRecord(record, () => differences(news.before, seen(type, record)));
  const { edition, meanwhile } = news;
  return (
    <div className={classes.notice} role="status" data-news>
      {meanwhile && (
        <Text size="sm">
          {whoDid(meanwhile, person, nameOf)} saved this record:{' '}
          {[
            ...meanwhile.changes.map(({ field }) => fieldLabel({ recordType: type }, field)),
            ...(meanwhile.moved ? [`moved to ${stageLabel({ recordType: type }, meanwhile.moved.stage)}`] : []),
          ].join(', ')}
          .{still}
        </Text>
      )}
      {edition !== undefined && (
        <Text size="sm">
          Edition {edition} is in force since a moment ago.{' '}
          {!isLive
            ? 'Looking at what is different…'
            : different
              ? `For this record: ${different}.`
              : 'For this record nothing is different.'}
          {still}
        </Text>
      )}
    </div>
  );
}
