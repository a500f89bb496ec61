import type { QueryClient } from '@tanstack/react-query';
import { answered } from '../api/client';
import { readRecord } from '../api/generated';
import type { Value } from '../engine/answers';
import { OpenRecord } from '../engine/openRecord';
import { editions, engine } from '../engine/pageEngine';
import type { Pending } from '../pending/pending';
import type { Stored } from '../records/filling';
import { recordTypeQuery } from '../records/queries';

/**
 * A record as a list sees it, through one of its forms. Its record type is that of the edition in force, which the list around it may
 * not know yet.
 */
export async function readRow(queries: QueryClient, id: number, form: string | null): Promise<Stored> {
  const view = await answered(readRecord({ path: { id }, query: { inList: true, form: form ?? undefined } }));
  return { type: (await queries.fetchQuery(recordTypeQuery(view.recordType, view.edition))).recordType, view };
}

/** It, open in the engine: it is live as soon as that has it (`live`). */
export function openedRow({ type, view }: Stored, pending?: Pending<Value>) {
  const record = new OpenRecord(engine, type, view, pending, false);
  return { record, live: record.open(() => editions.program(view.recordType, view.edition)) };
}
