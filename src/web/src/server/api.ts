import { t } from '@lingui/core/macro';
import { type SentenceParts, sentenceIn } from '../words/sentences';
/** A refusal as it comes (RFC 9457): `title` is its sentence in English. */
interface Problem extends SentenceParts {
  code?: string;
  title?: string;
}

/** A refusal by the server: a code for programs, a sentence for a person. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    sentence: string,
    /** After how long it may be tried again, ms; 0 when nothing was said of it. */
    readonly retryAfter = 0,
  ) {
    super(sentence);
  }
}

/** The server could not be reached. */
export class Unreachable extends Error {
  constructor() {
    super(t`The server cannot be reached. What you write is kept on this device.`);
  }
}

/** The person gave up waiting. */
export class Cancelled extends Error {
  constructor() {
    super(t`Cancelled. Nothing was changed.`);
  }
}

let antiforgery = '';
let openFor = '';

export function setAntiforgery(token: string): void {
  antiforgery = token;
}

/** Whom this tab is open for. When somebody else has signed in in this browser, the server answers it no more. */
export function setOpenFor(person: string): void {
  openFor = person;
}

async function send(
  method: string,
  path: string,
  body?: BodyInit,
  type?: string,
  signal?: AbortSignal,
): Promise<Response> {
  const headers: Record<string, string> = type ? { 'Content-Type': type } : {};
  if (method !== 'GET') headers['X-Quill-Antiforgery'] = antiforgery;
  if (openFor && path !== '/api/session') headers['X-Quill-Person'] = openFor;
  try {
    return await fetch(path, {
      method,
      headers,
      body: body ?? null,
      credentials: 'same-origin',
      signal: signal ?? null,
    });
  } catch {
    if (signal?.aborted) throw new Cancelled();
    throw new Unreachable();
  }
}

/** Too much at once, or a server that cannot answer now: what asks again in a moment is served. */
export const isBusy = (status: number): boolean => status === 429 || status === 503;

const busyTries = 3;
const longestWait = 10_000;

/** Sends a request; a stale antiforgery token is renewed once, and what only asks is asked again when the server is busy. Throws {@link Refused} or {@link Unreachable}. */
export async function request(
  method: string,
  path: string,
  body?: BodyInit,
  type?: string,
  signal?: AbortSignal,
): Promise<Response> {
  let response = await send(method, path, body, type, signal);
  for (
    let tried = 1;
    method === 'GET' && isBusy(response.status) && tried < busyTries && waitOf(response) <= longestWait;
    tried++
  ) {
    await new Promise((resolve) => setTimeout(resolve, Math.max(waitOf(response), 500)));
    response = await send(method, path, body, type, signal);
  }
  if (response.ok) return response;
  let problem = (await response.json().catch(() => ({}))) as Problem;
  if (problem.code === 'antiforgery') {
    const session = (await (await send('GET', '/api/session')).json()) as { antiforgery: string };
    setAntiforgery(session.antiforgery);
    response = await send(method, path, body, type, signal);
    if (response.ok) return response;
    problem = (await response.json().catch(() => ({}))) as Problem;
  }
  if (response.status >= 502 && problem.code === undefined) throw new Unreachable();
  throw new Refused(
    response.status,
    problem.code ?? 'unknown',
    problem.title ? sentenceIn(problem.title, problem) : t`The server could not do this. Nothing was changed.`,
    waitOf(response),
  );
}

/** What the server asks to wait, ms. */
function waitOf(response: Response): number {
  return Number(response.headers.get('Retry-After') ?? 0) * 1000 || 0;
}

export async function getJson<T>(path: string): Promise<T> {
  return (await (await request('GET', path)).json()) as T;
}

export async function sendJson<T>(
  method: 'POST' | 'PUT' | 'DELETE',
  path: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<T> {
  const response = await request(
    method,
    path,
    body === undefined ? undefined : JSON.stringify(body),
    'application/json',
    signal,
  );
  return (response.status === 204 ? undefined : await response.json()) as T;
}
