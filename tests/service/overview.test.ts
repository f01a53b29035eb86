import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { http, snapshotOf, testService, type TestService } from '../support/service.js';
import { androidFiles } from '../support/trees.js';

const start = new Date('2026-11-15T12:00:00Z');
let now = start;
let s: TestService;
beforeEach(async () => {
  now = start;
  s = await testService({ now: () => now });
});
afterEach(() => s.stop());

const api = (path: string) => `${s.url}/api/v1${path}`;
const unit = 'CH-U-310772-DDDD3333';
const title = (id: string, more: object = {}) => ({
  id,
  title: {
    name: `The ${id}`,
    editions: { android: { identifier: 'example.brine.kelp' } },
    networks: { 'cobalt-heron': { android: { production: { app: 'CH-A-310772-AAAA1111' } } } },
    placements: {
      page: { format: 'interstitial', units: { 'cobalt-heron': { android: { production: unit } } } },
    },
    ...more,
  },
});
const get = async (path: string) => (await http(api(path))).body;

describe('the portfolio', () => {
  it('says of each title what is wired, and in which state it is', async () => {
    await http(api('/titles'), 'POST', title('kelp'));
    await http(api('/titles'), 'POST', title('bare', { networks: {}, placements: {} }));
    expect(await get('/portfolio')).toMatchObject([
      {
        id: 'kelp',
        state: 'open',
        editions: [{ platform: 'android', summary: null }],
        networks: ['cobalt-heron'],
        placements: 1,
        cells: { agree: 0, wrong: 0, open: 4 },
      },
      { id: 'bare', state: 'empty', networks: [], placements: 0, cells: { agree: 0, wrong: 0, open: 0 } },
    ]);
    const snapshot = await snapshotOf(s.url, 'kelp', androidFiles());
    const { summary } = (await http(api(`/snapshots/${snapshot}/check`), 'POST', { title: 'kelp' })).body;
    expect((await get('/portfolio'))[0]).toMatchObject({
      state: 'wrong',
      editions: [{ platform: 'android', summary: { blocker: summary.blocker } }],
    });
  });

  it('says what changed in the last day, and who changed it', async () => {
    await http(api('/titles'), 'POST', title('kelp'), { 'Syndexa-Who': 'ana' });
    expect((await get('/portfolio'))[0].changed).toMatchObject({ fields: 1, who: ['ana'] });
    now = new Date('2026-11-17T12:00:00Z');
    expect((await get('/portfolio'))[0].changed).toBeNull();
    await http(api('/titles/kelp'), 'PATCH', { name: 'Kelp' }, { 'If-Match': '*', 'Syndexa-Who': 'bo' });
    expect((await get('/portfolio'))[0].changed).toEqual({ fields: 1, at: now.toISOString(), who: ['bo'] });
  });

  it('comes in pages', async () => {
    for (const id of ['one', 'two', 'three'])
      await http(api('/titles'), 'POST', title(id, { networks: {}, placements: {} }));
    const first = await http(api('/portfolio?limit=2'));
    expect(first.body.map(({ id }: any) => id)).toEqual(['one', 'two']);
    const [, next] = /<([^>]+)>; rel="next"/.exec(String(first.headers.link)) ?? [];
    expect((await http(`${s.url}${next}`)).body.map(({ id }: any) => id)).toEqual(['three']);
  });
});

describe('an ID', () => {
  it('is traced through the record, trees, numbers and changes', async () => {
    await http(api('/titles'), 'POST', title('kelp'), { 'Syndexa-Who': 'ana' });
    const files = androidFiles();
    const snapshot = await snapshotOf(s.url, 'kelp', {
      ...files,
      'app/src/main/java/example/brine/kelp/Ads.kt': `package example.brine.kelp\n\nval page = "${unit}"\n`,
    });
    await http(api(`/snapshots/${snapshot}/check`), 'POST', { title: 'kelp' });
    await http(
      api('/tally/imports?network=cobalt-heron'),
      'POST',
      `Day,Unit ID,Requests,Impressions,Revenue,Currency\n2026-11-10,${unit},100,50,2.50,EUR\n`,
      { 'Content-Type': 'text/csv' },
    );
    now = new Date('2026-11-16T12:00:00Z');
    const ids = { network: 'cobalt-heron', platform: 'android', stage: 'production', placement: 'page' };
    await http(api('/titles/kelp/ids'), 'PUT', { ...ids, value: null }, { 'If-Match': '*' });
    const trace = await get(`/ids?id=${unit}`);
    expect(trace).toMatchObject({
      id: unit,
      is: [{ network: 'cobalt-heron', kind: 'unit', sample: null }],
      record: [],
      builds: [
        { title: 'kelp', platform: 'android', place: { path: expect.stringMatching(/Ads\.kt$/), line: 3 } },
      ],
      earned: [
        { network: 'cobalt-heron', revenue: 2_500_000, requests: 100, impressions: 50, to: '2026-11-10' },
      ],
      changes: [
        { did: 'taken-out', at: now.toISOString() },
        { did: 'set', who: 'ana', path: 'titles.kelp' },
      ],
    });
    await http(api('/titles/kelp/ids'), 'PUT', { ...ids, value: unit }, { 'If-Match': '*' });
    expect((await get(`/ids?id=${unit}`)).record).toEqual([
      {
        title: 'kelp',
        titleName: 'The kelp',
        network: 'cobalt-heron',
        placement: 'page',
        platform: 'android',
        stage: 'production',
      },
    ]);
  });

  it('that nobody knows is told from one that a network could have given out', async () => {
    expect(await get('/ids?id=CH-U-310772-QQQQ9999')).toMatchObject({
      is: [{ networkName: 'Cobalt Heron', kind: 'unit' }],
      record: [],
      builds: [],
      changes: [],
      earned: [],
    });
    expect((await get('/ids?id=hello')).is).toEqual([]);
    expect((await http(api('/ids?id='))).status).toBe(422);
    expect((await http(api(`/ids?id=${'x'.repeat(201)}`))).status).toBe(422);
  });
});

describe('a search', () => {
  it('takes signs of patterns for what they are', async () => {
    await http(api('/titles'), 'POST', title('kelp'));
    expect((await get('/search?text=310772-D')).map(({ name }: any) => name)).toEqual([unit]);
    for (const text of ['%25', '_', '%5C', '%22', '310772%25', "'%20or%201=1"])
      expect([text, (await get(`/search?text=${text}`)).filter(({ kind }: any) => kind === 'id')]).toEqual([
        text,
        [],
      ]);
    expect(await get('/search?text=')).toEqual([]);
    expect((await http(api(`/search?text=${'x'.repeat(201)}`))).status).toBe(422);
  });
});
