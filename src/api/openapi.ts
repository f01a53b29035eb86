import { entryAt, putAt } from '../core/text/own-values.js';
import { groupBy } from '../core/text/group-by.js';
import * as z from 'zod';
import { Components } from './components.js';
import { eventShapes } from './events.js';
import { faults, type FaultCode } from './faults.js';
import { Problem } from './problem.js';
import { routes, type RouteSpec } from './routes.js';
import { schemaDocuments } from './schemas.js';

type Json = Record<string, unknown>;

/** Ways to fail that every call has. */
const usual: readonly FaultCode[] = [
  'unreadable',
  'unauthenticated',
  'forbidden',
  'too-many',
  'busy',
  'stopping',
  'storage',
  'internal',
];

const text = { type: 'string' };
/** Headers that answers carry. */
const headers = {
  ETag: {
    description: 'The version of the response, to send as If-Match or If-None-Match.',
    schema: text,
  },
  Location: { description: 'The address of the new resource.', schema: text },
  Link: { description: 'The address of the next page (rel="next"); absent on the last page.', schema: text },
  Allow: { description: 'The methods that the address supports.', schema: text },
  'Retry-After': { description: 'How many seconds to wait.', schema: { type: 'integer' } },
} as const;
type HeaderName = keyof typeof headers;
const headerRefs = (names: readonly HeaderName[]): Json =>
  names.length === 0
    ? {}
    : {
        headers: Object.fromEntries(names.map((name) => [name, { $ref: `#/components/headers/${name}` }])),
      };

/** The OpenAPI 3.1 document of the HTTP interface, made once from the route table. */
export function openApiDocument(version: string): Json {
  return (made ??= makeDocument(version));
}

let made: Json | undefined;

function makeDocument(version: string): Json {
  const components = new Components();
  const paths: Record<string, Json> = {};
  for (const [name, route] of Object.entries<RouteSpec>(routes)) {
    const operations = entryAt(paths, `/api/v1${route.path}`, (): Json => ({}));
    putAt<unknown>(operations, route.method, operation(components, name, route));
  }
  for (const [path, get] of Object.entries(otherOperations(components))) putAt(paths, path, { get });
  components.schema(Problem, 'output');
  return components.completed({
    openapi: '3.1.0',
    info: { title: 'Syndexa', version, license: { name: 'Apache-2.0', identifier: 'Apache-2.0' } },
    // A service that is reached from its own machine only requires no token.
    security: [{}, { token: [] }, { session: [] }],
    paths,
    components: {
      headers,
      securitySchemes: {
        token: { type: 'http', scheme: 'bearer', description: 'A token of syndexa token add.' },
        session: { type: 'apiKey', in: 'cookie', name: 'syndexa_session' },
      },
    },
  });
}

function operation(components: Components, name: string, route: RouteSpec): Json {
  const { summary, body, sent: stream } = route;
  const sent = body
    ? { content: { 'application/json': { schema: components.schema(body, 'input') } } }
    : stream && { content: { [stream.type]: { schema: { ...text, description: stream.description } } } };
  return {
    operationId: name,
    summary,
    parameters: [...pathAndQuery(components, route), ...conditions(route)],
    ...(sent ? { requestBody: { required: true, ...sent } } : {}),
    responses: { ...answers(components, route), ...problems(faultsOf(route)) },
  };
}

function pathAndQuery(components: Components, { path, query }: RouteSpec): Json[] {
  const inPath = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: text,
  }));
  const inQuery = Object.entries<z.ZodType>(query?.shape ?? {}).map(([name, type]) => ({
    name,
    in: 'query',
    required: !type.safeParse(undefined).success,
    schema: components.schema(type, 'output'),
  }));
  return [...inPath, ...inQuery];
}

/** Request headers that say which version the caller knows. */
function conditions({
  method,
  versioned,
  created,
}: Pick<RouteSpec, 'method' | 'versioned' | 'created'>): Json[] {
  const header = (name: string, description: string) => ({
    name,
    in: 'header',
    required: false,
    description,
    schema: text,
  });
  if (method === 'get')
    return [header('If-None-Match', 'The ETag of the caller’s copy: 304 means that it is current.')];
  if (!versioned) return [];
  const match = header(
    'If-Match',
    'The ETag of the version to change, a list of ETags, or * for any version.',
  );
  return created === 'if-new'
    ? [match, header('If-None-Match', '* for something that does not exist yet.')]
    : [match];
}

function answers(components: Components, route: RouteSpec): Json {
  const { answer, method, created, tagged, paged, forms, progress } = route;
  const content: Json = { 'application/json': { schema: components.schema(answer, 'output') } };
  for (const [type, description] of Object.entries(forms ?? {}))
    putAt<unknown>(content, type, { schema: { ...text, description } });
  if (progress)
    content['text/event-stream'] = {
      schema: {
        ...text,
        description: 'Events `progress`, then one with the response, or `problem`. Their data is JSON.',
      },
    };
  const named: HeaderName[] = [...(tagged ? (['ETag'] as const) : []), ...(paged ? (['Link'] as const) : [])];
  const done = { description: 'Done.', ...headerRefs(named), content };
  const made = { description: 'Made.', ...headerRefs([...named, 'Location']), content };
  return {
    ...(created === 'always' ? {} : { 200: done }),
    ...(created ? { 201: made } : {}),
    ...(method === 'get' ? { 304: { description: 'The caller’s copy is current.' } } : {}),
  };
}

/** Every error of a call: those that follow from its inputs, and those that it names. */
function faultsOf({
  path,
  query,
  body,
  sent,
  versioned,
  forms,
  method,
  faults: own = [],
}: RouteSpec): FaultCode[] {
  const found: FaultCode[] = [...usual, 'not-acceptable', ...own];
  if (path.includes('{')) found.push('not-found');
  if (query) found.push('invalid');
  if (body || method !== 'get') found.push('too-large');
  if (body || sent) found.push('invalid', 'wrong-type', 'not-found');
  if (versioned) found.push('precondition-missing', 'changed');
  if (path.includes('{snapshot}') && method === 'post') found.push('too-costly');
  if (forms) found.push('not-acceptable');
  return [...new Set(found)];
}

/** Answers that tell of a problem, by status, with the codes that each can have. */
function problems(codes: readonly FaultCode[]): Json {
  const byStatus = groupBy(codes, (code) => faults[code].status);
  return Object.fromEntries(
    [...byStatus]
      .sort(([a], [b]) => a - b)
      .map(([status, of]) => [
        String(status),
        {
          description: of.map((code) => faults[code].title).join('; ') + '.',
          ...headerRefs(status === 429 || status === 503 ? ['Retry-After'] : []),
          content: {
            'application/problem+json': {
              schema: {
                allOf: [{ $ref: '#/components/schemas/Problem' }, { properties: { code: { enum: of } } }],
              },
            },
          },
        },
      ]),
  );
}

/** An operation outside the table: a GET of one thing. */
function getOperation(
  operationId: string,
  summary: string,
  content: Json,
  more: readonly FaultCode[] = [],
): Json & { parameters: Json[] } {
  return {
    operationId,
    summary,
    parameters: conditions({ method: 'get' }),
    responses: {
      200: { description: 'Done.', content },
      304: { description: 'The caller’s copy is current.' },
      ...problems([...usual, ...more]),
    },
  };
}

/** What is served besides the calls of the table. */
function otherOperations(components: Components): Record<string, Json> {
  const object = { schema: { type: 'object' } };
  const health = z.object({ service: z.literal('syndexa'), version: z.string(), roots: z.array(z.string()) });
  const schema = getOperation('schema', 'One published JSON Schema.', { 'application/schema+json': object }, [
    'not-found',
  ]);
  return {
    '/api/v1/openapi.json': getOperation('openApi', 'This document.', { 'application/json': object }),
    '/api/v1/schemas/{name}': {
      ...schema,
      parameters: [
        { name: 'name', in: 'path', required: true, schema: { enum: Object.keys(schemaDocuments()) } },
        ...schema.parameters,
      ],
    },
    '/api/v1/events': eventsOperation(components),
    '/healthz': getOperation('health', 'The health of the service.', {
      'application/json': { schema: components.schema(health, 'output') },
    }),
    '/metrics': getOperation('metrics', 'Counts and sizes, in the text format of metrics collectors.', {
      'text/plain': { schema: text },
    }),
  };
}

function eventsOperation(components: Components): Json {
  const events = Object.entries<z.ZodType>(eventShapes).map(
    ([name, type]) => [name, components.schema(type, 'output')] as const,
  );
  const description = 'Server-sent events. Their names, and the shapes of their data, are in x-events.';
  return {
    ...getOperation('events', 'Changes, as they happen.', {
      'text/event-stream': { schema: { ...text, description }, 'x-events': Object.fromEntries(events) },
    }),
    parameters: [
      {
        name: 'Last-Event-ID',
        in: 'header',
        required: false,
        description: 'The last event that the caller saw: later events are sent, or `reload`.',
        schema: text,
      },
    ],
  };
}
