import { answered } from '../api/client';
import { readRecord, type RecordType } from '../api/generated';
import type { Values } from '../engine/answers';
import { OpenRecord } from '../engine/openRecord';
import { editions, engine } from '../engine/pageEngine';

/**
 * Opens a record as a list sees it, through one of its forms and with fields that are changed at once. It is live as soon as the
 * engine has it.
 */
export async function openRow(type: RecordType, id: number, form: string | null, typed: Values = {}) {
  const { version, ...view } = await answered(readRecord({ path: { id }, query: { inList: true, form: form ?? undefined } }));
  const record = new OpenRecord(engine, type, view, typed, false);
  void record.open(() => editions.program(view.recordType, view.edition));
  return { record, version };
}
