import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { PartnerClock } from '../../src/partner/clock.js';
import { Faults } from '../../src/partner/faults.js';
import { seeded } from '../../src/core/text/seeded.js';
import { http } from '../support/service.js';
import { testPartner, type TestPartner } from '../support/partner.js';
import { profileOf, profiles } from '../support/trees.js';

let partner: TestPartner;
const key = 'a-key-of-some-length';
beforeEach(async () => {
  partner = await testPartner({ seed: 42 });
  for (const { id } of profiles) await partner.account(id, key, id === 'cobalt-heron' ? '204418' : undefined);
});
afterEach(() => partner.close());

const heron = (path: string, method = 'GET', body?: unknown, headers = {}) =>
  partner.ask('cobalt-heron', key, path, method, body, headers);
const kelp = { platform: 'android', identifier: 'example.brine.kelp', name: 'Kelp', audience: 'general' };
const addApp = async (changes = {}) => (await heron('/apps', 'POST', { ...kelp, ...changes })).body;
const banner = (app: string, changes = {}) => ({
  name: 'footer',
  format: 'banner',
  platform: 'android',
  app,
  refresh: '60s',
  content: ['image'],
  ...changes,
});

describe('a network company', () => {
  it('gives out apps and units in the shape of its profile, in its own words', async () => {
    const app = await addApp();
    expect(app).toMatchObject({ ...kelp, store: 'not listed', terms: false });
    expect(app.id).toMatch(/^CH-A-204418-[A-Z0-9]{8}$/);
    const unit = await heron(
      '/units',
      'POST',
      banner(app.id, { format: 'reward', refresh: undefined, reward_amount: 2, reward_item: 'coins' }),
    );
    expect(unit.status).toBe(201);
    expect(unit.body).toMatchObject({
      format: 'reward',
      status: 'serving',
      reward_item: 'coins',
      app: app.id,
    });
    expect((await heron('/units')).body).toEqual({ units: [unit.body], total: 1 });
  });

  it('stands for every profile', async () => {
    for (const profile of profiles) {
      const { units, apps } = profile.inventory!.http!;
      const listed = await partner.ask(profile.id, key, units.path);
      expect(listed.body[units.items]).toEqual([]);
      if (apps) expect((await partner.ask(profile.id, key, apps.path)).body[apps.items]).toEqual([]);
      expect((await http(`${partner.url}/${profile.id}`)).text).toContain(profile.name);
    }
  });

  it('is the same again with the same seed', async () => {
    const again = await testPartner({ seed: 42 });
    for (const { id } of profiles) await again.account(id, key, id === 'cobalt-heron' ? '204418' : undefined);
    const [one, other] = [await addApp(), (await again.ask('cobalt-heron', key, '/apps', 'POST', kelp)).body];
    expect(one.id).toBe(other.id);
    await again.close();
    const draws = (seed: number) => Array.from({ length: 5 }, seeded(seed).bind(null, 1000));
    expect(draws(1)).toEqual(draws(1));
    expect(draws(1)).not.toEqual(draws(2));
  });

  it.each([
    ['without a key', {}, 'key-missing'],
    ['with a wrong key', { Authorization: 'Bearer nobody-has-this' }, 'key-unknown'],
    ['with a key without its prefix', { Authorization: key }, 'key-missing'],
  ])('answers nobody %s', async (_, headers, code) => {
    const answer = await http(`${partner.url}/cobalt-heron/units`, 'GET', undefined, headers);
    expect([answer.status, answer.body.error.code]).toEqual([401, code]);
  });

  it('keeps accounts apart', async () => {
    await partner.account('cobalt-heron', 'another-key-entirely', '310772');
    const app = await addApp();
    expect((await partner.ask('cobalt-heron', 'another-key-entirely', '/apps')).body.apps).toEqual([]);
    const stolen = await partner.ask('cobalt-heron', 'another-key-entirely', '/apps', 'POST', kelp);
    expect([stolen.status, stolen.body.error]).toEqual([
      409,
      expect.objectContaining({ code: 'identifier-held', field: 'identifier' }),
    ]);
    const foreign = await partner.ask(
      'cobalt-heron',
      'another-key-entirely',
      '/units',
      'POST',
      banner(app.id),
    );
    expect(foreign.body.error.code).toBe('app-unknown');
    expect((await heron('/apps', 'POST', kelp)).body.error.code).toBe('identifier-taken');
  });

  it.each<[string, Record<string, unknown>, string, string | undefined]>([
    ['no content kind', { content: [] }, 'content-missing', 'content'],
    [
      'a content kind that it does not show',
      { format: 'opening', refresh: undefined, content: ['video'] },
      'content-unknown',
      undefined,
    ],
    ['a refresh time below its bounds', { refresh: '5s' }, 'refresh-out-of-bounds', undefined],
    ['a refresh time above its bounds', { refresh: '10m' }, 'refresh-out-of-bounds', undefined],
    ['no refresh time at all', { refresh: undefined }, 'refresh-out-of-bounds', 'refresh'],
    [
      'a rewarded unit without a reward',
      { format: 'reward', refresh: undefined },
      'reward-missing',
      'reward_item',
    ],
    [
      'a rewarded unit that can be skipped',
      { format: 'reward', refresh: undefined, reward_amount: 1, reward_item: 'x', skippable: true },
      'setting-refused',
      undefined,
    ],
    ['a format that nobody knows', { format: 'hologram' }, 'format-unknown', 'format'],
    ['no name', { name: ' ' }, 'name-missing', 'name'],
    ['the other platform than its app', { platform: 'ios' }, 'platform-unknown', 'platform'],
  ])('refuses %s', async (_, changes, code, field) => {
    const { id } = await addApp();
    const answer = await heron('/units', 'POST', banner(id, changes));
    expect(answer.status).toBe(422);
    expect(answer.body.error.code).toBe(code);
    if (field !== undefined) expect(answer.body.error.field).toBe(field);
    expect((await heron('/units')).body.total).toBe(0);
  });

  it.each(['managed', 'off', '30s', '120s'])('takes the refresh %s', async (refresh) => {
    const { id } = await addApp();
    expect((await heron('/units', 'POST', banner(id, { refresh }))).body).toMatchObject({ refresh });
  });

  it('changes what a unit is set to, and refuses what it would refuse of a new one', async () => {
    const { id } = await addApp();
    const { body: unit } = await heron('/units', 'POST', banner(id));
    expect((await heron(`/units/${unit.id}`, 'PATCH', { refresh: '90s' })).body).toMatchObject({
      refresh: '90s',
      content: ['image'],
    });
    expect((await heron(`/units/${unit.id}`, 'PATCH', { refresh: '1s' })).body.error.code).toBe(
      'refresh-out-of-bounds',
    );
    expect((await heron('/units/CH-U-204418-NOBODY00', 'PATCH', { refresh: '90s' })).status).toBe(404);
  });

  it('gives its list in pages, each unit once', async () => {
    const { id } = await addApp();
    await partner.control('many', { network: 'cobalt-heron', key, app: id, count: 45 });
    const seen: string[] = [];
    let next: string | undefined;
    do {
      const { body } = await heron(`/units?limit=20${next ? `&after=${next}` : ''}`);
      expect(body.total).toBe(45);
      seen.push(...body.units.map((unit: { id: string }) => unit.id));
      next = body.next;
    } while (next);
    expect(new Set(seen).size).toBe(45);
    expect(seen).toHaveLength(45);
    expect((await heron('/units?limit=99999')).body.units).toHaveLength(45);
    expect((await heron('/units?limit=-1&after=%00')).status).toBe(200);
  });

  it('does nothing twice for one idempotency key', async () => {
    const once = { 'Idempotency-Key': 'wish-1' };
    const [first, second] = [
      await heron('/apps', 'POST', kelp, once),
      await heron('/apps', 'POST', kelp, once),
    ];
    expect(second.body).toEqual(first.body);
    expect((await heron('/apps')).body.apps).toHaveLength(1);
    const reused = await heron('/apps', 'POST', { ...kelp, name: 'Other' }, once);
    expect([reused.status, reused.body.error.code]).toEqual([409, 'key-reused']);
  });

  it('asks those to wait who ask too often', async () => {
    const strict = await testPartner({ rate: { limit: 2, seconds: 30 } });
    await strict.account('cobalt-heron', key);
    const statuses = [];
    for (let at = 0; at < 3; at++) statuses.push((await strict.ask('cobalt-heron', key, '/units')).status);
    expect(statuses).toEqual([200, 200, 429]);
    const refused = await strict.ask('cobalt-heron', key, '/units');
    expect(Number(refused.headers['retry-after'])).toBeGreaterThan(0);
    await strict.close();
  });
});

describe('a new unit', () => {
  const ad = async (unit: string) => {
    const { body } = await http(`${partner.url}/cobalt-heron/serve/openrtb`, 'POST', {
      id: '1',
      imp: [{ id: '1', tagid: unit, banner: {} }],
      app: { bundle: 'example.brine.kelp' },
      device: { os: 'android' },
    });
    return (body.ext?.reasons[0] ?? body.seatbid[0].bid[0].ext) as Record<string, unknown>;
  };
  it('serves nothing until its time has come, and says so', async () => {
    await partner.control('market', { network: 'cobalt-heron', fill: 1 });
    const { id } = await addApp();
    await partner.control('listings', {
      platform: 'android',
      identifier: 'example.brine.kelp',
      name: 'Kelp',
    });
    const { body: unit } = await heron('/units', 'POST', banner(id));
    expect(await ad(unit.id)).toMatchObject({ code: 'terms-open', app: id });
    await partner.control('terms', { network: 'cobalt-heron', app: id });
    await partner.control('clock', { now: unit.serves_from, stands: true });
    await partner.control('clock', { advance: -600 });
    expect(await ad(unit.id)).toMatchObject({
      code: 'unit-too-new',
      seconds_left: 600,
      serves_from: unit.serves_from,
    });
    await partner.control('clock', { advance: 600 });
    expect(await ad(unit.id)).toEqual({ test: false });
    await partner.control('unit', { network: 'cobalt-heron', unit: unit.id, status: 'paused' });
    expect(await ad(unit.id)).toMatchObject({ code: 'unit-paused' });
    await partner.control('unit', { network: 'cobalt-heron', unit: unit.id, gone: true });
    expect(await ad(unit.id)).toMatchObject({ code: 'not-found' });
  });
  it('is not needed for a sample', async () => {
    expect(await ad('CH-U-100001-BANNER0A')).toEqual({ test: true });
  });
});

describe('the pages and the control calls', () => {
  it('accept terms as a person does, not as another page does', async () => {
    const { id } = await addApp();
    const page = `${partner.url}/cobalt-heron`;
    expect((await http(page)).text).toContain('Accept the terms');
    const forged = await http(`${page}/terms/${id}`, 'POST', undefined, {
      Origin: 'http://elsewhere.example',
    });
    expect(forged.status).toBe(401);
    expect((await http(`${page}/terms/${id}`, 'POST', undefined, { Origin: partner.url })).status).toBe(303);
    expect((await heron('/apps')).body.apps[0].terms).toBe(true);
  });
  it('put names into pages as text', async () => {
    await addApp({ name: '<script>alert(1)</script>' });
    expect((await http(`${partner.url}/cobalt-heron`)).text).not.toContain('<script>');
  });
  it.each([
    ['without the token', {}, { network: 'cobalt-heron', name: 'x' }, 401],
    ['with another token', { 'Control-Token': 'x' }, { network: 'cobalt-heron', name: 'x' }, 401],
  ])('are refused %s', async (_, headers, body, status) => {
    expect((await http(`${partner.url}/control/accounts`, 'POST', body, headers)).status).toBe(status);
  });
  it('name what is wrong', async () => {
    await expect(partner.control('accounts', { network: 'nowhere', name: 'x' })).rejects.toThrow(
      'There is no network nowhere here',
    );
    await expect(partner.control('clock', { now: 'tomorrow' })).rejects.toThrow('now');
    await expect(
      partner.control('sites', { domain: 'x', address: 'http://elsewhere.example' }),
    ).rejects.toThrow('address');
  });
  it('answer this machine only', async () => {
    expect((await http(`${partner.url}/healthz`, 'GET', undefined, { Host: 'syndexa.example' })).status).toBe(
      401,
    );
    expect((await http(`${partner.url}/nothing/here`)).status).toBe(404);
    expect(
      (
        await http(`${partner.url}/cobalt-heron/apps`, 'POST', '{broken', {
          Authorization: `Bearer ${key}`,
          'Content-Type': 'application/json',
        })
      ).status,
    ).toBe(400);
  });
});

describe('the store and the crawler', () => {
  it('say what is listed, and what the developer site names', async () => {
    const text = { now: 'cobaltheron.example, 204418, DIRECT, c0ba17he\n' };
    const site = createServer((_request, response) => response.end(text.now));
    await new Promise<void>((resolve) => site.listen(0, '127.0.0.1', resolve));
    const address = `http://127.0.0.1:${(site.address() as AddressInfo).port}`;
    const crawl = async () =>
      (await http(`${partner.url}/cobalt-heron/crawl`, 'POST')).body.apps.map(
        (one: { state: string }) => one.state,
      );
    const lookUp = async () => (await http(`${partner.url}/store/android/example.brine.kelp`)).body;
    await addApp();
    expect(await lookUp()).toEqual({ listed: false, platform: 'android', identifier: 'example.brine.kelp' });
    expect(await crawl()).toEqual(['not-listed']);
    await partner.control('listings', {
      platform: 'android',
      identifier: 'example.brine.kelp',
      name: 'Kelp',
      site: 'brine.example',
    });
    expect(await lookUp()).toMatchObject({ listed: true, name: 'Kelp', site: 'brine.example' });
    expect(await crawl()).toEqual(['no-site']);
    await partner.control('sites', { domain: 'brine.example', address });
    expect(await crawl()).toEqual(['authorised']);
    text.now = 'cobaltheron.example, 999999, DIRECT\n';
    expect(await crawl()).toEqual(['not-named']);
    site.close();
    site.closeAllConnections();
    expect(await crawl()).toEqual(['no-file']);
    expect((await heron('/apps')).body.apps[0].store).toBe('listed');
  });
});

describe('clock and faults', () => {
  it('the clock runs on from where it was set, or stands', () => {
    let machine = 1_000_000;
    const clock = new PartnerClock(() => machine);
    clock.set(new Date('2026-06-01T12:00:00Z'), false);
    machine += 5_000;
    expect(clock.now().toISOString()).toBe('2026-06-01T12:00:05.000Z');
    clock.set(new Date('2026-06-01T12:00:00Z'), true);
    machine += 5_000;
    clock.advance(60);
    expect(clock.now().toISOString()).toBe('2026-06-01T12:01:00.000Z');
  });
  it('faults come in turn, every so many calls, so many times', () => {
    const faults = new Faults();
    faults.set({ network: 'n', kinds: ['error', 'cut'], every: 2, times: 3, method: 'GET' });
    const met = (count: number) => Array.from({ length: count }, () => faults.next('n', 'GET') ?? '-');
    expect(met(8)).toEqual(['-', 'error', '-', 'cut', '-', 'error', '-', '-']);
    expect(faults.next('n', 'POST')).toBeUndefined();
    faults.set({ network: 'n', kinds: [], every: 1, times: 1, method: 'any' });
    expect(met(2)).toEqual(['-', '-']);
  });
  it('a network without app IDs numbers its apps', async () => {
    const made = await partner.ask('ferrowick', key, '/properties', 'POST', {
      platform_code: '1',
      app_identifier: 'example.brine.kelp',
      label: 'Kelp',
    });
    expect(made.body.property).toMatch(/^app-\d+$/);
    expect(profileOf('ferrowick').ids.app).toBeUndefined();
  });
});
