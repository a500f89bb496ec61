import { useEffect, useMemo } from 'react';
import type { RecordType, RecordView } from '../api/generated';
import { afterPaint } from '../engine/afterPaint';
import type { Values } from '../engine/answers';
import { OpenRecord } from '../engine/openRecord';
import { editions, engine } from '../engine/pageEngine';

/**
 * A stored record with changes that were typed before. It is drawn with the server's states, and goes live once it has been
 * painted and the engine has opened it; where the engine cannot load, the form works with those states alone.
 */
export function useOpenRecord(type: RecordType, stored: RecordView, typed: Values): OpenRecord {
  const record = useMemo(() => new OpenRecord(engine, type, stored, typed), [type, stored, typed]);
  useEffect(() => {
    const callOff = afterPaint(() => void record.open(() => editions.program(stored.recordType, stored.edition)));
    return () => {
      callOff();
      record.close();
    };
  }, [record, stored]);
  return record;
}
