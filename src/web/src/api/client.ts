import { client } from './generated/client.gen';
import type { ProblemDetails, Refusal, SignInView } from './generated';

/** A problem document with what Dibujo adds to it. */
export type Problem = ProblemDetails & { refusals?: Refusal[]; version?: number };

let token = '';

/** Account name of the person whose page this is: the first who was signed in on it. */
let owner: string | undefined;

/** Takes over who is signed in: every request that changes something carries the token that belongs to that person. */
export function keepSignIn({ token: next, person }: SignInView) {
  token = next;
  owner ??= person?.userName;
}

/** The connections to hubs that this page has: it is not told by them of what it does itself. */
export const connections = new Set<() => string | null>();

client.interceptors.request.use((request) => {
  if (request.method !== 'GET') {
    request.headers.set(tokenHeader, token);
    const open = [...connections].flatMap((idOf) => idOf() ?? []);
    if (open.length > 0) {
      request.headers.set('X-Dibujo-Connections', open.join(','));
    }
  }
  return request;
});

const tokenHeader = 'X-Dibujo-Token';

/**
 * Sends a request. Where the token is out of date, as after a sign-in in another window, it is sent once more with the one that is
 * good now, provided that it is still the person of this page who is signed in; else nothing is done in another person's name.
 */
async function send(first: RequestInfo | URL, options?: RequestInit): Promise<Response> {
  const request = new Request(first, options);
  const again = request.method === 'GET' ? undefined : request.clone();
  const answer = await fetch(request);
  if (!again || answer.status !== 400 || !(await isOutOfDate(answer))) {
    return answer;
  }
  const signIn = (await (await fetch('/api/sign-in')).json()) as SignInView;
  const isSigningIn = again.url.endsWith('/api/sign-in');
  if (!isSigningIn && signIn.person?.userName !== owner) {
    tellSignedOut(signIn.person?.displayName);
    return Response.json(ended(signIn.person?.displayName), { status: 401 });
  }
  keepSignIn(signIn);
  again.headers.set(tokenHeader, token);
  return fetch(again);
}

const isOutOfDate = async (answer: Response) =>
  (
    (await answer
      .clone()
      .json()
      .catch(() => null)) as { isTokenOutOfDate?: boolean } | null
  )?.isTokenOutOfDate === true;

const ended = (who?: string): Problem => ({
  status: 401,
  title: who ? `This browser is signed in as ${who} now.` : 'Your sign-in has ended.',
  detail: 'Nothing was done. Sign in again to go on; what you typed stays here.',
});

client.setConfig({ baseUrl: '', fetch: send });

/** Tells and is told of something; answers with what ends that. */
function announcement<T = void>() {
  const listeners = new Set<(told: T) => void>();
  const on = (listener: (told: T) => void) => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  };
  return [(told: T) => [...listeners].forEach((listener) => listener(told)), on] as const;
}

const [tellSignedOut, onSignedOut] = announcement<string | undefined>();
const [tellSignedIn, onSignedIn] = announcement();

export {
  /** Calls whenever nobody is signed in any more, or somebody else is, with what that one is called. */
  onSignedOut,
  /** Calls whenever the person of this page has signed in again. */
  onSignedIn,
};

/** Sign-ins and sign-outs in other windows of this browser. */
const elsewhere = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('dibujo sign-in');
elsewhere?.addEventListener('message', () => {
  void fetch('/api/sign-in')
    .then((answer) => answer.json() as Promise<SignInView>)
    .then((signIn) => {
      if (owner === undefined) {
        return;
      }
      if (signIn.person?.userName === owner) {
        keepSignIn(signIn);
        tellSignedIn();
      } else {
        tellSignedOut(signIn.person?.displayName);
      }
    })
    .catch(() => undefined);
});

/** Takes over that somebody has signed in or out in this window; false where it is not the person of this page: it has to be loaded anew. */
export function signedInHere(signIn: SignInView): boolean {
  elsewhere?.postMessage(null);
  keepSignIn(signIn);
  const isOwner = signIn.person?.userName === owner;
  if (isOwner) {
    tellSignedIn();
  }
  return isOwner;
}

client.interceptors.response.use((response) => {
  // Without an address it is this page's own answer, and told.
  if (response.status === 401 && response.url && !response.url.endsWith('/api/sign-in')) {
    tellSignedOut(undefined);
  }
  return response;
});

/** The answer's data; throws its problem document otherwise, or one that says the server cannot be reached. */
export async function answered<T>(request: Promise<{ data?: T; error?: unknown; response?: Response }>): Promise<T> {
  let answer;
  try {
    answer = await request;
  } catch {
    throw unreachable;
  }
  if (answer.error !== undefined || !answer.response?.ok) {
    const problem = answer.error as Problem | undefined;
    if (answer.response?.status === 401 && !problem?.detail) {
      throw ended();
    }
    throw problem?.title === undefined ? { ...unreachable, status: answer.response?.status } : problem;
  }
  return answer.data as T;
}

const unreachable: Problem = {
  title: 'The server does not answer.',
  detail: 'Nothing is lost. Check the connection and try again.',
};
