import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { openApiDocument } from '../../src/api/openapi.js';
import { junk, nearly, valid } from '../support/from-schema.js';
import { http, testService, temporaryFolder, type Answer, type TestService } from '../support/service.js';
import { androidFiles } from '../support/trees.js';

const document = openApiDocument('0.0.0-test') as any;
const runs = Number(process.env.SYNDEXA_TEST_REQUESTS ?? 25);
const ajv = new Ajv2020({ strict: false, validateFormats: false });
ajv.addSchema({ $id: 'document', ...document });

let service: TestService;
let roots: string;
let tree: string;
/** Values that a parameter of a path can have when what it names is there. */
let there: Record<string, string>;
beforeAll(async () => {
  roots = temporaryFolder();
  tree = join(roots, 'kelp');
  const files = androidFiles();
  for (const [path, content] of Object.entries(files)) {
    mkdirSync(join(tree, path, '..'), { recursive: true });
    writeFileSync(join(tree, path), content);
  }
  service = await testService({ roots: [roots] });
});
beforeEach(async () => {
  const api = `${service.url}/api/v1`;
  const title = { name: 'Kelp', editions: { android: { identifier: 'example.brine.kelp' } } };
  await patiently(`${api}/titles`, 'POST', { id: 'kelp', title });
  await http(`${api}/titles/kelp/placements/footer`, 'PUT', { format: 'banner' }, { 'If-None-Match': '*' });
  const trees = (await patiently(`${api}/trees`)).body;
  const linked = trees[0] ?? (await http(`${api}/trees`, 'POST', { title: 'kelp', path: tree })).body;
  there = {
    title: 'kelp',
    placement: 'footer',
    tree: linked.id,
    snapshot: linked.snapshot,
    network: 'cobalt-heron',
    name: 'survey',
  };
  expect(Object.values(there).every((value) => typeof value === 'string')).toBe(true);
});
afterAll(async () => {
  await service.stop();
  rmSync(roots, { recursive: true, force: true });
});

interface Operation {
  operationId: string;
  parameters: { name: string; in: string; schema: any }[];
  requestBody?: { content: Record<string, { schema: any }> };
  responses: Record<string, { content?: Record<string, { schema: any }>; headers?: Record<string, unknown> }>;
}
const operations = Object.entries<Record<string, Operation>>(document.paths).flatMap(([path, methods]) =>
  Object.entries(methods).map(([method, operation]) => ({ path, method, operation })),
);

/** Requests of an operation: right ones, nearly right ones, and any. */
function requests(operation: Operation) {
  const named = (where: string) => operation.parameters.filter((parameter) => parameter.in === where);
  const odd = fc.oneof(
    fc.constantFrom(
      'nobody',
      '../..',
      '%',
      '*',
      'constructor',
      '__proto__',
      'x'.repeat(3_000),
      'a/b',
      '\u0000',
    ),
    // These the client itself takes out of an address.
    fc.string({ unit: 'grapheme', minLength: 1 }).filter((text) => !/^\.{1,2}$/.test(text)),
  );
  const param = (name: string) =>
    fc.oneof({ weight: 3, arbitrary: fc.constant(name) }, { weight: 1, arbitrary: odd });
  const query = (schema: any) =>
    fc.option(fc.oneof(valid(schema, document).map(String), odd), { nil: undefined });
  const header = fc.constantFrom(
    undefined,
    '*',
    '"v1"',
    'W/"v2"',
    '"v1", "v2", "v3"',
    'v1',
    '"',
    '"v1",,',
    '""',
  );
  const schema = operation.requestBody?.content['application/json']?.schema;
  const right = schema ? valid(schema, document) : fc.constant(undefined);
  const body = schema ? fc.oneof(right, nearly(right), junk).map((value) => JSON.stringify(value)) : right;
  return fc.record({
    path: fc.record(Object.fromEntries(named('path').map(({ name }) => [name, param(name)]))),
    query: fc.record(Object.fromEntries(named('query').map(({ name, schema }) => [name, query(schema)]))),
    headers: fc.record(
      Object.fromEntries(
        named('header').map(({ name }) => [
          name,
          name.startsWith('If-')
            ? header
            : fc.oneof(fc.constant(undefined), fc.constantFrom('x', '0-1', '-')),
        ]),
      ),
    ),
    accept: fc.oneof(
      { weight: 9, arbitrary: fc.constantFrom(undefined, '*/*', 'application/json', 'text/html, */*;q=0.1') },
      { weight: 1, arbitrary: fc.constantFrom('image/png', 'a', '') },
    ),
    type: fc.oneof(
      { weight: 8, arbitrary: fc.constant('application/json') },
      {
        weight: 1,
        arbitrary: fc.constantFrom('text/plain', 'application/x-www-form-urlencoded', 'json', ''),
      },
    ),
    body: schema
      ? fc.oneof(
          { weight: 8, arbitrary: body },
          { weight: 1, arbitrary: fc.constantFrom('{', '', 'null', '[[[') },
        )
      : fc.constant(undefined),
  });
}

/** Asks again when there were too many requests. */
async function patiently(...request: Parameters<typeof http>): Promise<Answer> {
  const answer = await http(...request);
  if (answer.status !== 429) return answer;
  await new Promise((resolve) => setTimeout(resolve, Number(answer.headers['retry-after'] ?? 10) * 1000));
  return patiently(...request);
}

const validators = new Map<string, ValidateFunction>();

/** What is wrong with an answer, by the document. */
function faultsOf(
  operation: Operation,
  method: string,
  path: string,
  { status, headers, text, body }: Answer,
): string[] {
  if (status >= 500) return [`It answers ${status}: ${text.slice(0, 300)}`];
  const response = operation.responses[status];
  if (!response) return [`${status} is not declared: ${text.slice(0, 300)}`];
  const faults: string[] = [];
  if (status === 201 && !headers.location) faults.push('201 without Location');
  if (status < 300 && response.headers?.ETag && !headers.etag && body !== null) faults.push('no ETag');
  if (!response.content) return text === '' ? faults : [...faults, `${status} has a body`];
  const type = String(headers['content-type']).split(';')[0]!;
  const declared = response.content[type];
  if (!declared) return [...faults, `${status} as ${type} is not declared`];
  if (!type.endsWith('json')) return faults;
  const key = `document#/paths/${escaped(path)}/${method}/responses/${status}/content/${escaped(type)}/schema`;
  const validate = validators.get(key) ?? ajv.compile({ $ref: key });
  validators.set(key, validate);
  if (!validate(body)) faults.push(`${status}: ${ajv.errorsText(validate.errors)}`);
  return faults;
}

const escaped = (part: string) =>
  encodeURIComponent(part.replaceAll('~', '~0').replaceAll('/', '~1')).replaceAll('%7E', '~');

describe('every answer is as the OpenAPI document says, whatever is asked', () => {
  it.each(
    operations
      .filter(({ path }) => path !== '/api/v1/events')
      .map((each) => [each.operation.operationId, each] as const),
  )('%s', async (_, { path, method, operation }) => {
    await fc.assert(
      fc.asyncProperty(requests(operation), async ({ path: names, query, headers, accept, type, body }) => {
        const filled = path.replace(/\{(\w+)\}/g, (_all, name: string) => {
          const value = String((names as Record<string, unknown>)[name]);
          return encodeURIComponent(value === name ? there[name]! : value);
        });
        const given = Object.entries({ ...headers, Accept: accept }).filter(
          ([, value]) => value !== undefined,
        );
        const asked = Object.entries(query as Record<string, string | undefined>).flatMap(([name, value]) =>
          value === undefined ? [] : [[name, value]],
        );
        const answer = await patiently(
          `${service.url}${filled}${asked.length > 0 ? `?${new URLSearchParams(asked as string[][])}` : ''}`,
          method.toUpperCase(),
          body,
          {
            ...(Object.fromEntries(given) as Record<string, string>),
            ...(body === undefined ? {} : { 'Content-Type': type }),
          },
        );
        expect(faultsOf(operation, method, path, answer)).toEqual([]);
      }),
      { numRuns: runs, endOnFailure: true },
    );
  });
});

/** One right request of each operation that random ones seldom get right. */
const right = (): [operation: string, request: { body?: unknown; query?: string; etag?: string }][] => {
  const draft =
    'syndexa: 1\ntitles: { dulse: { name: Dulse, editions: { ios: { identifier: example.brine.dulse } } } }\n';
  const slot = { network: 'cobalt-heron', platform: 'android', stage: 'production' };
  return [
    ['setId', { body: { ...slot, value: 'CH-A-310772-QK4T8W2N' }, etag: '*' }],
    ['takeDraft', { body: { document: draft } }],
    ['draftTitle', { body: { snapshots: [there.snapshot] } }],
    ['importRoster', { body: { document: draft, dryRun: true } }],
    ['openFolder', { body: { path: tree } }],
    ['linkTree', { body: { title: 'kelp', path: tree } }],
    ['source', { query: 'path=app/src/main/AndroidManifest.xml&line=1' }],
    ['unwire', { body: { title: 'kelp', network: 'cobalt-heron' } }],
    ['setPublisher', { body: { name: 'Brine', domain: 'brine.example' }, etag: 'new' }],
    ['check', { body: { title: 'kelp' } }],
    ['wire', { body: { title: 'kelp' } }],
    ['survey', { body: {} }],
    ['putPlacement', { body: { format: 'banner' }, etag: '*' }],
  ];
};

it('right requests are answered as the document says, too', async () => {
  // What requests at random made of the title.
  const editions = { android: { identifier: 'example.brine.kelp' } };
  await http(`${service.url}/api/v1/titles/kelp`, 'PATCH', { editions }, { 'If-Match': '*' });
  for (const [name, { body, query, etag }] of right()) {
    const { path, method, operation } = operations.find((each) => each.operation.operationId === name)!;
    const filled = path.replace(/\{(\w+)\}/g, (_, parameter: string) => there[parameter]!);
    const condition: Record<string, string> =
      etag === undefined ? {} : etag === 'new' ? { 'If-None-Match': '*' } : { 'If-Match': etag };
    const answer = await http(
      `${service.url}${filled}${query ? `?${query}` : ''}`,
      method.toUpperCase(),
      body,
      condition,
    );
    expect([name, faultsOf(operation, method, path, answer)]).toEqual([name, []]);
    expect([name, answer.status < 300 ? '' : answer.text]).toEqual([name, '']);
  }
});
