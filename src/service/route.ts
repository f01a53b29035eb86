import { inOurWords } from '../core/text/issue-text.js';
import type { Request, Response, Router } from 'express';
import type * as z from 'zod';
import {
  routes,
  type AnswerOf,
  type ParsedBody,
  type ParsedQuery,
  type RouteName,
  type Routes,
  type RouteSpec,
} from '../api/routes.js';
import { demandRole } from './access/access.js';
import { ServiceError } from './errors.js';
import type { Service } from './service.js';

/** The names in braces of a path: `title` of `/titles/{title}`. */
type ParamName<Path> = Path extends `${string}{${infer Name}}${infer Rest}` ? Name | ParamName<Rest> : never;

/** A request after everything in it was checked. */
export interface Call<Name extends RouteName> {
  params: Record<ParamName<Routes[Name]['path']>, string>;
  query: ParsedQuery<Name>;
  body: ParsedBody<Name>;
  /** The media type of the answer that the caller requires. */
  form: string;
  request: Request;
  response: Response;
  /** Ends work that nobody waits for any more: the caller went away. */
  signal: AbortSignal;
}

/** Answers a call. Undefined says that the response was written already. */
export type Handler<Name extends RouteName> = (
  call: Call<Name>,
  service: Service,
) => AnswerOf<Name> | undefined | Promise<AnswerOf<Name> | undefined>;

/** A handler for each route of the table. */
export type Handlers = { [Name in RouteName]: Handler<Name> };

/** Routes that open and close sessions. Their callers have no role yet. */
export type OpenRoute = 'session' | 'signIn' | 'signOut';

/** The media type of server-sent events. */
export const eventStream = 'text/event-stream';

/** A sign of life is sent so often (ms), so that nothing between here and there closes a quiet connection. */
export const heartbeat = 15_000;

/** The caller closed the connection before the answer was sent. */
export class CallerGoneError extends Error {
  override readonly name = 'CallerGoneError';

  constructor() {
    super('The caller closed the connection.');
  }
}

/** Registers handlers for routes of the table. They see parsed values only; answers go out as JSON. */
export function register(
  router: Router,
  handlers: Partial<Handlers>,
  service: Service,
  beatEvery = heartbeat,
): void {
  for (const name of Object.keys(handlers) as RouteName[]) {
    const spec: RouteSpec = routes[name];
    const handler = handlers[name] as Handler<RouteName>;
    router[spec.method](spec.path.replace(/\{(\w+)\}/g, ':$1'), async function handle(request, response) {
      if (spec.role !== null) demandRole(request, spec.role);
      demandType(spec, request);
      const form = formOf(spec, request);
      const query = spec.query ? parse(spec.query, request.query, 'query') : undefined;
      const body = spec.body ? parse(spec.body, request.body ?? {}, 'body') : undefined;
      const params = Object.fromEntries(
        Object.entries(request.params).map(([key, value]) => [key, String(value)]),
      );
      const gone = new AbortController();
      response.on('close', () => gone.abort(new CallerGoneError()));
      const { signal } = gone;
      const call = { params, query, body, form, request, response, signal };
      const beat = setInterval(() => signOfLife(request, response), beatEvery).unref();
      response.on('close', () => clearInterval(beat));
      const answer = await handler(call as Call<RouteName>, service);
      if (answer !== undefined && !response.headersSent) response.json(answer);
    });
  }
}

/**
 * Reports that the response is still in progress, so that neither the caller nor a proxy takes a long reading for a
 * dead connection (RFC 2518, section 10.1: 102 Processing).
 */
function signOfLife(request: Request, response: Response): void {
  if (!response.headersSent && request.httpVersion === '1.1') response.writeProcessing();
}

/** @throws ServiceError `wrong-type` when a call is sent something else than it takes */
function demandType({ body, sent }: RouteSpec, request: Request): void {
  const wanted = sent?.type ?? (body ? 'application/json' : undefined);
  if (wanted === undefined) return;
  // Calls with a JSON body accept a missing content type; streams must name theirs.
  const is = request.is(wanted);
  if (sent ? typeof is === 'string' : is !== false) return;
  const type = request.headers['content-type'];
  const takes = sent?.type ?? 'JSON';
  throw new ServiceError(
    'wrong-type',
    `The body is ${type ?? 'of an unnamed type'}, but this call takes ${takes}.`,
    { fix: `Send ${takes} with Content-Type: ${wanted}.` },
  );
}

/** @throws ServiceError `not-acceptable` */
function formOf({ forms, progress }: RouteSpec, request: Request): string {
  const offered = ['application/json', ...Object.keys(forms ?? {}), ...(progress ? [eventStream] : [])];
  const form = request.accepts(offered);
  if (form !== false) return form;
  throw new ServiceError('not-acceptable', `The response cannot be sent as ${request.headers.accept}.`, {
    fix: `Accept one of ${offered.join(', ')}.`,
  });
}

/** Responds with 201 and the address of the new resource: a path below `/api/v1`. */
export function created(response: Response, path: string): void {
  response.status(201).location(`/api/v1${path}`);
}

/** Says where the next page of a long list is. */
export function nextPage(request: Request, response: Response, after: number): void {
  const url = new URL(request.originalUrl, 'http://localhost');
  url.searchParams.set('after', String(after));
  response.links({ next: `${url.pathname}${url.search}` });
}

function parse(schema: z.ZodType, value: unknown, where: string): unknown {
  const parsed = schema.safeParse(value, inOurWords);
  if (parsed.success) return parsed.data;
  const errors = parsed.error.issues.flatMap((issue) => {
    const names = issue.code === 'unrecognized_keys' ? issue.keys : [''];
    return names.map((key) => ({
      field: [...issue.path, ...(key ? [key] : [])].map(String).join('.'),
      message: key ? `There is no field ${key} here.` : issue.message,
    }));
  });
  throw new ServiceError('invalid', `The ${where} of the request is invalid.`, { errors });
}
