import { printableLines } from '../core/text/printable.js';
import { problemOf, requestOf, type CallOptions } from '../api/call.js';
import type { Problem } from '../api/problem.js';
import type { AnswerOf, RouteName } from '../api/routes.js';

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
  { signal, ...options }: CallOptions<Name> & { signal?: AbortSignal } = {},
): Promise<AnswerOf<Name>> {
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
    throw new CallError({
      type: 'about:blank',
      title: 'Not reachable',
      status: 0,
      code: 'unreachable',
      detail: 'The service does not answer.',
      fix: 'Start it again with syndexa serve; nothing you typed is lost.',
    });
  }
  const value: unknown = printableLines(await response.json().catch(() => null));
  if (!response.ok) throw new CallError(problemOf(value, response.status));
  return value as AnswerOf<Name>;
}

/** The ETag that names a version. */
export function etag(version: number): string {
  return `"v${version}"`;
}
