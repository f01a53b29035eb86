import { mkdirSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import { brotliDecompressSync, gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pages } from '../../src/api/pages.js';
import { otherPaths, paths } from '../../src/api/paths.js';
import { http, temporaryFolder, testService, type Answer, type TestService } from '../support/service.js';

let service: TestService;
beforeAll(async () => {
  const consoleFolder = temporaryFolder();
  mkdirSync(join(consoleFolder, 'assets'));
  writeFileSync(join(consoleFolder, 'index.html'), '<!doctype html><title>Syndexa</title>');
  writeFileSync(join(consoleFolder, 'assets', 'index-C0FFEE.js'), `// ${'console '.repeat(2_000)}`);
  service = await testService({ consoleFolder });
});
afterAll(() => service.stop());

const api = (path: string) => `${service.url}/api/v1${path}`;
const title = (name: string) => ({ name, editions: { android: { identifier: `example.brine.${name}` } } });
const add = (id: string) => http(api('/titles'), 'POST', { id, title: title(id) });

/** A request with a body of bytes as they are; resolves with the answer's bytes too. */
function raw(url: string, method: string, headers: Record<string, string>, body = Buffer.alloc(0)) {
  return new Promise<{ status: number; headers: Answer['headers']; bytes: Buffer }>((resolve, reject) => {
    const call = request(url, { method, headers }, (response) => {
      const chunks: Buffer[] = [];
      response.on('data', (chunk: Buffer) => chunks.push(chunk));
      response.on('end', () =>
        resolve({
          status: response.statusCode ?? 0,
          headers: response.headers,
          bytes: Buffer.concat(chunks),
        }),
      );
    });
    call.on('error', reject);
    call.end(body);
  });
}

describe('methods', () => {
  const patterns = [...Object.values(paths), ...otherPaths].map(({ path }) => path);
  it.each([...new Set(patterns)])('%s says which it takes', async (path) => {
    const url = api(path.replace(/\{\w+\}/g, 'nobody'));
    const options = await http(url, 'OPTIONS');
    expect(options.status).toBe(204);
    const allowed = String(options.headers.allow).split(', ');
    const mine = [...Object.values(paths), ...otherPaths].filter((each) => each.path === path);
    for (const { method } of mine) expect(allowed).toContain(method.toUpperCase());
    const refused = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'].find((method) => !allowed.includes(method))!;
    const { status, headers, body } = await http(url, refused);
    expect([status, headers.allow, body.code]).toEqual([405, options.headers.allow, 'wrong-method']);
  });

  it('are told outside the API, too', async () => {
    for (const path of ['/healthz', '/metrics', '/', '/titles/kelp/steps']) {
      const { status, headers } = await http(`${service.url}${path}`, 'POST');
      expect([path, status, headers.allow]).toEqual([path, 405, 'GET, HEAD, OPTIONS']);
    }
  });

  it('HEAD is GET without the body', async () => {
    const [head, get] = await Promise.all(['HEAD', 'GET'].map((method) => http(api('/networks'), method)));
    expect([head!.status, head!.text, head!.headers.etag]).toEqual([200, '', get!.headers.etag]);
  });
});

describe('what is sent', () => {
  it.each(['text/plain', 'application/x-www-form-urlencoded', 'multipart/form-data; boundary=x', 'json'])(
    'as %s is refused: this is an API of JSON',
    async (type) => {
      const { status, body } = await http(api('/titles'), 'POST', '{"id":"kelp"}', { 'Content-Type': type });
      expect([status, body.code]).toEqual([415, 'wrong-type']);
    },
  );

  it.each(['gzip', 'deflate', 'br'])('and is not %s, as it says, cannot be read', async (encoding) => {
    const json = { 'Content-Type': 'application/json', 'Content-Encoding': encoding };
    const { status, bytes } = await raw(api('/titles'), 'POST', json, Buffer.from('not compressed at all'));
    expect([status, JSON.parse(bytes.toString()).code]).toEqual([400, 'unreadable']);
  });

  it('in an encoding or a charset that is not known is refused as such', async () => {
    for (const headers of [
      { 'Content-Type': 'application/json', 'Content-Encoding': 'rot13' },
      { 'Content-Type': 'application/json; charset=klingon' },
    ]) {
      const { status } = await raw(api('/titles'), 'POST', headers as never, Buffer.from('{}'));
      expect(status).toBe(415);
    }
  });

  it('compressed is read; more than a call takes once it is read is refused', async () => {
    const headers = { 'Content-Type': 'application/json', 'Content-Encoding': 'gzip' };
    const body = JSON.stringify({ id: 'packed', title: title('packed') });
    expect((await raw(api('/titles'), 'POST', headers, gzipSync(body))).status).toBe(201);
    expect((await raw(api('/titles'), 'POST', headers, gzipSync(' '.repeat(20_000_000)))).status).toBe(413);
  });
});

describe('conditions', () => {
  it('201 says where the thing is, and it is there', async () => {
    const { status, headers } = await add('kelp');
    expect([status, headers.location]).toEqual([201, '/api/v1/titles/kelp']);
    const url = api('/titles/kelp/placements/footer');
    const placed = await http(url, 'PUT', { format: 'banner' }, { 'If-None-Match': '*' });
    expect(placed.status).toBe(201);
    for (const made of [headers.location, placed.headers.location])
      expect((await http(`${service.url}${String(made)}`)).status).toBe(200);
  });

  it('304 for what the caller has already', async () => {
    for (const path of ['/titles/kelp', '/titles', '/networks', '/titles/kelp/placements/footer']) {
      const { etag } = (await http(api(path))).headers;
      for (const match of [etag, `"other", ${String(etag)}`, '*']) {
        const { status, text } = await http(api(path), 'GET', undefined, { 'If-None-Match': String(match) });
        expect([path, match, status, text]).toEqual([path, match, 304, '']);
      }
      expect((await http(api(path), 'GET', undefined, { 'If-None-Match': '"other"' })).status).toBe(200);
    }
  });

  it('If-Match takes a list, a weak tag and *', async () => {
    const rename = (match: string | undefined, name: string) =>
      http(api('/titles/kelp'), 'PATCH', { name }, match === undefined ? {} : { 'If-Match': match });
    const { version } = (await http(api('/titles/kelp'))).body;
    const now = (more: number) => `"v${version + more}"`;
    expect((await rename(`"v9999", ${now(0)}`, 'a')).status).toBe(200);
    expect((await rename(`W/${now(1)}`, 'b')).status).toBe(200);
    expect((await rename('*', 'c')).status).toBe(200);
    for (const wrong of ['"v9999"', '"v9998", "v9999"', '"nothing-of-ours"', '""'])
      expect([wrong, (await rename(wrong, 'd')).status]).toEqual([wrong, 412]);
    for (const broken of ['v1', '"v1', '"v1",,"v2"', ','])
      expect([broken, (await rename(broken, 'd')).status]).toEqual([broken, 400]);
    expect((await rename(undefined, 'd')).status).toBe(428);
    expect((await http(api('/titles/kelp'))).body.title.name).toBe('c');
  });

  it('412 when a condition fails, whatever it is', async () => {
    const url = api('/titles/kelp/placements/header');
    const put = (headers: Record<string, string>) => http(url, 'PUT', { format: 'banner' }, headers);
    expect((await put({ 'If-Match': '*' })).status).toBe(412);
    expect((await put({ 'If-None-Match': '*' })).status).toBe(201);
    expect((await put({ 'If-None-Match': '*' })).status).toBe(412);
    expect((await put({ 'If-Match': '*' })).status).toBe(200);
  });

  it('the publisher is guarded like the rest', async () => {
    const put = (domain: string, headers: Record<string, string> = {}) =>
      http(api('/publisher'), 'PUT', { name: 'Brine', domain }, headers);
    expect((await put('brine.example')).status).toBe(428);
    expect((await put('brine.example', { 'If-Match': '"v1"' })).status).toBe(412);
    const first = await put('brine.example', { 'If-None-Match': '*' });
    expect([first.status, first.headers.etag]).toEqual([200, '"v1"']);
    expect((await put('dulse.example', { 'If-None-Match': '*' })).status).toBe(412);
    expect((await put('dulse.example', { 'If-Match': '"v1"' })).headers.etag).toBe('"v2"');
    expect((await put('kelp.example', { 'If-Match': '"v1"' })).status).toBe(412);
    expect((await http(api('/publisher'))).body.domain).toBe('dulse.example');
  });
});

describe('what is answered', () => {
  it('is compressed when the caller takes that, and when it is large', async () => {
    const plain = await raw(api('/networks'), 'GET', {});
    expect(plain.headers['content-encoding']).toBeUndefined();
    const large = await raw(api('/rules'), 'GET', { 'Accept-Encoding': 'gzip' });
    expect(large.headers['content-encoding']).toBe('gzip');
    expect(large.headers.vary).toContain('Accept-Encoding');
    const whole = await raw(api('/rules'), 'GET', {});
    expect(gunzipSync(large.bytes)).toEqual(whole.bytes);
    const br = await raw(api('/rules'), 'GET', { 'Accept-Encoding': 'br' });
    expect(brotliDecompressSync(br.bytes)).toEqual(whole.bytes);
    expect(
      (await raw(api('/titles/kelp'), 'GET', { 'Accept-Encoding': 'gzip' })).headers['content-encoding'],
    ).toBe(undefined);
  });

  it('is 406 in a form that there is not', async () => {
    expect((await http(api('/titles'), 'GET', undefined, { Accept: 'image/png' })).body.code).toBe(
      'not-acceptable',
    );
    for (const accept of ['*/*', 'application/*', 'text/html, application/json;q=0.5'])
      expect((await http(api('/titles'), 'GET', undefined, { Accept: accept })).status).toBe(200);
  });

  it('comes in pages when it is long, and the pages are the list', async () => {
    for (let at = 0; at < 25; at++) await add(`title-${at}`);
    const all = (await http(api('/titles'))).body;
    const found: unknown[] = [];
    let url: string | undefined = api('/titles?limit=4');
    while (url !== undefined) {
      const { body, headers }: Answer = await http(url);
      expect(body.length).toBeLessThanOrEqual(4);
      found.push(...body);
      const next = /^<([^>]+)>; rel="next"$/.exec(String(headers.link ?? ''))?.[1];
      url = next === undefined ? undefined : `${service.url}${next}`;
    }
    expect(found).toEqual(all);
    const history = (await http(api('/titles/kelp/history'))).body;
    const { body, headers } = await http(api('/titles/kelp/history?limit=2'));
    expect(body).toEqual(history.slice(0, 2));
    expect(headers.link).toContain(`after=${history[1].revision}`);
  });
});

describe('pages', () => {
  it('are the console’s; anything else is a problem in JSON', async () => {
    for (const path of Object.values(pages)) {
      const { status, headers } = await http(`${service.url}${path.replace(/:\w+/g, 'kelp')}`);
      expect([path, status, headers['content-type']]).toEqual([path, 200, 'text/html; charset=utf-8']);
    }
    for (const path of [
      '/nothing',
      '/titles/kelp/a/b',
      '/assets/index-OLD.js',
      '/favicon.ico',
      '/api',
      '/api/v2/titles',
    ]) {
      const { status, body } = await http(`${service.url}${path}`);
      expect([path, status, body?.code]).toEqual([path, 404, 'not-found']);
    }
  });

  it('a person who mistyped one sees a page, and still 404', async () => {
    const browser = { Accept: 'text/html,application/xhtml+xml,*/*;q=0.8' };
    const { status, headers } = await http(`${service.url}/titels`, 'GET', undefined, browser);
    expect([status, headers['content-type']]).toEqual([404, 'text/html; charset=utf-8']);
    expect((await http(`${service.url}/assets/gone.js`, 'GET', undefined, browser)).body.code).toBe(
      'not-found',
    );
  });

  it('files whose names have a hash are kept for good, and the page is asked for each time', async () => {
    const asset = await http(`${service.url}/assets/index-C0FFEE.js`);
    expect(asset.headers['cache-control']).toBe('public, max-age=31536000, immutable');
    expect((await http(`${service.url}/`)).headers['cache-control']).toBe('no-cache');
  });
});

describe('events', () => {
  /** What a stream sends within a while. */
  function listen(ms: number, headers: Record<string, string> = {}): Promise<string> {
    return new Promise((resolve, reject) => {
      const call = request(api('/events'), { headers }, (response) => {
        let text = '';
        response.setEncoding('utf8').on('data', (chunk: string) => (text += chunk));
        setTimeout(() => {
          call.destroy();
          resolve(text);
        }, ms);
      });
      call.on('error', reject).end();
    });
  }
  const idsIn = (text: string) => [...text.matchAll(/^id: (.+)$/gm)].map(([, id]) => id!);

  it('have IDs, and say when to come again', async () => {
    const heard = listen(300);
    await new Promise((resolve) => setTimeout(resolve, 100));
    await add('laver');
    const text = await heard;
    expect(text).toMatch(/^retry: \d+\n\n/);
    expect(text).toContain('event: hello');
    expect(text).toMatch(/id: \S+\nevent: title\ndata: \{"kind":"title","title":"laver"\}/);
  });

  it('that were missed are told again, in order, once', async () => {
    const [seen] = idsIn(await listen(50)).slice(-1);
    await add('tangle');
    await add('oarweed');
    const text = await listen(50, { 'Last-Event-ID': seen! });
    expect([...text.matchAll(/"title":"(\w+)"/g)].map(([, id]) => id)).toEqual(['tangle', 'oarweed']);
    expect(text).not.toContain('event: reload');
    const last = idsIn(text).at(-1)!;
    expect(await listen(50, { 'Last-Event-ID': last })).not.toContain('event: title');
  });

  it.each(['of-another-run', 'deadbeef-3', '-1', ' ', 'x'.repeat(5_000)])(
    'that cannot be told again are said to be missed: %.20s',
    async (seen) => {
      expect(await listen(50, { 'Last-Event-ID': seen })).toContain('event: reload');
    },
  );
});
