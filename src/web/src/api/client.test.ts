import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { SignInView } from './generated';

type Client = typeof import('./client');

/** What was sent, and a server that answers in turn. */
let sent: Request[];
let answers: (() => Response)[];

beforeEach(() => {
  vi.resetModules();
  [sent, answers] = [[], []];
  vi.stubGlobal('fetch', async (asked: Request | string) => {
    sent.push(asked instanceof Request ? asked : new Request(new URL(asked, 'http://dibujo')));
    const answer = answers.shift();
    if (!answer) {
      throw new TypeError('lost');
    }
    return Promise.resolve(answer());
  });
});
afterEach(() => vi.unstubAllGlobals());

const person = (userName: string | null, token = `token of ${userName}`) =>
  ({
    token,
    person: userName === null ? null : { userName, displayName: userName.toUpperCase(), roles: [] },
  }) as unknown as SignInView;

const outOfDate = () => Response.json({ isTokenOutOfDate: true, title: 'The token is out of date.' }, { status: 400 });
const fine = () => Response.json([]);

/** A page of ada's. */
async function page(): Promise<Client & { save: () => Promise<unknown> }> {
  const client = await import('./client');
  const { changeRows } = await import('./generated');
  const { client: own } = await import('./generated/client.gen');
  own.setConfig({ baseUrl: 'http://dibujo' });
  client.keepSignIn(person('ada', 'first'));
  return {
    ...client,
    save: () => client.answered(changeRows({ path: { key: 'loan' }, body: { columns: [], rows: [] } })),
  };
}

const tokens = () => sent.filter(({ method }) => method === 'POST').map(({ headers }) => headers.get('X-Dibujo-Token'));

describe('a page and who is signed in on it', () => {
  it('sends what is changed with the person’s token, and which connections it has', async () => {
    const { save, connections } = await page();
    connections.add(() => 'one');
    connections.add(() => null);
    answers = [fine];

    await save();

    expect(tokens()).toEqual(['first']);
    expect(sent[0]!.headers.get('X-Dibujo-Connections')).toBe('one');
  });

  it('sends again, with all that was in it, where only the token is out of date', async () => {
    const { save } = await page();
    answers = [outOfDate, () => Response.json(person('ada', 'second')), fine, fine];

    await save();
    await save();

    expect(tokens()).toEqual(['first', 'second', 'second']);
    expect(await sent[2]!.json()).toEqual({ columns: [], rows: [] });
  });

  it.each([
    ['bela', 'BELA'],
    [null, undefined],
  ])('does nothing in the name of %s, and says so', async (other, called) => {
    const { save, onSignedOut } = await page();
    const told: (string | undefined)[] = [];
    onSignedOut((name) => told.push(name));
    answers = [outOfDate, () => Response.json(person(other))];

    await expect(save()).rejects.toMatchObject({ status: 401, detail: expect.stringContaining('Nothing was done') });

    expect(tokens()).toEqual(['first']);
    expect(told).toEqual([called]);
  });

  it('stays the page of whoever was signed in on it first', async () => {
    const { keepSignIn, signedInHere, onSignedIn } = await page();
    let again = 0;
    onSignedIn(() => again++);
    keepSignIn(person('bela'));

    expect(signedInHere(person('bela'))).toBe(false);
    expect(again).toBe(0);
    expect(signedInHere(person('ada'))).toBe(true);
    expect(again).toBe(1);
  });

  it('does not repeat what was refused for any other reason', async () => {
    const { save } = await page();
    answers = [() => Response.json({ title: 'No.', detail: 'It makes no sense.', status: 400 }, { status: 400 })];

    await expect(save()).rejects.toMatchObject({ title: 'No.' });

    expect(sent).toHaveLength(1);
  });

  it('says in words that nobody answers, or answers in no words', async () => {
    const { save } = await page();
    await expect(save()).rejects.toMatchObject({ title: 'The server does not answer.' });

    answers = [() => new Response('<html>', { status: 502 })];
    await expect(save()).rejects.toMatchObject({ title: 'The server does not answer.', status: 502 });
  });
});
