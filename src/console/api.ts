import type { OnProgress } from '../core/text/progress.js';
import { parsePrintable } from '../core/text/printable.js';
import { nextPageOf, problemOf, requestOf, type CallOptions } from '../api/call.js';
import type { Problem } from '../api/problem.js';
import type { AnswerOf, PagedRoute, RouteName } from '../api/routes.js';

/** The service said no, or could not be reached. */
export class CallError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
    this.name = 'CallError';
  }
}

/** Makes one call of the HTTP interface. */
export async function call<Name extends RouteName>(
  name: Name,
  options: CallOptions<Name> & { signal?: AbortSignal } = {},
): Promise<AnswerOf<Name>> {
  return (await ask(name, options)).answer;
}

async function ask<Name extends RouteName>(
  name: Name,
  { signal, ...options }: CallOptions<Name> & { signal?: AbortSignal },
): Promise<{ answer: AnswerOf<Name>; next: number | undefined; etag: string | null }> {
  const { path, body, ...request } = requestOf(name, 'console', options);
  let response: Response;
  try {
    response = await fetch(path, {
      ...request,
      ...(body === undefined ? {} : { body }),
      ...(signal ? { signal } : {}),
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    throw notReachable();
  }
  const value = answerIn(await response.text().catch(() => ''));
  if (!response.ok) throw new CallError(problemOf(value, response.status));
  const { headers } = response;
  return {
    answer: value as AnswerOf<Name>,
    next: nextPageOf(headers.get('Link')),
    etag: headers.get('ETag'),
  };
}

function notReachable(): CallError {
  return new CallError({
    type: 'about:blank',
    title: 'Not reachable',
    status: 0,
    code: 'unreachable',
    detail: 'The service does not respond.',
    fix: 'Start it again with syndexa serve; nothing you typed is lost.',
  });
}

/** What the service answered, or null where that is no JSON. */
function answerIn(text: string): unknown {
  try {
    return parsePrintable(text);
  } catch {
    return null;
  }
}

/** A call with a versioned response, and its ETag; null if the resource does not exist yet. */
export async function callWithTag<Name extends RouteName>(
  name: Name,
  options: CallOptions<Name> = {},
): Promise<{ answer: AnswerOf<Name>; etag: string | null }> {
  const { answer, etag: tag } = await ask(name, options);
  return { answer, etag: tag };
}

/** One page of a list that is answered in pages, and where the next one begins. */
export interface Page<Name extends PagedRoute> {
  entries: AnswerOf<Name>;
  next: number | undefined;
}

/** Asks for one page of a list. */
export async function callPage<Name extends PagedRoute>(
  name: Name,
  options: CallOptions<Name>,
): Promise<Page<Name>> {
  const { answer, next } = await ask(name, options);
  return { entries: answer, next };
}

/** A file that is sent as it is, who hears how much of it was sent, and what ends that. */
interface Upload {
  file: File;
  type: string;
  progress: OnProgress;
  signal: AbortSignal;
}

/**
 * A call with a file as its body. It does not use `fetch`, which cannot report how much was sent.
 * @throws CallError
 */
export function upload<Name extends RouteName>(
  name: Name,
  options: CallOptions<Name>,
  { file, type, progress, signal }: Upload,
): Promise<AnswerOf<Name>> {
  const { path, method, headers } = requestOf(name, 'console', options);
  const request = new XMLHttpRequest();
  request.open(method, path);
  for (const [field, value] of Object.entries({ ...headers, 'Content-Type': type }))
    request.setRequestHeader(field, value);
  request.upload.onprogress = ({ loaded, total }) =>
    progress({
      doing: `MB of ${file.name}`,
      done: Math.round(loaded / 1e6),
      total: Math.round(total / 1e6),
    });
  signal.addEventListener('abort', () => request.abort());
  return new Promise((resolve, reject) => {
    request.onload = () => {
      const value = answerIn(request.responseText);
      if (request.status < 400) resolve(value as AnswerOf<Name>);
      else reject(new CallError(problemOf(value, request.status)));
    };
    request.onerror = () => reject(notReachable());
    request.onabort = () => reject(new DOMException('The call was cancelled.', 'AbortError'));
    request.send(file);
  });
}

/** All entries of a list that is answered in pages. */
export async function callAll<Name extends PagedRoute>(
  name: Name,
  options: CallOptions<Name> = {},
): Promise<AnswerOf<Name>> {
  const found: unknown[] = [];
  let after: number | undefined;
  do {
    const query = { ...(options.query as object), ...(after === undefined ? {} : { after }) };
    const { answer, next } = await ask(name, { ...options, query } as CallOptions<Name>);
    found.push(...answer);
    after = next;
  } while (after !== undefined);
  return found as AnswerOf<Name>;
}

/** The ETag that names a version. */
export function etag(version: number): string {
  return `"v${version}"`;
}
