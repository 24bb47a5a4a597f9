// The one place that talks to the server.
import createClient from 'openapi-fetch';

import type { paths } from './schema';
import type { Problem } from './types';

export const api = createClient<paths>({ baseUrl: '/' });

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
  const { data, error, response } = await asked.catch((cause: unknown) => {
    if (cause instanceof DOMException && cause.name === 'AbortError') throw cause;
    throw new Unreachable();
  });
  if (data !== undefined) return data;
  if (isProblem(error) && response.status < 500) throw new Refused(error);
  throw new Unreachable(isProblem(error) ? error.detail : undefined);
}

function isProblem(error: unknown): error is Problem {
  return typeof error === 'object' && error !== null && 'detail' in error && 'status' in error;
}
