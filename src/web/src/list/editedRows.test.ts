import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Problem } from '../api/client';
import type { HistoryView, RecordType, RecordView, RowOutcome } from '../api/generated';
import type { Value, Values } from '../engine/answers';
import { Engine } from '../engine/engine';
import { FakeWorker } from '../engine/fakeWorker';
import { OpenRecord } from '../engine/openRecord';
import { MemoryStorage } from '../pending/memoryStorage';
import { Shelf } from '../pending/shelf';
import { meanwhileOf } from '../records/meanwhile';
import { EditedRows } from './editedRows';

const type = {
  key: 'loan',
  fields: ['title', 'fee'].map((key) => ({ key, label: key, type: { kind: 'text' } })),
} as unknown as RecordType;

/** A list of records at a server. */
class FakeServer {
  values: Values = { title: 'Owl' };
  version = 1;
  failure?: Problem;
  refusals: RowOutcome['refusals'] = [];
  readonly history: HistoryView[] = [];
  readonly saved: Values[] = [];

  save(by: string, changes: Values) {
    const before = Object.fromEntries(Object.keys(changes).map((key) => [key, this.values[key] ?? null]));
    this.values = { ...this.values, ...changes };
    this.version++;
    this.history.push({ version: this.version, by, before, after: changes } as unknown as HistoryView);
  }

  view = (): RecordView =>
    ({
      id: 5,
      recordType: 'loan',
      form: 'main',
      forms: [],
      version: this.version,
      edition: 1,
      values: { ...this.values },
      setting: { workflow: 'w', stage: 's' },
      linked: [],
      states: [],
    }) as unknown as RecordView;

  rows(storage = new MemoryStorage()) {
    const open = new Set<OpenRecord>();
    const rows = new EditedRows({
      server: {
        read: () => Promise.resolve({ type, view: this.view() }),
        change: ({ version, changes }) => {
          if (this.failure) {
            return Promise.reject(this.failure as unknown as Error);
          }
          const nothing: RowOutcome = { id: 5, row: null, problem: null, refusals: this.refusals, replaced: {} };
          if (version !== this.version) {
            return Promise.resolve({ ...nothing, version: this.version });
          }
          if (this.refusals.length > 0) {
            return Promise.resolve({ ...nothing, problem: 'Something speaks against this.' });
          }
          this.save('ada', changes as Values);
          this.saved.push(changes as Values);
          return Promise.resolve({ ...nothing, row: { id: 5, version: this.version } } as unknown as RowOutcome);
        },
        since: (_, version) => Promise.resolve(meanwhileOf(this.history.filter((one) => one.version > version).reverse())),
      },
      shelf: (id) => new Shelf<Value>('ada', `record ${id}`, storage),
      open: ({ type, view }, pending) => {
        const record = new OpenRecord(new Engine(() => new FakeWorker()), type, view, pending, false);
        open.add(record);
        return { record, live: Promise.resolve() };
      },
      onSaved: () => undefined,
    });
    return { rows, storage, open };
  }
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

async function through<T>(act: Promise<T>): Promise<T> {
  await vi.advanceTimersByTimeAsync(60_000);
  return act;
}

describe('a row that is typed into', () => {
  it('is saved when it is left, upon what others saved of other fields meanwhile', async () => {
    const server = new FakeServer();
    const { rows, storage } = server.rows();
    await through(rows.open(5, 'main', { fee: '100' }));
    server.save('ina', { title: 'Kite' });

    expect((await through(rows.leave(5)))?.version).toBe(3);
    expect(server.values).toEqual({ title: 'Kite', fee: '100' });
    expect(rows.present().met?.meanwhile.changes).toMatchObject([{ field: 'title', by: 'ina' }]);
    expect(rows.present().rows.size).toBe(0);
    expect(storage.length).toBe(0);
  });

  it('is never saved over what others did to the same, however often it is left', async () => {
    const server = new FakeServer();
    const { rows } = server.rows();
    await through(rows.open(5, 'main', { title: 'Ada’s' }));
    server.save('ina', { title: 'Ina’s' });

    await through(rows.leave(5));
    await through(rows.leave(5));

    expect(server.values.title).toBe('Ina’s');
    expect(rows.present().rows.get(5)?.collisions).toEqual([{ field: 'title', mine: 'Ada’s', now: 'Ina’s', by: 'ina' }]);
  });

  it('stays with all reasons where it is refused, and is taken back', async () => {
    const server = new FakeServer();
    server.refusals = [{ reason: 'locked', field: 'fee', message: 'It is locked.' } as RowOutcome['refusals'][number]];
    const { rows, storage } = server.rows();
    await through(rows.open(5, 'main', { fee: '100' }));
    await through(rows.leave(5));
    expect(rows.present().rows.get(5)?.refusals).toEqual({ fee: 'It is locked.' });

    await through(rows.takeBack(5));
    expect(rows.present().rows.size).toBe(0);
    expect(storage.length).toBe(0);
  });

  it('waits where the server cannot be reached, and what was typed outlasts the window', async () => {
    const server = new FakeServer();
    server.failure = { title: 'The server does not answer.', detail: '' };
    const { rows, storage, open } = server.rows();
    await through(rows.open(5, 'main', { fee: '100' }));
    await through(rows.leave(5));
    expect(rows.present().rows.get(5)).toMatchObject({ isWaiting: true, isSaving: false });

    rows.close();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(rows.present().rows.size).toBe(0);
    expect([...open].every((record) => record.sessionId === undefined)).toBe(true);
    expect(new Shelf<Value>('ada', 'record 5', storage).others()[0]?.kept.edits).toMatchObject([['fee', { value: '100' }]]);
  });

  it('is done once where it is opened and left without a change', async () => {
    const server = new FakeServer();
    const { rows } = server.rows();
    await through(rows.open(5, 'main'));
    await through(rows.leave(5));
    expect(rows.present().rows.size).toBe(0);
    expect(server.saved).toEqual([]);
  });
});
