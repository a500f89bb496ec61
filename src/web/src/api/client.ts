import { client } from './generated/client.gen';
import type { ProblemDetails, Refusal } from './generated';

/** A problem document with what Dibujo adds to it. */
export type Problem = ProblemDetails & { refusals?: Refusal[]; version?: number };

let token = '';

/** Every request that changes something carries the token that belongs to the person signed in. */
export function keepToken(next: string) {
  token = next;
}

client.setConfig({ baseUrl: '' });
client.interceptors.request.use((request) => {
  if (request.method !== 'GET') {
    request.headers.set('X-Dibujo-Token', token);
  }
  return request;
});

const listeners = new Set<() => void>();

/** Calls whenever the server says that nobody is signed in any more; answers with what ends that. */
export function onSignedOut(listener: () => void) {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

client.interceptors.response.use((response) => {
  if (response.status === 401 && !response.url.endsWith('/api/sign-in')) {
    listeners.forEach((listener) => listener());
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
    throw problem?.title === undefined ? unreachable : problem;
  }
  return answer.data as T;
}

const unreachable: Problem = {
  title: 'The server does not answer.',
  detail: 'Nothing is lost. Check the connection and try again.',
};
