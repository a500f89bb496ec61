import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Problem } from '../api/client';
import type { HistoryView, RecordType, RecordView } from '../api/generated';
import type { Value, Values } from '../engine/answers';
import { Engine } from '../engine/engine';
import { FakeWorker } from '../engine/fakeWorker';
import { OpenRecord } from '../engine/openRecord';
import { MemoryStorage } from '../pending/memoryStorage';
import { random } from '../pending/random';
import { Shelf } from '../pending/shelf';
import { Filling, type RecordServer } from './filling';
import { meanwhileOf } from './meanwhile';

const fields = ['city', 'fee', 'note', 'crate'];
const type = {
  key: 'loan',
  fields: fields.map((key) => ({ key, label: key, type: { kind: 'text' } })),
  workflows: [{ key: 'w', stages: [], moves: [] }],
} as unknown as RecordType;

/** Long enough for everything that waits or is tried again. */
const aWhile = 60_000;

/** A record at a server that may lose requests and answers, with all that was ever saved of it. */
class FakeServer {
  values: Values = { city: 'Hamburg' };
  version = 1;
  edition = 1;
  readonly history: HistoryView[] = [];
  /** Who is signed in at which browser. */
  readonly signedIn = new Map<string, string>();
  private readonly done = new Map<string, number>();
  /** Whether the next request does not arrive, or its answer does not. */
  fails = (): 'before' | 'after' | false => false;
  /** How long an answer takes, in milliseconds. */
  delay = () => 0;

  /** As a browser reaches it, on a page of that person. */
  at(browser: string, person: string): RecordServer {
    const answer = async <T>(act: () => T): Promise<T> => {
      await new Promise((resolve) => setTimeout(resolve, this.delay()));
      const failure = this.fails();
      if (failure === 'before') {
        throw unreachable;
      }
      if ((this.signedIn.get(browser) ?? person) !== person) {
        throw signedOut;
      }
      const result = structuredClone(act());
      await new Promise((resolve) => setTimeout(resolve, this.delay()));
      if (failure === 'after') {
        throw unreachable;
      }
      return result;
    };
    return {
      read: () => answer(() => ({ type, view: this.view() })),
      save: (changes, { version }, _, ticket) =>
        answer(() => {
          if (ticket === undefined || !this.done.has(ticket)) {
            if (version !== this.version) {
              throw { status: 409, title: 'Overtaken.', version: this.version } satisfies Problem as unknown as Error;
            }
            this.save(person, changes);
            this.done.set(ticket!, this.version);
          }
          return { type, view: this.view() };
        }),
      since: (version) => answer(() => meanwhileOf(this.history.filter((save) => save.version > version).reverse())),
    };
  }

  save(by: string, changes: Values) {
    const changed = Object.keys(changes).filter((field) => changes[field] !== (this.values[field] ?? null));
    if (changed.length > 0) {
      const only = (values: Values) => Object.fromEntries(changed.map((field) => [field, values[field] ?? null]));
      const before = only(this.values);
      this.values = { ...this.values, ...changes };
      this.version++;
      const after = only(this.values);
      this.history.push({ version: this.version, by, at: '', edition: this.edition, before, after } as unknown as HistoryView);
    }
  }

  view(): RecordView {
    const { version, edition, values } = this;
    return { id: 5, recordType: 'loan', form: 'main', forms: ['main'], version, edition, values: { ...values }, ...around };
  }
}

const around = { setting: { workflow: 'w', stage: 's' }, linked: [], states: [] } as unknown as Pick<
  RecordView,
  'setting' | 'linked' | 'states' | 'changedAt' | 'changedBy'
>;
const unreachable: Problem = { title: 'The server does not answer.', detail: '' };
const signedOut: Problem = { status: 401, title: 'Your sign-in has ended.' };

/** A person's browser, in which the record is open. */
class Browser {
  readonly storage = new MemoryStorage();

  constructor(
    readonly person: string,
    private readonly server: FakeServer,
  ) {}

  open = () =>
    new Filling(
      { type, view: this.server.view() },
      {
        person: this.person,
        server: this.server.at(this.person, this.person),
        shelf: new Shelf<Value>(this.person, 'record 5', this.storage),
        open: ({ view }, pending) => new OpenRecord(new Engine(() => new FakeWorker()), type, view, pending),
      },
    );
}

const typeInto = (filling: Filling, field: string, value: Value) => filling.present().record.change(field, value);
const shown = (filling: Filling, field: string) => filling.present().record.value(field);

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** Waits until it has come about. */
async function through<T>(act: Promise<T>): Promise<T> {
  await vi.advanceTimersByTimeAsync(aWhile);
  return act;
}

describe('a record that two fill in', () => {
  it('has both changes of different fields, and says what was taken over only where it stands there', async () => {
    const server = new FakeServer();
    const ada = new Browser('ada', server).open();
    typeInto(ada, 'fee', '100');
    server.save('ina', { city: 'Bremen' });
    await through(ada.look());

    expect(shown(ada, 'city')).toBe('Bremen');
    expect(ada.present().news?.meanwhile?.changes).toEqual([{ field: 'city', before: 'Hamburg', now: 'Bremen', by: 'ina' }]);
    expect(await through(ada.save())).toBeDefined();
    expect(server.values).toEqual({ city: 'Bremen', fee: '100' });
  });

  it('keeps keys that are typed while two saves by others are looked at', async () => {
    const server = new FakeServer();
    server.delay = () => 100;
    const ada = new Browser('ada', server).open();
    server.save('ina', { city: 'Bremen' });
    const first = ada.look();
    await vi.advanceTimersByTimeAsync(150);
    typeInto(ada, 'note', 'a');
    server.save('ina', { city: 'Kiel' });
    const second = ada.look();
    await vi.advanceTimersByTimeAsync(150);
    typeInto(ada, 'note', 'ab');
    await through(Promise.all([first, second]));

    expect(shown(ada, 'note')).toBe('ab');
    expect(shown(ada, 'city')).toBe('Kiel');
  });

  it('saves nothing over what others did before one has chosen', async () => {
    const server = new FakeServer();
    const ada = new Browser('ada', server).open();
    typeInto(ada, 'city', 'Kiel');
    typeInto(ada, 'fee', '5');
    server.save('ina', { city: 'Bremen' });
    expect(await through(ada.save())).toBeUndefined();
    expect(ada.present().choosing?.collisions).toEqual([{ field: 'city', mine: 'Kiel', now: 'Bremen', by: 'ina' }]);
    expect(await through(ada.save())).toBeUndefined();
    expect(server.values).toEqual({ city: 'Bremen' });

    ada.choose([]);
    expect(await through(ada.save())).toBeDefined();
    expect(server.values).toEqual({ city: 'Kiel', fee: '5' });
  });

  it('does a save once whose answer was lost, and tells nobody of it as somebody else’s', async () => {
    const server = new FakeServer();
    const ada = new Browser('ada', server).open();
    typeInto(ada, 'city', 'Kiel');
    let lost = 0;
    server.fails = () => (lost++ < 4 ? 'after' : false);
    expect(await through(ada.save())).toBeUndefined();
    expect(ada.present().refused?.problem).toEqual(unreachable);
    expect(await through(ada.save())).toBeDefined();

    expect(server.history.map(({ by, after }) => [by, after])).toEqual([['ada', { city: 'Kiel' }]]);
    expect(ada.present()).toMatchObject({ news: undefined, choosing: undefined, refused: undefined });
  });

  it('offers what was typed and not saved, with what it was typed on', async () => {
    const server = new FakeServer();
    const browser = new Browser('ada', server);
    const first = browser.open();
    typeInto(first, 'city', 'Kiel');
    first.close();
    server.save('ina', { city: 'Bremen' });

    const second = browser.open();
    const [offer] = second.present().offered;
    await through(second.takeUp(offer!));

    expect(second.present().choosing?.collisions).toMatchObject([{ field: 'city', mine: 'Kiel', now: 'Bremen', by: 'ina' }]);
    second.choose(['city']);
    expect(shown(second, 'city')).toBe('Bremen');
    await vi.advanceTimersByTimeAsync(aWhile);
    expect(browser.storage.length).toBe(0);
  });

  it('offers what was typed in each of two windows', () => {
    const server = new FakeServer();
    const browser = new Browser('ada', server);
    for (const value of ['one', 'two']) {
      const window = browser.open();
      typeInto(window, 'note', value);
      window.close();
    }
    const offered = browser.open().present().offered;
    expect(offered.map(({ kept }) => kept.edits[0]?.[1].value).sort()).toEqual(['one', 'two']);
  });

  it('loses nothing, gives nothing to another name, and ends alike for both, whatever comes between', async () => {
    for (let seed = Number(environment?.DIBUJO_SEED ?? 1); seed <= rounds; seed++) {
      await play(seed);
    }
  }, 300_000);
});

const environment = (globalThis as { process?: { env: Record<string, string | undefined> } }).process?.env;

/** How many records are filled in at random, sixty steps each. */
const rounds = Number(environment?.DIBUJO_ROUNDS ?? 60);

async function play(seed: number) {
  const chance = random(seed);
  const pick = <T>(of: T[]): T => of[Math.floor(chance() * of.length)]!;
  const server = new FakeServer();
  const browsers = ['ada', 'ina'].map((person) => new Browser(person, server));
  const open = browsers.map((browser) => browser.open());
  /** What each typed last into each field, unless they gave it up themselves. */
  const typed = [new Map<string, Value>(), new Map<string, Value>()];
  server.fails = () => (chance() < 0.25 ? pick(['before', 'after']) : false);
  server.delay = () => Math.floor(chance() * 300);
  const under: Promise<unknown>[] = [];
  const begin = (act: Promise<unknown>) => under.push(act.catch(() => undefined));

  for (let step = 0; step < 60; step++) {
    const who = pick([0, 1]);
    const filling = open[who]!;
    const kind = chance();
    if (kind < 0.45) {
      const [field, value] = [pick(fields), `${browsers[who]!.person} ${step}`];
      typeInto(filling, field, value);
      typed[who]!.set(field, value);
      expect(shown(filling, field), `seed ${seed}, step ${step}`).toBe(value);
    } else if (kind < 0.6) {
      begin(filling.save());
    } else if (kind < 0.75) {
      begin(filling.look());
    } else if (kind < 0.8) {
      // The window is loaded anew, and what was typed is put in again.
      await vi.advanceTimersByTimeAsync(250);
      filling.close();
      const next = (open[who] = browsers[who]!.open());
      next.present().offered.forEach((offer) => begin(next.takeUp(offer)));
    } else if (kind < 0.85) {
      const { person } = browsers[who]!;
      server.signedIn.set(person, server.signedIn.get(person) === 'nobody' ? person : 'nobody');
    } else if (kind < 0.88) {
      server.edition++;
    } else if (kind < 0.93) {
      settle(who);
    } else {
      await vi.advanceTimersByTimeAsync(Math.floor(chance() * 2000));
    }
    await vi.advanceTimersByTimeAsync(Math.floor(chance() * 100));
    open.forEach((one) => sayTheTruth(one, server, `seed ${seed}, step ${step}`));
  }

  server.fails = () => false;
  server.signedIn.clear();
  await vi.advanceTimersByTimeAsync(aWhile);
  await Promise.all(under);
  for (let again = 0; again < 6; again++) {
    for (const [who, filling] of open.entries()) {
      await through(filling.look());
      settle(who);
      await through(filling.save());
    }
  }
  for (const [who, filling] of open.entries()) {
    expect(filling.left.size, `seed ${seed}`).toBe(0);
    fields.forEach((field) => expect(shown(filling, field)).toBe(server.values[field] ?? null));
    typed[who]!.forEach((value, field) =>
      expect(
        server.history.some(({ by, after }) => by === browsers[who]!.person && (after as Values)[field] === value),
        `seed ${seed}: ${String(value)} in ${field}`,
      ).toBe(true),
    );
  }
  server.history.forEach(({ by, after }) =>
    Object.values(after as Values).forEach((value) =>
      expect(String(value).startsWith(by), `seed ${seed}: ${String(value)}`).toBe(true),
    ),
  );

  /** Chooses between what collides, and remembers what was given up. */
  function settle(who: number) {
    const filling = open[who]!;
    const theirs = (filling.present().choosing?.collisions ?? []).map(({ field }) => field).filter(() => chance() < 0.5);
    theirs.forEach((field) => typed[who]!.delete(field));
    filling.choose(theirs);
  }
}

/** What is told stands there, and is nobody's but whose it is said to be. */
function sayTheTruth(filling: Filling, server: FakeServer, when: string) {
  const { choosing, news, view, record } = filling.present();
  for (const meanwhile of [choosing?.meanwhile, news?.meanwhile]) {
    meanwhile?.changes.forEach(({ field, now, by }) => {
      expect(
        server.history.some((save) => save.by === by && (save.after as Values)[field] === now),
        when,
      ).toBe(true);
    });
  }
  choosing?.collisions.forEach(({ field, mine }) => {
    if (filling.left.has(field) && record.value(field) === mine) {
      expect((view.values as Values)[field] ?? null, when).not.toBe(mine);
    }
  });
}
