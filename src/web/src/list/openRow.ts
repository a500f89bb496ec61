import type { QueryClient } from '@tanstack/react-query';
import { answered } from '../api/client';
import { readRecord } from '../api/generated';
import type { Values } from '../engine/answers';
import { OpenRecord } from '../engine/openRecord';
import { editions, engine } from '../engine/pageEngine';
import { recordTypeQuery } from '../records/queries';

/**
 * Opens a record as a list sees it, through one of its forms and with fields that are changed at once. It is live as soon as the
 * engine has it (`live`). Its record type is that of the edition in force, which the list around it may not know yet.
 */
export async function openRow(queries: QueryClient, id: number, form: string | null, typed: Values = {}) {
  const { version, ...view } = await answered(readRecord({ path: { id }, query: { inList: true, form: form ?? undefined } }));
  const { recordType } = await queries.fetchQuery(recordTypeQuery(view.recordType, view.edition));
  const record = new OpenRecord(engine, recordType, view, typed, false);
  const live = record.open(() => editions.program(view.recordType, view.edition));
  return { record, version, edition: view.edition, live };
}
