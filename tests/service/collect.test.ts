import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { partnerAddresses } from '../../src/service/partners/partners.js';
import { Secrets } from '../../src/service/secrets.js';
import { chmodSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { approve, http, putPublisher, temporaryFolder, testService } from '../support/service.js';
import { partneredService, plantedKey, type PartneredService } from '../support/partner.js';

const spot = (network: string, format = 'banner') => ({ format, units: { [network]: {} } });
const newTitle = (placements: object) => ({
  id: 'kelp',
  title: {
    name: 'Kelp',
    editions: { android: { identifier: 'example.brine.kelp' }, ios: { identifier: 'example.brine.kelp' } },
    placements,
  },
});

describe('collecting from a network', () => {
  let s: PartneredService;
  beforeEach(async () => {
    s = await partneredService(['cobalt-heron', 'tallowfield']);
    await http(
      s.api('/titles'),
      'POST',
      newTitle({ 'tide-footer': spot('cobalt-heron'), film: spot('tallowfield', 'video') }),
    );
  });
  afterEach(() => s.stop());
  const collect = (body: object) =>
    http(s.api('/titles/kelp/collect'), 'POST', { network: 'cobalt-heron', ...body });
  const addUnit = (changes: object) =>
    s.partner.control('units', {
      network: 'cobalt-heron',
      key: plantedKey,
      platform: 'android',
      format: 'banner',
      name: 'x',
      serves: true,
      ...changes,
    });

  it('takes what it is sure of, and lists the rest', async () => {
    const sure = await addUnit({ name: 'kelp tide footer' });
    const low = await addUnit({ name: 'number 7', platform: 'ios' });
    const stray = await addUnit({ name: 'old splash', format: 'splash' });
    const shown = await collect({ dryRun: true });
    expect(shown.body).toMatchObject({ applied: false, units: 3, taken: 0, unmatchedCount: 1 });
    expect((await http(s.api('/networks/cobalt-heron/inventory'))).body).toBeNull();
    const { body } = await collect({ plan: shown.body.plan });
    expect(
      body.matches.map(({ unit, confidence, placement, platform }: any) => [
        unit.id,
        confidence,
        placement,
        platform,
      ]),
    ).toEqual([
      [sure.id, 'high', 'tide-footer', 'android'],
      [low.id, 'low', 'tide-footer', 'ios'],
    ]);
    expect(body.unmatched.map(({ unit }: any) => unit.id)).toEqual([stray.id]);
    const units = async () =>
      (await http(s.api('/titles/kelp'))).body.title.placements['tide-footer'].units['cobalt-heron'];
    expect(await units()).toEqual({ android: { production: sure.id } });
    await collect({ takeLow: true });
    expect(await units()).toEqual({ android: { production: sure.id }, ios: { production: low.id } });
  });

  it('tells in the check and on the board what changed at the network', async () => {
    const { id } = await addUnit({ name: 'kelp tide footer' });
    await collect({});
    const board = async () => {
      const { body } = await http(s.api('/titles/kelp/board'));
      const row = body.rows.find(({ placement }: any) => placement === 'tide-footer');
      return row.cells.find(({ platform, stage }: any) => platform === 'android' && stage === 'production')
        .record;
    };
    expect(await board()).toBe('set');
    await s.partner.control('unit', { network: 'cobalt-heron', unit: id, name: 'summer banner' });
    await collect({});
    expect((await http(s.api('/networks/cobalt-heron/inventory'))).body.knownAs).toEqual({
      [id]: 'kelp tide footer',
    });
    await collect({ acceptNames: true });
    expect((await http(s.api('/networks/cobalt-heron/inventory'))).body.knownAs).toEqual({});
    await s.partner.control('unit', { network: 'cobalt-heron', unit: id, gone: true });
    await collect({});
    expect(await board()).toBe('unknown-to-partner');
  });

  it('brings ten thousand units over a flaky line: complete, none twice, memory bounded', async () => {
    await s.partner.control('many', { network: 'cobalt-heron', key: plantedKey, count: 10_000 });
    await s.partner.control('faults', {
      network: 'cobalt-heron',
      kinds: ['error', 'cut', 'shift', 'html', 'empty', 'loop', 'odd-ids'],
      every: 5,
    });
    global.gc?.();
    const before = process.memoryUsage().heapUsed;
    const progress: string[] = [];
    const answer = await http(
      s.api('/titles/kelp/collect'),
      'POST',
      { network: 'cobalt-heron' },
      { Accept: 'text/event-stream' },
    );
    for (const match of answer.text.matchAll(/event: progress\ndata: (.*)/g)) progress.push(match[1]!);
    expect(process.memoryUsage().heapUsed - before).toBeLessThan(200 * 1024 * 1024);
    expect(answer.text).toContain('event: collect');
    expect(progress.length).toBeGreaterThan(49);
    expect(JSON.parse(progress.at(-1)!)).toMatchObject({ done: 10_000, total: 10_000 });
    await s.partner.control('faults', { network: 'cobalt-heron', kinds: [] });
    const { body } = await http(s.api('/networks/cobalt-heron/inventory'));
    const ids = body.units.map(({ id }: any) => id);
    expect([ids.length, new Set(ids).size]).toEqual([10_000, 10_000]);
  });

  it('reads a list that nobody counts until nothing new comes', async () => {
    const key = plantedKey;
    await s.partner.account('ferrowick', key);
    await putPublisher(s.api('/publisher'), {
      name: 'Brine',
      domain: 'brine.example',
      credentials: { ferrowick: { works: 'secret:PLANTED' } },
    });
    await s.partner.control('many', { network: 'ferrowick', key, app: null, count: 900 });
    await s.partner.control('faults', { network: 'ferrowick', kinds: ['shift'], every: 3, times: 2 });
    const { body } = await collect({ network: 'ferrowick' });
    expect(body.units).toBe(900);
  });

  it('reads tags that are addresses', async () => {
    const tag = await s.partner.control('units', {
      network: 'tallowfield',
      key: plantedKey,
      platform: 'ios',
      format: 'video',
      name: 'kelp film',
      serves: true,
    });
    expect(tag.id).toMatch(/^https:\/\/vast\.tallowfield\.example\/4\/tf\d{5}\/m\/[a-z0-9]{8}\.xml$/);
    const { body } = await collect({ network: 'tallowfield' });
    expect(body.matches).toMatchObject([{ placement: 'film', platform: 'ios', confidence: 'high' }]);
  });

  it.each<[string, object, number, string]>([
    ['a web page', { table: '<html>' }, 422, 'This is a web page, not a table.'],
    ['wrong columns', { table: 'a,b\n1,2\n' }, 422, 'The table has no column'],
    [
      'rows of another network',
      { table: 'Unit ID,Unit name,Format\nmrl-TIDE-4820116,x,banner\n' },
      422,
      'No row is valid. Line 2',
    ],
    ['a network that nobody knows', { network: 'nowhere' }, 404, 'There is no profile'],
    ['a network without its key', { network: 'marlstone' }, 422, 'The roster does not say which secret'],
    [
      'a plan that is another one by now',
      { table: 'Unit ID,Unit name,Format\n', plan: 'x' },
      409,
      'The list has changed.',
    ],
  ])('refuses %s, and writes nothing', async (_, body, status, detail) => {
    const before = (await http(s.api('/roster'))).body;
    const answer = await collect(body);
    expect([answer.status, answer.body.detail]).toEqual([status, expect.stringContaining(detail)]);
    expect((await http(s.api('/roster'))).body).toEqual(before);
    expect((await http(s.api('/networks/cobalt-heron/inventory'))).body).toBeNull();
  });

  it('takes a table, and keeps what it knew of apps', async () => {
    await s.partner.ask('cobalt-heron', plantedKey, '/apps', 'POST', {
      platform: 'android',
      identifier: 'example.brine.kelp',
      name: 'Kelp',
      audience: 'general',
    });
    await collect({});
    const { body } = await collect({
      table:
        '\uFEFFUnit ID;Unit name;Format;Platform\r\nCH-U-204418-P4N7C2VJ;tide footer;banner;iOS\r\nnonsense;x;banner;iOS\r\n',
    });
    expect(body).toMatchObject({ source: 'csv', units: 1, taken: 1, oddCount: 1, odd: [{ row: 3 }] });
    const { body: known } = await http(s.api('/networks/cobalt-heron/inventory'));
    expect([known.source, known.apps.length, known.units.length]).toEqual(['csv', 1, 1]);
  });
});

describe('a partner that is none', () => {
  let server: Server;
  const listening = async (listener: RequestListener) => {
    server = createServer(listener);
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  };
  afterEach(() => {
    server.close();
    server.closeAllConnections();
  });
  const json =
    (value: unknown): RequestListener =>
    (request, response) => {
      response.setHeader('Content-Type', 'application/json');
      response.end(JSON.stringify(request.url?.includes('/apps') ? { apps: [], total: 0 } : value));
    };
  const unit = (id: string) => ({ id, name: 'x', format: 'banner', platform: 'android' });
  let pages = 0;

  it.each<[string, RequestListener, string, string]>([
    [
      'a web page',
      (_request, response) => response.end('<!doctype html><h1>Sign in</h1>'),
      'partner-odd',
      'a web page instead of JSON',
    ],
    ['an empty page', (_request, response) => response.end(), 'partner-odd', 'with an empty page'],
    ['no list', json({ things: [] }), 'partner-odd', 'its answer has no list “units”'],
    [
      'a loop of pages',
      json({ units: [unit('CH-U-204418-P4N7C2VJ')], next: 'again' }),
      'partner-odd',
      'form a loop',
    ],
    [
      'IDs of another network',
      json({ units: [unit('mrl-TIDE-4820116')], total: 1 }),
      'partner-odd',
      'None of the 1 units that Cobalt Heron lists makes sense',
    ],
    [
      'another page each time',
      (request, response) =>
        json({ units: [unit(`CH-U-204418-${String(pages++).padStart(8, '0')}`)], total: 9 })(
          request,
          response,
        ),
      'partner-odd',
      'kept changing while it was read',
    ],
    [
      'a way to another place',
      (_request, response) => response.writeHead(302, { Location: 'http://elsewhere.example/' }).end(),
      'partner-unreachable',
      'was asked 2 times',
    ],
    [
      'a refusal',
      (_request, response) => response.writeHead(401).end('{"error":{"message":"no"}}'),
      'partner-refused',
      'does not take secret:K',
    ],
    [
      'errors only',
      (_request, response) => response.writeHead(503, { 'Retry-After': '0' }).end(),
      'partner-unreachable',
      'it asks to wait (503)',
    ],
    [
      'half an answer',
      (_request, response) => (
        response.writeHead(200, { 'Content-Length': '900' }),
        response.write('{"units"'),
        response.destroy()
      ),
      'partner-unreachable',
      'was asked 2 times',
    ],
  ])('answers with %s', async (_, listener, code, detail) => {
    const address = await listening(listener);
    const home = temporaryFolder();
    approve(home, 'K1', address);
    const service = await testService({
      home,
      env: { SYNDEXA_PARTNERS: `cobalt-heron=${address}`, SYNDEXA_SECRET_K1: 'some-key' },
      partnerLimits: { timeout: 2_000, tries: 2, pause: 1 },
    });
    const api = (path: string) => `${service.url}/api/v1${path}`;
    await putPublisher(api('/publisher'), {
      name: 'Brine',
      domain: 'brine.example',
      credentials: { 'cobalt-heron': { inventory: 'secret:K1' } },
    });
    await http(api('/titles'), 'POST', newTitle({ footer: spot('cobalt-heron') }));
    const before = (await http(api('/roster'))).body;
    const { body } = await http(api('/titles/kelp/collect'), 'POST', { network: 'cobalt-heron' });
    expect([body.code, body.detail]).toEqual([code, expect.stringContaining(detail)]);
    expect(body.fix.length).toBeGreaterThan(10);
    expect((await http(api('/roster'))).body).toEqual(before);
    expect((await http(api('/networks/cobalt-heron/inventory'))).body).toBeNull();
    await service.stop();
  });
});

describe('addresses and secrets of the service', () => {
  it('come from whoever starts it', () => {
    const { all, each } = partnerAddresses(
      ' http://127.0.0.1:4871/ , marlstone=https://console.marlstone.example/x/',
    );
    expect([all, [...each]]).toEqual([
      'http://127.0.0.1:4871',
      [['marlstone', 'https://console.marlstone.example/x']],
    ]);
    expect(partnerAddresses(undefined)).toEqual({ all: null, each: new Map() });
    expect(() => partnerAddresses('file:///etc/passwd')).toThrow('is not an address');
  });

  it('are read from the environment, or a file that only its owner reads', () => {
    const home = temporaryFolder();
    mkdirSync(home, { recursive: true });
    const file = join(home, 'secrets');
    writeFileSync(file, '# keys\nONE = first \nTWO=second\n', { mode: 0o600 });
    const secrets = new Secrets(home, { SYNDEXA_SECRET_TWO: 'other', PATH: '/bin' });
    expect([secrets.get('secret:ONE').reveal(), secrets.get('secret:TWO').reveal()]).toEqual([
      'first',
      'other',
    ]);
    expect([secrets.find('secret:PATH'), secrets.find('secret:THREE')]).toEqual([undefined, undefined]);
    const one = secrets.get('secret:ONE');
    expect(`${one} ${JSON.stringify({ one })}`).not.toContain('first');
    expect(one.fingerprint).toMatch(/^[0-9a-f]{8}$/);
    chmodSync(file, 0o644);
    expect(() => secrets.get('secret:ONE')).toThrow('can be read by others');
    rmSync(home, { recursive: true });
  });
});
