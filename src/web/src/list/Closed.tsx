import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link } from 'react-router-dom';
import type { Field, RecordType } from '../api/generated';
import type { OpenRecord } from '../engine/openRecord';
import { useElement, useSummary } from '../engine/useRecord';
import { Why } from '../records/Why';
import { formOf } from './changing';
import { openedRow, readRow } from './openRow';
import classes from './ListPage.module.css';

interface Props {
  type: RecordType;
  /** Number of the record. */
  row: number;
  field: Field;
}

/** Says of a cell that somebody wanted to type into that it is locked or hidden, and why. */
export function Closed({ type, row, field }: Props) {
  const queries = useQueryClient();
  const [record, setRecord] = useState<OpenRecord>();
  useEffect(() => {
    let isWanted = true;
    let opened: OpenRecord | undefined;
    readRow(queries, row, formOf(type, field.key)).then(
      (stored) => {
        if (isWanted) {
          opened = openedRow(stored).record;
          setRecord(opened);
        }
      },
      () => undefined,
    );
    return () => {
      isWanted = false;
      opened?.close();
    };
  }, [queries, type, row, field.key]);
  return record ? <Reason record={record} type={type} row={row} field={field} /> : null;
}

function Reason({ type, row, field, record }: Props & { record: OpenRecord }) {
  const { isVisible, isLocked } = useElement(record, 'field', field.key);
  const isAllLocked = useElement(record, 'record', 'record').isLocked;
  const { isLive } = useSummary(record);
  if (!isLive || (isVisible && !isLocked)) {
    return null;
  }
  return (
    <p className={classes.notice} role="status">
      {!isVisible
        ? `${field.label} does not apply to No. ${row}.`
        : isAllLocked
          ? `No. ${row} is locked.`
          : `${field.label} of No. ${row} is locked.`}
      {isVisible && (
        <Why
          record={record}
          kind={isAllLocked ? 'record' : 'field'}
          elementKey={isAllLocked ? 'record' : field.key}
          recordType={type.key}
        />
      )}
      <Link to={`/records/${row}`} className={classes.link}>
        Open it
      </Link>
    </p>
  );
}
