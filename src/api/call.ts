import { valueAt } from '../core/text/own-values.js';
import { paths } from './paths.js';
import type { Problem } from './problem.js';
import type { BodyOf, QueryOf, RouteName } from './routes.js';

/** What a call is made with. */
export interface CallOptions<Name extends RouteName> {
  params?: Record<string, string>;
  query?: QueryOf<Name>;
  body?: BodyOf<Name>;
  headers?: Record<string, string>;
}

/** A call of the table as a request: what client and console send, each by its own means. */
export interface CallRequest {
  method: string;
  /** Path and query, from the root of the service. */
  path: string;
  headers: Record<string, string>;
  /** JSON; undefined when the call has no body. */
  body: string | undefined;
}

/**
 * The request of a call.
 * @param who the name under which a change is noted
 */
export function requestOf<Name extends RouteName>(
  name: Name,
  who: string,
  { params = {}, query, body, headers = {} }: CallOptions<Name>,
): CallRequest {
  const { method, path } = paths[name];
  const filled = path.replace(/\{(\w+)\}/g, (_, key: string) =>
    encodeURIComponent(valueAt(params, key) ?? ''),
  );
  const pairs = Object.entries(query ?? {}).map(([key, value]) => [key, String(value)]);
  const search = query ? `?${new URLSearchParams(pairs).toString()}` : '';
  return {
    method: method.toUpperCase(),
    path: `/api/v1${filled}${search}`,
    headers: {
      Accept: 'application/json',
      'Syndexa-Who': who,
      ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
      ...headers,
    },
    body: body === undefined ? undefined : JSON.stringify(body),
  };
}

/** Where the next page of a long list begins, by the `Link` header of the one before it. */
export function nextPageOf(link: string | null | undefined): number | undefined {
  const after = /<[^>]*[?&]after=(\d+)[^>]*>; rel="next"/.exec(link ?? '')?.[1];
  return after === undefined ? undefined : Number(after);
}

/** The problem that an answer tells of; one of our own making when it tells of none. */
export function problemOf(parsed: unknown, status: number, text = ''): Problem {
  if (parsed && typeof parsed === 'object' && 'code' in parsed) return parsed as Problem;
  return {
    type: 'about:blank',
    title: 'No answer',
    status,
    code: 'internal',
    detail: `The service answered ${status}${text === '' ? '.' : `: ${text.slice(0, 200)}`}`,
  };
}
