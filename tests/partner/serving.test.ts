import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { readVast } from '../../src/core/formats/vast/read.js';
import { players } from '../../src/core/rehearsal/tags/choose.js';
import { playTag } from '../../src/core/rehearsal/tags/play.js';
import { resolveTag } from '../../src/core/rehearsal/tags/resolve.js';
import { testPartner, type TestPartner } from '../support/partner.js';
import { http } from '../support/service.js';
import { root } from '../support/trees.js';

const schemas = new Ajv2020({ strict: false, validateFormats: false });
schemas.addSchema(
  JSON.parse(readFileSync(join(root, 'tests/fixtures/openrtb-2.6.schema.json'), 'utf8')) as object,
  'openrtb',
);
const isValid = (what: 'response' | 'native', message: unknown) => {
  const validate = schemas.getSchema(`openrtb#/$defs/${what}`);
  expect([what, validate?.(message), validate?.errors]).toEqual([what, true, null]);
};
const xsd = join(root, 'tests/fixtures/vast-4.2.xsd');
const isVast = (text: string) =>
  expect(() =>
    execFileSync('xmllint', ['--noout', '--nonet', '--schema', xsd, '-'], { input: text, stdio: 'pipe' }),
  ).not.toThrow();

let partner: TestPartner;
const heronKey = 'heron-key-of-brine';
const tallowKey = 'tallow-key-of-brine';
const bannerId = 'CH-U-310772-SH4R7KQ2';
const appId = 'CH-A-310772-QK4T8W2N';
const tagUrl = 'https://vast.tallowfield.example/4/tf31077/a/abcd1234.xml';
const identifier = 'example.brine.kelp';
const heron = 'cobalt-heron';

beforeEach(async () => {
  partner = await testPartner({ seed: 7 });
  await partner.account(heron, heronKey, '310772');
  await partner.account('tallowfield', tallowKey, 'tf31077');
  const platform = 'android';
  await partner.control('apps', {
    network: heron,
    key: heronKey,
    platform,
    identifier,
    name: 'Kelp',
    id: appId,
    terms: true,
  });
  await partner.control('units', {
    network: heron,
    key: heronKey,
    app: appId,
    platform,
    format: 'banner',
    name: 'Shore',
    id: bannerId,
    serves: true,
  });
  await partner.control('units', {
    network: 'tallowfield',
    key: tallowKey,
    platform,
    format: 'video',
    name: 'Evening',
    id: tagUrl,
    serves: true,
  });
  await partner.control('listings', { platform, identifier, name: 'Kelp' });
  await partner.control('market', { network: heron, fill: 1 });
  await partner.control('market', { network: 'tallowfield', fill: 1 });
});
afterEach(() => partner.close());

type Json = Record<string, any>;
const request = (tagid: string, imp: Json = {}, more: Json = {}): Json => ({
  id: 'r1',
  imp: [{ id: '1', tagid, banner: { w: 320, h: 50 }, ...imp }],
  app: { bundle: identifier },
  device: { os: 'android', ifa: 'phone-1', ...(more.device as Json) },
  ...(more.regs ? { regs: more.regs } : {}),
});
const ask = (body: Json, network = heron) => http(`${partner.url}/${network}/serve/openrtb`, 'POST', body);
const assets = [
  { id: 4, required: 1, title: { len: 90 } },
  { id: 5, img: { wmin: 300, hmin: 157 } },
  { id: 6, data: { type: 2 } },
];
const bidOf = (body: Json) => body.seatbid[0].bid[0] as Json;
const reasonOf = async (body: Json) => {
  const answer = await ask(body);
  isValid('response', answer.body);
  return [answer.body.ext.reasons[0].code, answer.body.nbr] as unknown;
};
const tag = (query = '') =>
  fetch(`${partner.url}/at/vast.tallowfield.example/4/tf31077/a/abcd1234.xml${query}`);

describe('display and native ads', () => {
  it('come by OpenRTB, in messages that the standard knows', async () => {
    const banner = await ask(request(bannerId));
    isValid('response', banner.body);
    expect(bidOf(banner.body)).toMatchObject({ impid: '1', mtype: 1, w: 320, h: 50, ext: { test: false } });
    const native = await ask(
      request('CH-U-100001-NATIVE0A', { banner: undefined, native: { request: JSON.stringify({ assets }) } }),
    );
    isValid('response', native.body);
    expect(bidOf(native.body)).toMatchObject({ mtype: 4, price: 0, ext: { test: true } });
    isValid('native', JSON.parse(bidOf(native.body).adm as string));
  });

  it('have the assets that were asked for, and no bid where one is not to be had', async () => {
    const of = async (asked: object[] | string, wrapped = false) => {
      const inner =
        typeof asked === 'string'
          ? asked
          : JSON.stringify(wrapped ? { native: { assets: asked } } : { assets: asked });
      const { body } = await ask(
        request('CH-U-100001-NATIVE0A', { banner: undefined, native: { request: inner } }),
      );
      isValid('response', body);
      return body as Json;
    };
    const made = JSON.parse(
      bidOf(
        await of(
          [
            { id: 7, title: { len: 4 } },
            { id: 9, video: {} },
          ],
          true,
        ),
      ).adm as string,
    ) as Json;
    isValid('native', made);
    expect(made.native.assets).toEqual([{ id: 7, title: { text: 'Test' } }]);
    for (const [asked, code] of [
      [[{ id: 1, required: 1, video: {} }], 'asset-unknown'],
      [[], 'unreadable'],
      ['{', 'unreadable'],
      ['null', 'unreadable'],
    ] as const)
      expect([asked, (await of(asked as object[] | string)).ext.reasons[0].code]).toEqual([asked, code]);
  });

  it('are of the kinds and in the money that were asked for, or there is none', async () => {
    expect(await reasonOf(request(bannerId, { bidfloorcur: 'EUR' }))).toEqual(['currency-unknown', 0]);
    expect(await reasonOf({ ...request(bannerId), cur: ['EUR'] })).toEqual(['currency-unknown', 0]);
    const video = { banner: undefined, video: { mimes: ['video/x-odd'] }, instl: 1 };
    expect(await reasonOf(request('CH-U-100001-INTERS0A', video))).toEqual(['content-unknown', 0]);
    const answer = await ask(request('CH-U-100001-INTERS0A', { ...video, video: { mimes: ['video/mp4'] } }));
    isVast(bidOf(answer.body).adm as string);
    const test = await ask({ ...request(bannerId), test: 1 });
    expect(bidOf(test.body).ext).toEqual({ test: true });
  });

  it('answer several impressions at once, each for itself', async () => {
    const body = request(bannerId);
    body.imp.push({ id: '2', tagid: 'CH-U-310772-ZZZZ9999', banner: {} });
    const answer = (await ask(body)).body as Json;
    isValid('response', answer);
    expect([answer.seatbid[0].bid.length, answer.ext.reasons[0]]).toEqual([
      1,
      expect.objectContaining({ impid: '2', code: 'not-found' }),
    ]);
  });

  it('refuse what is no request, with the field', async () => {
    for (const [body, field] of [
      [{}, 'id'],
      [{ ...request(bannerId), imp: [] }, 'imp'],
      [{ ...request(bannerId), device: { os: 'desk' } }, 'device.os'],
    ] as const) {
      const answer = await ask(body);
      expect([answer.status, answer.body.error.field]).toEqual([400, field]);
    }
  });
});

describe('a unit that serves nothing says why', () => {
  it('where it is of another app, platform or format, or unknown', async () => {
    expect(await reasonOf(request('CH-U-310772-ZZZZ9999'))).toEqual(['not-found', 0]);
    expect(await reasonOf({ ...request(bannerId), app: { bundle: 'example.other' } })).toEqual([
      'unit-elsewhere',
      0,
    ]);
    expect(await reasonOf(request(bannerId, {}, { device: { os: 'ios' } }))).toEqual(['unit-elsewhere', 0]);
    expect(await reasonOf(request(bannerId, { instl: 1 }))).toEqual(['format-wrong', 0]);
  });

  it('where it is paused, too new, or its app is not listed', async () => {
    await partner.control('unit', { network: heron, unit: bannerId, status: 'paused' });
    expect(await reasonOf(request(bannerId))).toEqual(['unit-paused', 0]);
    const other = { network: heron, key: heronKey, platform: 'android', name: 'New' };
    await partner.control('units', { ...other, app: appId, format: 'banner', id: 'CH-U-310772-NEWW1111' });
    expect(await reasonOf(request('CH-U-310772-NEWW1111'))).toEqual(['unit-too-new', 0]);
    await partner.control('apps', { ...other, identifier: 'example.brine.dune', id: 'CH-A-310772-DUNE1111' });
    await partner.control('units', {
      ...other,
      app: 'CH-A-310772-DUNE1111',
      format: 'banner',
      id: 'CH-U-310772-DUNE1111',
      serves: true,
    });
    const dune = { ...request('CH-U-310772-DUNE1111'), app: { bundle: 'example.brine.dune' } };
    expect(await reasonOf(dune)).toEqual(['terms-open', 0]);
    await partner.control('terms', { network: heron, app: 'CH-A-310772-DUNE1111' });
    expect(await reasonOf(dune)).toEqual(['app-unlisted', 7]);
  });

  it('in a tag too: a player gets an empty document, and whoever looks closer the reason', async () => {
    await partner.control('unit', { network: 'tallowfield', unit: tagUrl, status: 'paused' });
    const answer = await tag();
    const text = await answer.text();
    isVast(text);
    expect([answer.status, answer.headers.get('ad-refused'), readVast(text).ads]).toEqual([
      200,
      `unit-paused; ${tagUrl} is paused.`,
      [],
    ]);
  });
});

describe('fill', () => {
  const prices = async (one: TestPartner, times: number, floor = 0) => {
    const found: (number | null)[] = [];
    for (let at = 0; at < times; at++) {
      const { status, body } = await http(
        `${one.url}/${heron}/serve/openrtb`,
        'POST',
        request(bannerId, { bidfloor: floor }),
      );
      found.push(status === 204 ? null : (bidOf(body).price as number));
    }
    return found;
  };

  it('repeats with the seed, is a share of what is asked for, and keeps to the floor', async () => {
    await partner.control('market', { network: heron, fill: 0.5 });
    const first = await prices(partner, 40);
    const filled = first.filter((price) => price !== null).length;
    expect(filled).toBeGreaterThan(8);
    expect(filled).toBeLessThan(32);
    await partner.control('market', { network: heron, fill: 1 });
    const above = (await prices(partner, 30, 2)).filter((price) => price !== null);
    expect(above.length).toBeLessThan(30);
    expect(Math.min(...above)).toBeGreaterThanOrEqual(2);
  });

  it('is certain for samples, which are marked as test ads', async () => {
    await partner.control('market', { network: heron, fill: 0 });
    expect((await ask(request(bannerId))).status).toBe(204);
    for (let at = 0; at < 20; at++) {
      const bid = bidOf((await ask(request('CH-U-100001-BANNER0A'))).body);
      expect([bid.ext.test, bid.price, String(bid.adm).includes('Test ad of')]).toEqual([true, 0, true]);
    }
  });
});

describe('video', () => {
  it('comes as VAST 4.2 that a schema of others takes, and a player goes through it', async () => {
    const answer = await tag();
    const text = await answer.text();
    isVast(text);
    const played = playTag(resolveTag(tagUrl, [{ url: tagUrl, text }], { limit: 5 }), {
      player: players.phone,
      actions: [],
      startsAt: 0,
      seed: 1,
    });
    const calls = played.flatMap(({ calls: each }) => each);
    expect(calls.length).toBeGreaterThanOrEqual(6);
    for (const url of calls) expect((await fetch(url)).status).toBe(200);
    for (const event of ['impression', 'start', 'midpoint', 'complete'])
      expect(await partner.control('counted', { network: 'tallowfield', unit: tagUrl, event })).toEqual({
        counted: 1,
      });
    // Told again, it counts once.
    expect(await Promise.all(calls.map(async (url) => (await fetch(url)).status))).toEqual(
      calls.map(() => 409),
    );
    const media = readVast(text).ads[0]?.linear?.media[0]?.url ?? '';
    expect((await fetch(media, { method: 'HEAD' })).headers.get('content-type')).toBe('video/mp4');
  });

  it('is a test ad for a sample, and for a registered device', async () => {
    const titles = async (path: string) =>
      readVast(await (await fetch(`${partner.url}${path}`)).text()).ads.map(({ title }) => title);
    expect(await titles('/at/vast.tallowfield.example/4/tf00001/a/samplea1.xml')).toEqual([
      'Test ad of Tallowfield',
    ]);
    const unit = encodeURIComponent(tagUrl);
    expect(await titles(`/tallowfield/serve/tag?unit=${unit}&device=desk`)).toEqual(['An ad of Tallowfield']);
    await partner.control('devices', { network: 'tallowfield', key: tallowKey, device: 'desk' });
    expect(await titles(`/tallowfield/serve/tag?unit=${unit}&device=desk`)).toEqual([
      'Test ad of Tallowfield',
    ]);
  });

  it('is unknown at an address that no network has', async () => {
    expect((await fetch(`${partner.url}/at/vast.elsewhere.example/x.xml`)).status).toBe(404);
    expect((await fetch(`${partner.url}/tallowfield/serve/tag`)).status).toBe(400);
  });
});

describe('what is told of an ad', () => {
  const clicked = async (development: 0 | 1, ifa = 'phone-1') => {
    const { body } = await ask(request(bannerId, {}, { device: { ifa, ext: { development } } }));
    const url = /ping="([^"]+)"/.exec(bidOf(body).adm as string)?.[1] ?? '';
    return (await http(url)).body as Json;
  };

  it('counts against the account where developers click what earns money, and the third click closes it', async () => {
    expect(await clicked(1)).toEqual({ counted: true, suspended: false });
    expect(await clicked(0)).toEqual({ counted: true, suspended: false });
    expect(await clicked(1)).toEqual({ counted: true, suspended: false });
    expect(await clicked(1)).toEqual({ counted: true, suspended: true });
    expect(await reasonOf(request(bannerId))).toEqual(['account-suspended', 7]);
    // Samples go on, and so do other networks.
    expect((await ask(request('CH-U-100001-BANNER0A'))).status).toBe(200);
    expect(readVast(await (await tag()).text()).ads).toHaveLength(1);
    expect(await partner.control('lift', { network: heron })).toEqual({ lifted: 1 });
    expect(bidOf((await ask(request(bannerId))).body).ext.test).toBe(false);
    expect(await clicked(1)).toEqual({ counted: true, suspended: false });
  });

  it('never counts against it on a registered device, whose ads are test ads', async () => {
    await partner.control('devices', { network: heron, key: heronKey, device: 'desk' });
    for (let at = 0; at < 5; at++)
      expect(await clicked(1, 'desk')).toEqual({ counted: false, suspended: false });
    expect((await ask(request(bannerId))).status).toBe(200);
  });

  it('is refused for ads and events that there are not', async () => {
    const at = (path: string) => fetch(`${partner.url}/${heron}/serve/track/${path}`);
    const { body } = await ask(request(bannerId));
    const id = bidOf(body).id as string;
    expect((await at(`${id}/impression`)).status).toBe(200);
    expect((await at(`${id}/impression`)).status).toBe(409);
    expect((await at(`${id}/applause`)).status).toBe(404);
    expect((await at('a999/impression')).status).toBe(404);
    expect((await at('__proto__/impression')).status).toBe(404);
    expect((await fetch(`${partner.url}/tallowfield/serve/track/${id}/click`)).status).toBe(404);
  });
});

it('answers take as long as they are told to', async () => {
  await partner.control('market', { network: heron, latency: 120 });
  const begun = performance.now();
  await ask(request(bannerId));
  expect(performance.now() - begun).toBeGreaterThan(100);
});

describe('the document of the interface', () => {
  it('names every address that is answered, with its method, and no other', async () => {
    const { body } = await http(`${partner.url}/openapi.json`);
    const documented = Object.entries(body.paths as Record<string, Json>).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method} ${path}`),
    );
    const answered = [
      ...readFileSync(join(root, 'src/partner/routes/public.ts'), 'utf8').matchAll(
        /router\.(\w+)\('([^']+)'/g,
      ),
      ...readFileSync(join(root, 'src/partner/routes/serving.ts'), 'utf8').matchAll(
        /router\.(\w+)\('([^']+)'/g,
      ),
      ...readFileSync(join(root, 'src/partner/serving/delivery.ts'), 'utf8').matchAll(
        /router\.(\w+)\('([^']+)'/g,
      ),
      ...readFileSync(join(root, 'src/partner/routes/inventory.ts'), 'utf8').matchAll(
        /router\.(\w+)\('([^']+)'/g,
      ),
    ].map(
      ([, method, path = '']) => `${method === 'all' ? 'get' : method} ${path.replace(/[:*](\w+)/g, '{$1}')}`,
    );
    const controls = documented.filter((one) => one.startsWith('post /control/'));
    expect(documented.filter((one) => !controls.includes(one)).sort()).toEqual([...new Set(answered)].sort());
    expect(controls.length).toBeGreaterThan(10);
    for (const one of controls) {
      const path = one.replace('post ', '');
      const without = await http(`${partner.url}${path}`, 'POST', {});
      expect([path, without.status]).toEqual([path, 401]);
      const wrong = await http(
        `${partner.url}${path}`,
        'POST',
        { nonsense: 1 },
        { 'Control-Token': partner.token },
      );
      expect([path, wrong.status]).toEqual([path, 400]);
    }
  });

  it('describes the bodies that are taken', async () => {
    const { body } = await http(`${partner.url}/openapi.json`);
    const schema = body.paths['/{network}/serve/openrtb'].post.requestBody.content['application/json']
      .schema as object;
    const validate = new Ajv2020({ strict: false }).compile(schema);
    expect([validate(request(bannerId)), validate({ id: '1' })]).toEqual([true, false]);
  });
});
