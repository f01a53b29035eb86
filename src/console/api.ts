import { valueAt } from '../core/text/own-values.js';
import { printableLines } from '../core/text/printable.js';
import { paths } from '../api/paths.js';
import type { Problem } from '../api/problem.js';
import type { AnswerOf, BodyOf, QueryOf, RouteName } from '../api/routes.js';

/** The service said no, or could not be reached. */
export class CallError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
    this.name = 'CallError';
  }
}

interface CallOptions<Name extends RouteName> {
  params?: Record<string, string>;
  query?: QueryOf<Name>;
  body?: BodyOf<Name>;
  headers?: Record<string, string>;
  signal?: AbortSignal;
}

/** Makes one call of the HTTP interface. */
export async function call<Name extends RouteName>(
  name: Name,
  options: CallOptions<Name> = {},
): Promise<AnswerOf<Name>> {
  const { params = {}, query, body, headers = {}, signal } = options;
  const { method, path } = paths[name];
  const filled = path.replace(/\{(\w+)\}/g, (_whole, key: string) =>
    encodeURIComponent(valueAt(params, key) ?? ''),
  );
  const search = query
    ? `?${new URLSearchParams(Object.entries(query).map(([key, value]) => [key, String(value)])).toString()}`
    : '';
  let response: Response;
  try {
    response = await fetch(`/api/v1${filled}${search}`, {
      method: method.toUpperCase(),
      headers: {
        Accept: 'application/json',
        'Syndexa-Who': 'console',
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
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
  if (!response.ok) throw new CallError(asProblem(value, response.status));
  return value as AnswerOf<Name>;
}

function asProblem(value: unknown, status: number): Problem {
  if (value && typeof value === 'object' && 'code' in value) return value as Problem;
  return {
    type: 'about:blank',
    title: 'No answer',
    status,
    code: 'internal',
    detail: `The service answered ${status}.`,
  };
}

/** The ETag that names a version. */
export function etag(version: number): string {
  return `"v${version}"`;
}
