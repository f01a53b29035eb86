import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { includesRole, roleNames, type Role } from '../../src/api/roles.js';
import { routes, type RouteSpec } from '../../src/api/routes.js';
import { openHome } from '../../src/disk/home/home-folder.js';
import { openTokens } from '../../src/service/access/open-tokens.js';
import { NoTokensError } from '../../src/service/boot.js';
import { http, temporaryFolder, testService, type TestService } from '../support/service.js';

let home: string;
let service: TestService;
let clock = Date.now();
const later = (milliseconds: number) => (clock += milliseconds);
const token = new Map<string, string>();

function addTokens(): void {
  const { tokens, close } = openTokens(home);
  for (const role of roleNames) token.set(role, tokens.add(`the-${role}`, role)!);
  token.set('revoked', tokens.add('gone', 'admin')!);
  tokens.revoke('gone');
  close();
}

const bearer = (value: string | undefined): Record<string, string> =>
  value === undefined ? {} : { Authorization: `Bearer ${value}` };
const api = (path: string) => `${service.url}/api/v1${path}`;

describe('a service that asks for tokens', () => {
  beforeAll(async () => {
    home = temporaryFolder();
    addTokens();
    service = await testService({ home, listen: '0.0.0.0', roots: [home], now: () => new Date(clock) });
  });
  afterAll(() => service.stop());

  const calls = Object.entries<RouteSpec>(routes).filter(([, { role }]) => role !== null);
  const ask = ({ method, path }: RouteSpec, who: string | undefined) =>
    http(
      api(path.replace(/\{\w+\}/g, 'nothing')),
      method.toUpperCase(),
      method === 'get' || method === 'delete' ? undefined : {},
      bearer(who === undefined ? undefined : token.get(who)),
    );

  it.each(calls)('answers %s to those who may, and to nobody else', async (_, spec) => {
    for (const nobody of [undefined, 'revoked']) {
      later(120_000);
      const { status, body, headers } = await ask(spec, nobody);
      expect([status, body.code]).toEqual([401, 'unauthenticated']);
      expect(headers['www-authenticate']).toContain('Bearer');
    }
    for (const role of roleNames) {
      const { status, body } = await ask(spec, role);
      const may = includesRole(role, spec.role as Role);
      expect(body?.code === 'forbidden' && body.detail.includes('this needs')).toBe(!may);
      if (!may) expect(status).toBe(403);
      expect(status).toBeLessThan(500);
    }
  });

  it('hides what is not for everybody, and says that it is there', async () => {
    expect((await http(`${service.url}/healthz`)).body).toMatchObject({ service: 'syndexa', roots: [] });
    for (const path of ['/metrics', '/api/v1/openapi.json', '/api/v1/events', '/api/v1/schemas/board'])
      expect((await http(service.url + path)).status).toBe(401);
    expect((await http(`${service.url}/metrics`, 'GET', undefined, bearer(token.get('viewer')))).status).toBe(
      200,
    );
  });

  it('reads no body before it knows who sends it', async () => {
    const { status } = await http(api('/blobs'), 'POST', 'x'.repeat(1_000_000));
    expect(status).toBe(401);
  });

  it('names in the history whose token it was, whatever a header says', async () => {
    await http(
      api('/titles'),
      'POST',
      { id: 'kelp', title: { name: 'Kelp', editions: { android: { identifier: 'example.kelp' } } } },
      { ...bearer(token.get('editor')), 'Syndexa-Who': 'somebody else' },
    );
    const { body } = await http(api('/titles/kelp/history'), 'GET', undefined, bearer(token.get('viewer')));
    expect(body.map(({ who }: any) => who)).toEqual(['the-editor']);
  });

  it('signs a browser in with a cookie that scripts and other sites cannot use', async () => {
    const wrong = await http(api('/session'), 'POST', { token: 'sxt-wrong' });
    expect(wrong.status).toBe(401);
    const signed = await http(api('/session'), 'POST', { token: token.get('editor') });
    expect(signed.body).toEqual({ who: 'the-editor', role: 'editor', required: true });
    const cookie = String(signed.headers['set-cookie']);
    expect(cookie).toMatch(/^syndexa_session=[\w-]{43}; Path=\/; HttpOnly; SameSite=Strict; Max-Age=43200$/);
    expect(cookie).not.toContain(token.get('editor'));
    const session = { Cookie: cookie.split(';')[0]! };
    expect((await http(api('/titles'), 'GET', undefined, session)).status).toBe(200);
    expect((await http(api('/networks'), 'POST', {}, session)).status).toBe(403);
    await http(api('/session'), 'DELETE', undefined, session);
    expect((await http(api('/titles'), 'GET', undefined, session)).status).toBe(401);
  });

  it('ends a session with its token', async () => {
    const { tokens, close } = openTokens(home);
    const made = tokens.add('short', 'viewer')!;
    const signed = await http(api('/session'), 'POST', { token: made });
    const session = { Cookie: String(signed.headers['set-cookie']).split(';')[0]! };
    expect((await http(api('/session'), 'GET', undefined, session)).body.who).toBe('short');
    tokens.revoke('short');
    expect((await http(api('/session'), 'GET', undefined, session)).status).toBe(401);
    tokens.add('short', 'admin');
    expect((await http(api('/session'), 'GET', undefined, session)).status).toBe(401);
    expect((await http(api('/titles'), 'GET', undefined, bearer(made))).status).toBe(401);
    close();
  });

  it('lists tokens with their last use, and keeps none of them', () => {
    const { tokens, close } = openTokens(home);
    const viewer = tokens.list().find(({ name }) => name === 'the-viewer');
    expect(viewer).toMatchObject({ role: 'viewer', revokedAt: null });
    expect(Date.parse(viewer!.lastUsedAt!)).toBeGreaterThan(0);
    close();
    for (const name of readdirSync(home).filter((each) => each.startsWith('syndexa.sqlite')))
      for (const value of token.values()) expect(readFileSync(join(home, name)).includes(value)).toBe(false);
  });

  it('lets an address guess ten times a minute, and does not lock out whoever gave nothing', async () => {
    const guess = () => http(api('/titles'), 'GET', undefined, bearer('sxt-guess'));
    later(120_000);
    const statuses = [];
    for (let at = 0; at < 12; at++) statuses.push((await guess()).status);
    expect(statuses).toEqual([...Array.from({ length: 10 }, () => 401), 429, 429]);
    const limited = await http(api('/session'), 'POST', { token: token.get('admin') });
    expect([limited.status, Number(limited.headers['retry-after'])]).toEqual([429, 60]);
    expect((await http(api('/session'))).status).toBe(401);
    later(61_000);
    expect((await http(api('/titles'), 'GET', undefined, bearer(token.get('viewer')))).status).toBe(200);
  });

  it('answers to its own names and origins only', async () => {
    const host = (name: string, origin?: string) =>
      http(`${service.url}/healthz`, 'GET', undefined, { Host: name, ...(origin ? { Origin: origin } : {}) });
    expect((await host('evil.example')).status).toBe(403);
    expect((await host('127.0.0.1', 'http://evil.example')).status).toBe(403);
    expect((await host('127.0.0.1', 'http://127.0.0.1.evil.example')).status).toBe(403);
    expect((await host('127.0.0.1', 'http://127.0.0.1')).status).toBe(200);
  });
});

describe('starting', () => {
  beforeEach(() => {
    home = temporaryFolder();
  });
  afterEach(() => rmSync(home, { recursive: true, force: true }));

  it('refuses to listen elsewhere, or to ask for tokens, when there are none', async () => {
    for (const options of [{ listen: '0.0.0.0' }, { requireToken: true }])
      await expect(testService({ home, ...options })).rejects.toThrow(NoTokensError);
    addTokens();
    const open = await testService({ home, requireToken: true });
    expect((await http(`${open.url}/api/v1/titles`)).status).toBe(401);
    await open.close();
  });

  it('leaves loopback open as it is', async () => {
    addTokens();
    const open = await testService({ home });
    expect((await http(`${open.url}/api/v1/titles`)).status).toBe(200);
    expect((await http(`${open.url}/api/v1/session`)).body).toEqual({
      who: 'this machine',
      role: 'admin',
      required: false,
    });
    await open.close();
  });

  it('answers to a proxy’s name, and counts callers as the proxy names them', async () => {
    addTokens();
    const proxied = await testService({
      home,
      listen: '0.0.0.0',
      hostNames: ['syndexa.saltmarsh.example'],
      behindProxy: true,
    });
    const ask = (from: string, value?: string) =>
      http(`${proxied.url}/api/v1/titles`, 'GET', undefined, {
        Host: 'syndexa.saltmarsh.example',
        Origin: 'https://syndexa.saltmarsh.example',
        'X-Forwarded-For': from,
        ...bearer(value),
      });
    for (let at = 0; at < 11; at++) await ask('10.1.1.1', 'sxt-guess');
    expect((await ask('10.1.1.1', token.get('viewer'))).status).toBe(429);
    expect((await ask('10.1.1.2', token.get('viewer'))).status).toBe(200);
    await proxied.close();
  });
});

describe('the data folder', () => {
  beforeEach(() => {
    home = join(temporaryFolder(), 'home');
  });
  afterEach(() => rmSync(join(home, '..'), { recursive: true, force: true }));
  const mode = (path: string) => (statSync(path).mode & 0o777).toString(8);

  it('is for its owner alone, and so is all that is secret in it', async () => {
    const running = await testService({ home, announce: true });
    expect(mode(home)).toBe('700');
    for (const name of readdirSync(home).filter((each) => /sqlite|json/.test(each)))
      expect([name, mode(join(home, name))]).toEqual([name, '600']);
    expect(existsSync(join(home, 'service.json'))).toBe(true);
    await running.close();
  });

  it('is narrowed where it was wider, and that is reported', () => {
    mkdirSync(home, { mode: 0o755 });
    chmodSync(home, 0o755);
    for (const name of ['syndexa.sqlite', 'secrets', 'notes.txt']) {
      writeFileSync(join(home, name), '');
      chmodSync(join(home, name), 0o644);
    }
    expect(openHome(home)).toEqual([
      `${home} could be read by others (mode 755); its mode is 700 now.`,
      `${join(home, 'secrets')} could be read by others (mode 644); its mode is 600 now.`,
      `${join(home, 'syndexa.sqlite')} could be read by others (mode 644); its mode is 600 now.`,
    ]);
    expect(openHome(home)).toEqual([]);
    expect(mode(join(home, 'notes.txt'))).toBe('644');
  });

  it('is not closed to others who share it', () => {
    mkdirSync(home);
    chmodSync(home, 0o1777);
    expect(openHome(home)).toEqual([
      `${home} can be read by others (mode 1777). Choose a data folder of your own.`,
    ]);
    expect((statSync(home).mode & 0o7777).toString(8)).toBe('1777');
  });
});
