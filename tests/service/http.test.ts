import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { routes, type RouteSpec } from '../../src/api/routes.js';
import { openApiDocument } from '../../src/api/openapi.js';
import { schemaDocuments } from '../../src/api/schemas.js';
import { faults } from '../../src/api/faults.js';
import { Problem } from '../../src/api/problem.js';
import { http, testService, type TestService } from '../support/service.js';

let service: TestService;
beforeAll(async () => {
  service = await testService();
});
afterAll(() => service.stop());

const api = (path: string) => `${service.url}/api/v1${path}`;

describe('who may speak to the service', () => {
  it.each([
    ['another host', { Host: 'evil.example' }],
    ['a host that only begins well', { Host: '127.0.0.1.evil.example' }],
    ['a page of another origin', { Origin: 'http://evil.example' }],
    ['a page of another port', { Origin: 'http://127.0.0.1:1' }],
    ['a page without an origin of its own', { Origin: 'null' }],
  ])('not %s', async (_, headers) => {
    const { status, body } = await http(api('/titles'), 'GET', undefined, headers);
    expect(status).toBe(403);
    expect(body).toMatchObject({ code: 'forbidden', status: 403 });
  });

  it('its own page', async () => {
    expect((await http(api('/titles'), 'GET', undefined, { Origin: service.url })).status).toBe(200);
  });

  it('and its answers may not be framed or sniffed', async () => {
    const { headers } = await http(api('/titles'));
    expect(headers['x-frame-options']).toBe('DENY');
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['content-security-policy']).toContain("default-src 'self'");
    expect(headers['x-powered-by']).toBeUndefined();
  });
});

describe('errors', () => {
  it.each([
    ['an unknown call', 'GET', '/nothing', undefined, 404, 'not-found'],
    ['an unknown title', 'GET', '/titles/nobody', undefined, 404, 'not-found'],
    ['a body that is no JSON', 'POST', '/titles', '{"id":', 400, 'unreadable'],
    [
      'a body that is too large',
      'POST',
      '/titles',
      JSON.stringify({ id: 'x'.repeat(17_000_000) }),
      413,
      'too-large',
    ],
    ['a wrong field', 'POST', '/titles', { id: 'Not A Slug', title: { name: '' } }, 422, 'invalid'],
    [
      'a field there is none of',
      'POST',
      '/titles',
      { id: 'kelp', title: { name: 'K', colour: 'red' } },
      422,
      'invalid',
    ],
    ['a path that cannot be decoded', 'GET', '/titles/%E0%A4%A', undefined, 400, 'unreadable'],
    ['a query out of bounds', 'GET', '/snapshots/x/source?path=a&line=0', undefined, 422, 'invalid'],
    [
      'a snapshot whose paths lead out',
      'POST',
      '/snapshots',
      { name: 't', files: [{ path: '../etc/passwd', hash: '0'.repeat(64), size: 1 }] },
      422,
      'invalid',
    ],
    [
      'a snapshot whose paths are absolute',
      'POST',
      '/snapshots',
      { name: 't', files: [{ path: '/etc/passwd', hash: '0'.repeat(64), size: 1 }] },
      422,
      'invalid',
    ],
    [
      'content under a wrong hash',
      'POST',
      '/blobs',
      { blobs: [{ hash: '0'.repeat(64), base64: 'YQ==' }] },
      422,
      'invalid',
    ],
    [
      'a folder, when there are no roots',
      'POST',
      '/trees',
      { title: 'kelp', path: '/etc' },
      404,
      'not-found',
    ],
  ])('%s is a problem that says what to do', async (_, method, path, body, status, code) => {
    const answer = await http(api(path), method, body);
    expect(answer.status).toBe(status);
    expect(answer.headers['content-type']).toContain('application/problem+json');
    expect(Problem.parse(answer.body)).toMatchObject({ code, status, type: `urn:syndexa:problem:${code}` });
  });

  it('name every wrong field', async () => {
    const { body } = await http(api('/titles'), 'POST', {
      id: 'Not A Slug',
      title: { name: '', editions: { android: { identifier: 'no dots' } } },
    });
    expect(body.errors.map(({ field }: { field: string }) => field)).toEqual([
      'id',
      'title.name',
      'title.editions.android.identifier',
    ]);
  });

  it('stand in one table, each with its own exit code', () => {
    for (const { status, title, exit } of Object.values(faults)) {
      expect(status).toBeGreaterThanOrEqual(400);
      expect(title).not.toBe('');
      expect([2, 3, 4]).toContain(exit);
    }
  });
});

describe('the OpenAPI document', () => {
  it('describes every call of the table, with schemas, and is served', async () => {
    const { body } = await http(api('/openapi.json'));
    expect(body).toEqual(JSON.parse(JSON.stringify(openApiDocument('0.0.0-test'))));
    expect(body.openapi).toBe('3.1.0');
    for (const [name, route] of Object.entries<RouteSpec>(routes)) {
      const operation = body.paths[`/api/v1${route.path}`][route.method];
      expect(operation.operationId).toBe(name);
      const done = operation.responses['200'] ?? operation.responses['201'];
      expect(done.content['application/json'].schema).toBeTypeOf('object');
      expect(operation.parameters.filter(({ in: where }: { in: string }) => where === 'path')).toHaveLength(
        (route.path.match(/\{/g) ?? []).length,
      );
      expect(Boolean(operation.requestBody)).toBe(Boolean(route.body ?? route.sent));
    }
  });

  it.each(Object.entries<RouteSpec>(routes))('%s is bound in the service', async (_, { method, path }) => {
    const { body } = await http(
      api(path.replace(/\{\w+\}/g, 'nobody')),
      method.toUpperCase(),
      method === 'get' ? undefined : {},
      { 'If-Match': '"v1"' },
    );
    expect(body?.detail ?? '').not.toMatch(/^There is no call/);
    expect(body?.code).not.toBe('internal');
  });

  it('the published schemas are served by name', async () => {
    for (const name of Object.keys(schemaDocuments()))
      expect((await http(api(`/schemas/${name}`))).body).toMatchObject({
        $schema: expect.stringContaining('2020-12'),
      });
    expect((await http(api('/schemas/nothing'))).status).toBe(404);
  });
});

describe('looking after the service', () => {
  it('says that it is well, and counts what it answers', async () => {
    expect((await http(`${service.url}/healthz`)).body).toMatchObject({ service: 'syndexa' });
    const { text } = await http(`${service.url}/metrics`);
    expect(text).toMatch(/syndexa_http_responses_total\{status="2xx"\} \d+/);
    expect(text).toMatch(/syndexa_resident_bytes \d+/);
  });

  it('stops gracefully: open streams end, requests under way are answered', async () => {
    const other = await testService();
    const stream = http(`${other.url}/api/v1/events`);
    await new Promise((resolve) => setTimeout(resolve, 100));
    const late = http(`${other.url}/api/v1/titles`);
    await new Promise((resolve) => setTimeout(resolve, 20));
    const [events, titles] = await Promise.all([stream, late, other.stop()]);
    expect(events.text).toContain('event: hello');
    expect(titles.status).toBe(200);
    await expect(http(`${other.url}/healthz`)).rejects.toThrow();
  });
});
