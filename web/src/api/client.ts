// The one place that talks to the server.
import createClient from 'openapi-fetch';

import { heardFrom } from '@/kept/studio';

import { patient } from './patience';
import { signedOut } from './signedOut';

import type { paths } from './schema';
import type { Problem } from './types';

export const api = createClient<paths>({ baseUrl: '/', fetch: patient });

api.use({
  onResponse({ response }) {
    heardFrom(response.headers.get('x-hummock-studio'));
    if (response.ok) signedOut.value = false;
    else if (response.status === 401) signedOut.value = true;
  },
});

/** The server could not be reached, or its database is away; worth trying again. */
export class Unreachable extends Error {
  constructor(message = 'the server can’t be reached') {
    super(message);
  }
}

/** The server refused, and says why. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }

  /** What is wrong with each field, by its path. */
  get fields(): Record<string, string> {
    return Object.fromEntries((this.problem.errors ?? []).map(({ field, message }) => [field, message]));
  }
}

interface Answer<Data> {
  data?: Data;
  error?: unknown;
  response: Response;
}

/** Returns what was asked for, or throws {@link Refused} or {@link Unreachable}. */
export async function answer<Data>(asked: Promise<Answer<Data>>): Promise<Data> {
  const { data, error, response } = await heard(asked);
  if (data !== undefined) return data;
  throw failure(error, response);
}

/** Waits for something that is answered by no more than that it is done; throws like {@link answer}. */
export async function done(asked: Promise<Answer<unknown>>): Promise<void> {
  const { error, response } = await heard(asked);
  if (!response.ok) throw failure(error, response);
}

function heard<Data>(asked: Promise<Answer<Data>>): Promise<Answer<Data>> {
  return asked.catch((cause: unknown) => {
    if (cause instanceof DOMException && cause.name === 'AbortError') throw cause;
    const hangs = cause instanceof DOMException && cause.name === 'TimeoutError';
    throw new Unreachable(hangs ? 'the server does not answer' : undefined);
  });
}

/** A device that is signed out tries again like one whose server is away: what was typed waits until it is let in. */
function failure(error: unknown, response: Response): Refused | Unreachable {
  if (isProblem(error) && response.status < 500 && response.status !== 401) return new Refused(error);
  return new Unreachable(isProblem(error) ? error.detail : undefined);
}

function isProblem(error: unknown): error is Problem {
  return typeof error === 'object' && error !== null && 'detail' in error && 'status' in error;
}
