import { UnstyledButton } from '@mantine/core';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Link } from 'react-router-dom';
import { answered } from '../api/client';
import { readHistory, type HistoryView, type RecordType } from '../api/generated';
import { usePeople } from '../api/people';
import type { Value, Values } from '../engine/answers';
import { useFromRecord } from '../engine/useRecord';
import { isSame } from '../pending/same';
import { fieldLabel, formLabel, stageLabel } from '../sheet/lookUp';
import { tabOf } from '../sheet/Sheet';
import { when } from '../writing/when';
import classes from './RecordForm.module.css';
import type { FilledIn } from './useFilling';
import { useNamed } from './useNamed';

/** Who saved the record, when, through what, and what changed; a former value is put back by a press. */
export function History({ filling }: { filling: FilledIn }) {
  const { type, stored } = filling;
  const nameOf = usePeople();
  const id = stored.id ?? 0;
  const history = useInfiniteQuery({
    queryKey: ['history', id, stored.version],
    queryFn: ({ pageParam }) => answered(readHistory({ path: { id }, query: { before: pageParam } })),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => ((page.at(-1)?.version ?? 1) > 1 ? page.at(-1)?.version : undefined),
  });
  const entries = history.data?.pages.flat() ?? [];
  return (
    <section aria-label="History">
      <h3 className={classes.heading}>History</h3>
      <ul className={classes.list}>
        {entries.map((entry) => (
          <li key={entry.version}>
            <details className={classes.save}>
              <summary>
                {when(entry.at)}, {nameOf(entry.by)}: {what(type, entry)}
              </summary>
              <Save filling={filling} entry={entry} />
            </details>
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

/** One save field by field. */
function Save({ filling, entry }: { filling: FilledIn; entry: HistoryView }) {
  const { type, stored } = filling;
  const written = useNamed();
  const [before, after] = [entry.before as Values, entry.after as Values];
  return (
    <>
      <p className={classes.through}>
        {through(type, entry)}, edition {entry.edition}.{' '}
        <Link to={`/records/${stored.id}/reading?version=${entry.version}`}>Read it as it was then</Link>
      </p>
      <dl className={classes.fields}>
        {fieldsOf(entry).map((key) => {
          const fieldType = type.fields.find((field) => field.key === key)?.type;
          const was = before[key] ?? null;
          return (
            <div key={key}>
              <dt>{fieldLabel({ recordType: type }, key)}</dt>
              <dd>
                <del>{written(fieldType, was) || 'blank'}</del> → <ins>{written(fieldType, after[key] ?? null) || 'blank'}</ins>{' '}
                {entry.version > 1 && <PutBack filling={filling} field={key} value={was} />}
              </dd>
            </div>
          );
        })}
      </dl>
    </>
  );
}

/** Puts a former value into its field again, where the rules allow that now; it is saved with everything else. */
function PutBack({ filling: { record, type, stored }, field, value }: { filling: FilledIn; field: string; value: Value }) {
  const why = useFromRecord(
    record,
    () => {
      const { isVisible, isLocked } = record.state('field', field);
      return !type.fields.some(({ key }) => key === field) ||
        tabOf({ recordType: type }, 'field', field, stored.form) === undefined
        ? 'not on this form'
        : !isVisible
          ? 'hidden now'
          : isLocked
            ? 'locked now'
            : isSame(record.value(field), value)
              ? 'as it is now'
              : '';
    },
    `field:${field}`,
  );
  return why ? (
    <small>({why})</small>
  ) : (
    <UnstyledButton
      className={classes.link}
      aria-label={`Put back ${fieldLabel({ recordType: type }, field)}`}
      onClick={() => record.change(field, value)}
    >
      Put back
    </UnstyledButton>
  );
}

const fieldsOf = ({ before, after }: HistoryView) => [...new Set([...Object.keys(before), ...Object.keys(after)])];

const ways: Record<string, string> = { list: 'In the list', import: 'By an import', api: 'By a program', form: 'On a form' };

function through(type: RecordType, { channel, form }: HistoryView) {
  const label = form && formLabel({ recordType: type }, form);
  return label
    ? channel === 'list'
      ? `In the list, through ${label}`
      : `On ${label}`
    : channel
      ? (ways[channel] ?? channel)
      : 'By a publication, or before this was noted';
}

function what(type: RecordType, entry: HistoryView) {
  const moved = entry.fromStage === entry.toStage ? [] : [`moved to ${stageLabel({ recordType: type }, entry.toStage)}`];
  if (entry.version === 1) {
    return ['begun', ...moved].join(', ');
  }
  const fields = fieldsOf(entry).map((key) => fieldLabel({ recordType: type }, key));
  const rest = fields.length - 3;
  return (
    [
      ...moved,
      ...(fields.length > 0 ? [`changed ${fields.slice(0, 3).join(', ')}${rest > 0 ? ` and ${rest} more` : ''}`] : []),
    ].join(', ') || 'saved unchanged'
  );
}
