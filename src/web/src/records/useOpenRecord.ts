import { useEffect } from 'react';
import type { RecordView } from '../api/generated';
import { afterPaint } from '../engine/afterPaint';
import type { OpenRecord } from '../engine/openRecord';
import { editions } from '../engine/pageEngine';

/**
 * Has a record go live. It is drawn with the server's states, and follows the typing once it has been painted and the engine has
 * opened it; where the engine cannot load, the form works with those states alone.
 */
export function useOpenRecord(record: OpenRecord, { recordType, edition }: RecordView) {
  useEffect(() => {
    const callOff = afterPaint(() => void record.open(() => editions.program(recordType, edition)));
    return () => {
      callOff();
      record.close();
    };
  }, [record, recordType, edition]);
}
