import fc from 'fast-check';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { dayText, readDay } from '../../src/core/tally/days.js';
import { partneredService, plantedKey, type PartneredService } from '../support/partner.js';
import { http, snapshotOf, testService, type TestService } from '../support/service.js';
import { androidFiles } from '../support/trees.js';

const now = () => new Date('2026-11-15T12:00:00Z');
const unit = 'CH-U-310772-DDDD3333';
const iosUnit = 'CH-U-310772-EEEE4444';
const title = {
  id: 'kelp',
  title: {
    name: 'Kelp',
    editions: { android: { identifier: 'example.brine.kelp' }, ios: { identifier: 'example.brine.kelp' } },
    networks: {
      'cobalt-heron': {
        android: { production: { app: 'CH-A-310772-AAAA1111' } },
        ios: { production: { app: 'CH-I-310772-BBBB2222' } },
      },
    },
    placements: {
      page: {
        format: 'interstitial',
        units: { 'cobalt-heron': { android: { production: unit }, ios: { production: iosUnit } } },
      },
    },
  },
};
const head = 'Day,Unit ID,Requests,Matched,Impressions,Clicks,Revenue,Currency';
const row = (day: string, id = unit, revenue = '2.50', impressions = 50) =>
  `${day},${id},100,80,${impressions},2,${revenue},EUR`;

describe('tables of daily numbers', () => {
  let s: TestService;
  const api = (path: string) => `${s.url}/api/v1${path}`;
  beforeEach(async () => {
    s = await testService({ now });
    await http(api('/titles'), 'POST', title);
  });
  afterEach(() => s.stop());
  const send = (table: string, query = '', headers = {}) =>
    http(api(`/tally/imports?network=cobalt-heron${query}`), 'POST', table, {
      'Content-Type': 'text/csv',
      ...headers,
    });
  const figures = async (query = '') =>
    (await http(api(`/tally/figures?title=kelp&days=2026-10-01..31${query}`))).body;

  it('are counted once, however often they come', async () => {
    const table = [head, row('2026-10-01'), row('2026-10-02'), row('2026-10-01', iosUnit)].join('\n');
    const first = await send(table, '&name=october.csv');
    expect(first.status).toBe(200);
    expect(first.body).toMatchObject({
      rows: 3,
      added: 3,
      same: 0,
      restated: [],
      name: 'october.csv',
      days: { from: '2026-10-01', to: '2026-10-02' },
      missingColumns: ['App ID', 'Country', 'Rewards'],
      unknownColumns: [],
      unitsNotOnRecord: 0,
    });
    const before = await figures();
    expect(before.totals).toMatchObject([
      { currency: 'EUR', revenue: 7_500_000, requests: 300, fillRate: 0.8 },
    ]);
    expect((await send(table)).body).toMatchObject({ rows: 3, added: 0, same: 3, restated: [] });
    expect(await figures()).toEqual(before);
  });

  it('replace the numbers of a day, and say by how much', async () => {
    await send([head, row('2026-10-01'), row('2026-10-02'), row('2026-10-02', iosUnit, '7.50')].join('\n'));
    const again = await send(
      [head, row('2026-10-02', unit, '2.00'), row('2026-10-02', iosUnit, '7.50')].join('\n'),
    );
    expect(again.body.restated).toEqual([
      {
        currency: 'EUR',
        days: [{ from: '2026-10-02', to: '2026-10-02' }],
        rows: 1,
        gone: 0,
        before: 2_500_000,
        after: 2_000_000,
        total: 10_000_000,
      },
    ]);
    expect((await figures()).totals).toMatchObject([{ revenue: 12_000_000 }]);
  });

  it('that lack a column take nothing away that another table has brought, in either order', async () => {
    const full = [head, row('2026-10-01')].join('\n');
    const bare = `Day,Unit ID,Impressions,Revenue\n2026-10-01,${unit},50,2.50\n`;
    for (const order of [
      [full, bare],
      [bare, full],
    ]) {
      const other = await testService({ now });
      try {
        await http(`${other.url}/api/v1/titles`, 'POST', title);
        for (const table of order)
          await http(`${other.url}/api/v1/tally/imports?network=cobalt-heron`, 'POST', table, {
            'Content-Type': 'text/csv',
          });
        const shown = await http(`${other.url}/api/v1/tally/figures?title=kelp`);
        expect(shown.body.totals).toMatchObject([
          { requests: 100, matched: 80, clicks: 2, revenue: 2_500_000 },
        ]);
      } finally {
        await other.stop();
      }
    }
  });

  it('of parts of a day count an instant once, however it is written', async () => {
    const quarter = (at: string) => `quarter,zone,filled,amount\n${at},771442010001,10,1.000\n`;
    for (const at of ['2026-10-01T06:00:00Z', '2026-10-01T06:00:00.000Z', '2026-10-01T03:00:00-03:00'])
      await http(api('/tally/imports?network=ferrowick'), 'POST', quarter(at), {
        'Content-Type': 'text/csv',
      });
    const { body } = await http(api('/tally/figures?days=2026-10-01'));
    expect(body.totals).toMatchObject([{ currency: 'USD', impressions: 10 }]);
  });

  it('that break off are on record as far as they were read', async () => {
    await send(`${head}\n${row('2026-10-01')}\n"2026`);
    expect((await figures()).totals).toMatchObject([{ revenue: 2_500_000 }]);
    expect((await http(api('/tally/imports'))).body).toMatchObject([{ complete: false, rows: 1 }]);
  });

  it('name rows that repeat, days that lack, columns that nobody described', async () => {
    await send([head, row('2026-10-01')].join('\n'));
    const { body } = await send(
      [
        `${head},Ad source`,
        `${row('2026-10-05')},a`,
        `${row('2026-10-05', unit, '9.00')},b`,
        `${row('2026-10-09', 'CH-U-310772-ZZZZ9999')},a`,
      ].join('\n'),
    );
    expect(body).toMatchObject({
      rows: 3,
      added: 2,
      repeated: { count: 1, lines: [3] },
      gaps: [
        { from: '2026-10-02', to: '2026-10-04' },
        { from: '2026-10-06', to: '2026-10-08' },
      ],
      unknownColumns: ['Ad source'],
      unitsNotOnRecord: 1,
    });
    expect((await figures()).totals).toMatchObject([{ revenue: 11_500_000 }]);
  });

  it('leave out rows that make no sense, each with its line, and take the others', async () => {
    const { body } = await send(
      [
        head,
        row('2026-10-01'),
        row('01.10.2026'),
        row('26-10-01'),
        row('2026-12-24'),
        row('2026-10-01', 'mrl-TIDE-4820116'),
        row('2026-10-02', unit, '-3.00'),
        row('2026-10-02', unit, '"1,250.00"'),
        row('2026-10-02').replace('EUR', 'euro'),
        row('2026-10-02').replace('100', '1.5'),
        'Total,,100,80,50,2,2.50,EUR',
        row('2026-10-03'),
      ].join('\n'),
    );
    expect(body.rows).toBe(2);
    expect(body.odd.map(({ row: line, message }: any) => [line, message])).toEqual([
      [3, expect.stringContaining('“01.10.2026” is no day as the profile describes it: yyyy-mm-dd')],
      [4, expect.stringContaining('“26-10-01”')],
      [5, 'the day 2026-12-24 is still to come'],
      [6, expect.stringContaining('is no unit ID of Cobalt Heron')],
      [7, 'revenue: “-3.00” is negative'],
      [8, expect.stringContaining('another decimal mark')],
      [9, expect.stringContaining('is no currency')],
      [10, 'requests: “1.5” is not a whole number'],
      [11, expect.stringContaining('“Total”')],
    ]);
  });

  it.each([
    ['nothing', '', 'The table is empty'],
    ['a web page', '<!doctype html>', 'a web page'],
    ['other columns', 'A,B\n1,2\n', 'no column “Day”, “Unit ID”, “Impressions”, “Revenue”'],
    ['a column twice', `${head},Day\n`, 'several columns “Day”'],
    [
      'rows of another network alone',
      `${head}\n${row('2026-10-01', 'mrl-TIDE-4820116')}\n`,
      'No row is valid',
    ],
    ['an open quote', `${head}\n${row('2026-10-01')}\n"2026`, '1 row kept, up to 2026-10-01'],
  ])('with %s are refused', async (_, table, message) => {
    const { status, body } = await send(table || ' ');
    expect([status, body.code]).toEqual([422, 'invalid']);
    expect(body.detail).toContain(message);
    expect(body.fix).toMatch(/\.$/);
  });

  it('are read in other columns, separators and encodings', async () => {
    const table = 'Tag;Block;Gezeigt;Erlös\n2026-10-01;X;50;2.50\n'.replace('X', unit);
    const columns = encodeURIComponent(
      JSON.stringify({ day: 'Tag', unit: 'Block', impressions: 'Gezeigt', revenue: 'Erlös' }),
    );
    const bytes = Buffer.from(table, 'latin1').toString('latin1');
    const wrong = await send(bytes, `&columns=${columns}&encoding=klingon`);
    expect(wrong.body.detail).toBe('There is no encoding klingon.');
    expect((await send(table, `&columns=${columns}`)).body.rows).toBe(1);
    expect((await send(table, `&columns=${columns}&separator=%7C`)).status).toBe(422);
    expect((await send(table, '&columns=%5B1%5D')).body.detail).toContain('columns is not a JSON object');
  });

  it('come as text/csv, from somebody who may write', async () => {
    const json = await http(api('/tally/imports?network=cobalt-heron'), 'POST', '{}', {
      'Content-Type': 'application/json',
    });
    expect([json.status, json.body.fix]).toEqual([415, 'Send text/csv with Content-Type: text/csv.']);
    const plain = await send(`${head}\n${row('2026-10-01')}`, '', { 'Content-Type': 'text/plain' });
    expect(plain.status).toBe(415);
    expect((await send(head, '&network=nobody')).status).toBeGreaterThanOrEqual(400);
  });

  it('of single countries and of all together are not added', async () => {
    const country = (name: string, revenue: string) =>
      `2026-10-01,${unit},${name},100,80,50,2,${revenue},EUR`;
    const wide = head.replace('Unit ID,', 'Unit ID,Country,');
    const total = [wide, country('', '3.00')].join('\n');
    const parts = [wide, country('PT', '1.00'), country('es', '1.90')].join('\n');
    for (const order of [
      [total, parts],
      [parts, total],
    ]) {
      for (const table of order) await send(table);
      expect((await figures()).totals).toMatchObject([{ revenue: 2_900_000, requests: 200 }]);
      const { rows } = await figures('&by=country');
      expect(rows.map(({ key, revenue }: any) => [key, revenue])).toEqual([
        ['ES', 1_900_000],
        ['PT', 1_000_000],
      ]);
    }
  });

  it('that divide a day more finely count in place of those that do less, in either order', async () => {
    const source = (await http(api('/networks/cobalt-heron'))).body.source as string;
    const divided = source.replace(/^report:\n/m, 'report:\n  splits: [Ad source, Device]\n');
    expect((await http(api('/networks'), 'POST', { text: divided })).status).toBeLessThan(300);
    const wide = `${head},Ad source,Device`;
    const whole = [head, row('2026-10-01'), row('2026-10-02')].join('\n');
    const parts = [
      wide,
      `${row('2026-10-01', unit, '1.00')},own,`,
      `${row('2026-10-01', unit, '0.70')},,`,
      `${row('2026-10-01', unit, '0.30')},a|b,c`,
      `${row('2026-10-01', unit, '0.20')},a,b|c`,
    ].join('\n');
    for (const order of [
      [whole, parts],
      [parts, whole],
    ]) {
      for (const table of order) expect((await send(table)).body.repeated.count).toBe(0);
      expect((await figures('&by=day')).rows.map(({ revenue }: any) => revenue)).toEqual([
        2_200_000, 2_500_000,
      ]);
    }
    const some = await send([`${head},Device`, `${row('2026-10-01')},phone`].join('\n'));
    expect([some.status, some.body.detail]).toEqual([
      422,
      expect.stringContaining('has no column “Ad source”, but others that divide the day of a unit'),
    ]);
  });

  it('give the same figures in any order, and cut anywhere', async () => {
    const line = fc
      .record({
        day: fc.integer({ min: 1, max: 28 }),
        id: fc.constantFrom(unit, iosUnit, 'CH-U-310772-ZZZZ9999'),
        country: fc.constantFrom('PT', 'ES', ''),
        revenue: fc.integer({ min: 0, max: 99_999 }),
      })
      .map(({ day, id, country, revenue }) => ({
        key: `${day} ${id} ${country}`,
        text: `2026-10-${String(day).padStart(2, '0')},${id},${country},100,80,50,2,${(revenue / 100).toFixed(2)},EUR`,
      }));
    const wide = head.replace('Unit ID,', 'Unit ID,Country,');
    await fc.assert(
      fc.asyncProperty(
        fc.uniqueArray(line, { selector: ({ key }) => key, minLength: 1, maxLength: 30 }),
        fc.infiniteStream(fc.nat()),
        async (lines, draws) => {
          const other = await testService({ now });
          const shown = async (url: string) =>
            (await http(`${url}/api/v1/tally/figures?days=2026-10-01..31&by=day`)).body;
          const post = (url: string, some: typeof lines) =>
            http(
              `${url}/api/v1/tally/imports?network=cobalt-heron`,
              'POST',
              [wide, ...some.map(({ text }) => text)].join('\n'),
              {
                'Content-Type': 'text/csv',
              },
            );
          try {
            const fresh = await testService({ now });
            try {
              await post(fresh.url, lines);
              const mixed = lines
                .map((one) => ({ one, rank: draws.next().value ?? 0 }))
                .sort((a, b) => a.rank - b.rank)
                .map(({ one }) => one);
              const cut = (draws.next().value ?? 0) % (mixed.length + 1);
              for (const part of [mixed.slice(0, cut), mixed.slice(cut), mixed.slice(0, cut)])
                if (part.length > 0) await post(other.url, part);
              expect(await shown(other.url)).toEqual(await shown(fresh.url));
              // A day that is restated once more, with the same numbers, changes nothing.
              const restated = lines
                .slice(cut)
                .map((one) => ({ ...one, text: one.text.replace(',EUR', '1,EUR') }));
              if (restated.length > 0) {
                const first = await post(other.url, restated);
                const once = await shown(other.url);
                const again = await post(other.url, restated);
                expect(first.body).toMatchObject({ added: 0, same: 0 });
                expect(again.body).toMatchObject({ added: 0, same: restated.length, restated: [] });
                expect(await shown(other.url)).toEqual(once);
              }
            } finally {
              await fresh.stop();
            }
          } finally {
            await other.stop();
          }
        },
      ),
      { numRuns: 12 },
    );
  });
});

describe('releases, rates and comparisons', () => {
  let s: TestService;
  const api = (path: string) => `${s.url}/api/v1${path}`;
  beforeAll(async () => {
    s = await testService({ now });
    await http(api('/titles'), 'POST', title);
    const days = Array.from({ length: 28 }, (_, at) => dayText(readDay('2026-10-01')! + at));
    const rows = days.flatMap((day, at) => [
      row(day, unit, at < 14 ? '2.50' : '1.00'),
      row(day, iosUnit).replace('EUR', 'USD'),
    ]);
    await http(api('/tally/imports?network=cobalt-heron'), 'POST', [head, ...rows].join('\n'), {
      'Content-Type': 'text/csv',
    });
  });
  afterAll(() => s.stop());

  it('are noted, listed and forgotten', async () => {
    const release = { title: 'kelp', platform: 'android', version: '2.0', day: '2026-10-14' };
    expect((await http(api('/titles/kelp/releases'), 'POST', release)).status).toBe(200);
    expect((await http(api('/titles/kelp/releases'))).body).toEqual([release]);
    const { body } = await http(api('/tally/figures?title=kelp&by=release&days=28d'));
    expect(body.rows.map(({ key, revenue }: any) => [key, revenue])).toEqual([
      ['0000-00-00 android', 35_000_000],
      ['0000-00-00 ios', 70_000_000],
      ['2026-10-14 android 2.0', 14_000_000],
    ]);
    for (const bad of [
      { ...release, day: '2026-10-32' },
      { ...release, version: 'two words' },
    ])
      expect((await http(api('/titles/kelp/releases'), 'POST', bad)).status).toBe(422);
    const drop = () => http(api('/titles/kelp/releases?platform=android&version=2.0'), 'DELETE');
    expect([(await drop()).status, (await drop()).status]).toEqual([200, 404]);
  });

  it('compare two spans, by volume, fill and price', async () => {
    const { body } = await http(
      api('/tally/comparison?title=kelp&this=2026-10-15..21&against=2026-10-08..14'),
    );
    expect(body.rows).toMatchObject([
      {
        placement: 'page',
        platform: 'android',
        currency: 'EUR',
        before: 17_500_000,
        after: 7_000_000,
        volume: 0,
        fill: 0,
        price: -10_500_000,
      },
      { platform: 'ios', currency: 'USD', revenue: 0 },
    ]);
    const overlap = await http(api('/tally/comparison?title=kelp&this=7d&against=2026-10-20..28'));
    expect([overlap.status, overlap.body.detail]).toEqual([422, 'The days to compare overlap.']);
    expect((await http(api('/tally/comparison?title=kelp&this=soon'))).status).toBe(422);
    expect((await http(api('/tally/comparison?title=nobody'))).status).toBe(404);
  });

  it('convert by the rates of each day, and say for which there are none', async () => {
    const before = await http(api('/tally/figures?title=kelp&days=28d&in=EUR'));
    expect(before.body.unconverted).toEqual([{ currency: 'USD', days: 28 }]);
    const table =
      'day,currency,base,rate\n2026-10-01,USD,EUR,0.8\n2026-10-11,USD,EUR,0.9\n2026-10-21,USD,EUR,1.0\n';
    const first = await http(api('/tally/rates'), 'POST', { table });
    expect(first.body).toEqual({ rates: 3, changed: 3, odd: [], oddCount: 0 });
    expect((await http(api('/tally/rates'), 'POST', { table })).body.changed).toBe(0);
    const { body } = await http(api('/tally/figures?title=kelp&days=28d&in=EUR'));
    expect(body.unconverted).toEqual([]);
    expect(body.totals).toMatchObject([{ currency: 'EUR', revenue: 49_000_000 + 2_500_000 * (8 + 9 + 8) }]);
  });
});

describe('what numbers contradict', () => {
  let s: TestService;
  const api = (path: string) => `${s.url}/api/v1${path}`;
  beforeAll(async () => {
    s = await testService({ now });
    await http(api('/titles'), 'POST', title);
    const days = Array.from({ length: 40 }, (_, at) => dayText(readDay('2026-10-05')! + at));
    const rows = days.flatMap((day, at) => [row(day), ...(at < 35 ? [row(day, iosUnit)] : [])]);
    await http(api('/tally/imports?network=cobalt-heron'), 'POST', [head, ...rows].join('\n'), {
      'Content-Type': 'text/csv',
    });
    await http(
      api('/tally/imports?network=cobalt-heron'),
      'POST',
      [head, row('2026-11-13', 'CH-U-310772-ZZZZ9999')].join('\n'),
      {
        'Content-Type': 'text/csv',
      },
    );
  });
  afterAll(() => s.stop());

  it('is listed for a title, and for units of none, with the money at stake', async () => {
    const { body } = await http(api('/tally/silence'));
    expect(body.last).toEqual([{ network: 'cobalt-heron', day: '2026-11-13' }]);
    expect(
      body.findings.map(({ rule, title: of, placement, platform, stake }: any) => [
        rule,
        of,
        placement,
        platform,
        stake,
      ]),
    ).toEqual([
      ['tally/silent', 'kelp', 'page', 'ios', { micros: expect.any(Number), currency: 'EUR' }],
      ['tally/unit-not-on-record', null, null, null, null],
    ]);
    const [silent] = body.findings;
    expect(silent.stake.micros).toBeGreaterThan(40_000_000);
    expect(silent.message).toContain('since 2026-11-09: for 5 days, after 100 requests a day');
    const own = await http(api('/tally/silence?title=kelp'));
    expect(own.body.findings).toHaveLength(1);
    expect((await http(api('/tally/silence?title=nobody'))).status).toBe(404);
  });

  it('is nothing for a title of which the last table brought no row', async () => {
    const other = await testService({ now });
    const post = (path: string, body: unknown, headers = {}) =>
      http(`${other.url}/api/v1${path}`, 'POST', body, headers);
    const csv = (rows: string[]) =>
      post('/tally/imports?network=cobalt-heron', [head, ...rows].join('\n'), { 'Content-Type': 'text/csv' });
    try {
      await post('/titles', title);
      const days = Array.from({ length: 40 }, (_, at) => dayText(readDay('2026-09-20')! + at));
      await csv(days.flatMap((day) => [row(day), row(day, iosUnit)]));
      await csv([row('2026-11-13', 'CH-U-310772-ZZZZ9999')]);
      const { body } = await http(`${other.url}/api/v1/tally/silence?title=kelp`);
      expect(body.findings).toEqual([]);
    } finally {
      await other.stop();
    }
  });

  it('is named by a check of a tree, and by the step', async () => {
    const snapshot = await snapshotOf(s.url, 'kelp', androidFiles());
    const checked = await http(api(`/snapshots/${snapshot}/check`), 'POST', { title: 'kelp' });
    expect(checked.body.findings.map(({ rule }: any) => rule)).toContain('tally/silent');
    const { steps } = (await http(api('/titles/kelp/steps'))).body;
    const earning = steps.filter(({ step }: any) => step === 'earning');
    expect(earning.map(({ platform, evidence }: any) => [platform, evidence.length])).toEqual([
      ['android', 1],
      ['ios', 2],
    ]);
  });

  it('is earned day by day in the last week', async () => {
    const { body } = await http(api('/tally/week?title=kelp'));
    expect(body.days).toEqual({ from: '2026-11-07', to: '2026-11-13' });
    const found = Object.fromEntries(body.units.map(({ platform, revenue }: any) => [platform, revenue]));
    expect(found.ios).toEqual([2_500_000, 2_500_000, 0, 0, 0, 0, 0]);
    expect(found.android).toEqual(Array.from({ length: 7 }, () => 2_500_000));
  });
});

describe('daily numbers that networks report', () => {
  let s: PartneredService;
  const networks = ['cobalt-heron', 'marlstone', 'quincebury', 'ferrowick', 'tallowfield'];
  beforeEach(async () => {
    s = await partneredService(networks, { service: { now } });
    await s.partner.control('clock', { now: now().toISOString(), stands: true });
    for (const [network, format] of [
      ['cobalt-heron', 'interstitial'],
      ['marlstone', 'rewarded'],
      ['quincebury', 'banner'],
      ['ferrowick', 'banner'],
      ['tallowfield', 'video'],
    ])
      await s.partner.control('units', {
        network,
        key: plantedKey,
        platform: 'android',
        format,
        name: 'x',
        'serves-from': '2026-01-01T00:00:00Z',
      });
  });
  afterEach(() => s.stop());
  const fetch = (body: object = {}) => http(s.api('/tally/fetch'), 'POST', body);

  it('come in the words of each network, as its own table has them', async () => {
    const { body } = await fetch({ from: '2026-10-20', to: '2026-11-10' });
    expect(body.skipped).toEqual([]);
    expect(body.fetched.map(({ network }: any) => network).sort()).toEqual([...networks].sort());
    for (const { network, odd, rows, days } of body.fetched) {
      expect([network, odd, days]).toEqual([network, [], { from: '2026-10-20', to: '2026-11-10' }]);
      expect(rows).toBeGreaterThanOrEqual(22);
      const { table } = await s.partner.control('report', { network, from: '2026-10-20', to: '2026-11-10' });
      const again = await http(s.api(`/tally/imports?network=${network}`), 'POST', table, {
        'Content-Type': 'text/csv',
      });
      expect([network, again.body]).toEqual([
        network,
        expect.objectContaining({ rows, added: 0, same: rows, restated: [], odd: [], unknownColumns: [] }),
      ]);
    }
  });

  it('are asked for again as long as they may change, and no longer', async () => {
    const first = await fetch({ networks: ['cobalt-heron'] });
    expect(first.body.fetched[0].asked).toEqual({ from: '2026-08-17', to: '2026-11-14' });
    await s.partner.control('clock', { now: '2026-11-16T12:00:00Z', stands: true });
    const second = await fetch({ networks: ['cobalt-heron'] });
    // Its numbers settle after three days.
    expect(second.body.fetched[0].asked).toEqual({ from: '2026-11-12', to: '2026-11-14' });
    expect(second.body.fetched[0].restated).toMatchObject([
      { days: [{ from: '2026-11-12', to: '2026-11-12' }] },
    ]);
  });

  it('that are no longer reported are taken out, but for days of which nothing came', async () => {
    await s.partner.control('units', {
      network: 'cobalt-heron',
      key: plantedKey,
      platform: 'android',
      format: 'banner',
      name: 'y',
      'serves-from': '2026-01-01T00:00:00Z',
    });
    const days = { from: '2026-10-01', to: '2026-10-31' };
    const ask = async () => {
      const { body } = await fetch({ networks: ['cobalt-heron'], ...days });
      return body.fetched[0];
    };
    const shown = async () => (await http(s.api('/tally/figures?days=2026-10-01..31&by=placement'))).body;
    await ask();
    const first = await shown();
    expect((await ask()).restated).toEqual([]);
    expect(await shown()).toEqual(first);
    const [gone, stays] = first.rows;
    const silence = (unit: string, from: string) =>
      s.partner.control('incident', {
        network: 'cobalt-heron',
        unit,
        from,
        to: '2026-10-31',
        what: 'silent',
      });
    await silence(gone.unit, '2026-10-11');
    const { restated } = await ask();
    const second = await shown();
    expect(restated).toMatchObject([
      { days: [{ from: '2026-10-11', to: '2026-10-31' }], gone: restated[0].rows, after: 0 },
    ]);
    const rest = (unit: string) => second.rows.find((one: any) => one.unit === unit);
    expect(rest(gone.unit).revenue).toBe(gone.revenue - restated[0].before);
    expect(rest(stays.unit)).toMatchObject({ revenue: stays.revenue });
    // Now nothing is reported of these days. They stay as they were.
    await silence(stays.unit, '2026-10-11');
    expect((await ask()).restated).toEqual([]);
    expect(await shown()).toEqual(second);
  });

  it('are read to their end through answers that fail and break off', async () => {
    await s.partner.control('faults', {
      network: 'cobalt-heron',
      kinds: ['cut', 'error', 'html', 'empty'],
      every: 2,
    });
    const { body } = await fetch({ networks: ['cobalt-heron'] });
    expect(body.fetched[0]).toMatchObject({ added: 360, oddCount: 0, gaps: [] });
  });

  it('that break off for good keep what came, and go on from there', async () => {
    await s.partner.control('faults', { network: 'cobalt-heron', kinds: ['error'], every: 1, times: 1000 });
    const failed = await fetch({ networks: ['cobalt-heron'], from: '2026-08-01' });
    expect([failed.status, failed.body.code]).toEqual([502, 'partner-unreachable']);
    await s.partner.control('faults', { network: 'cobalt-heron', kinds: [] });
    const { body } = await fetch({ networks: ['cobalt-heron'], from: '2026-08-01', to: '2026-10-31' });
    expect(body.fetched[0]).toMatchObject({ added: 92 * 4 });
    const rest = await fetch({ networks: ['cobalt-heron'] });
    expect(rest.body.fetched[0].asked).toEqual({ from: '2026-10-29', to: '2026-11-14' });
    const imports = (await http(s.api('/tally/imports'))).body;
    expect(imports.map(({ complete, rows }: any) => [complete, rows > 0])).toEqual([
      [true, true],
      [true, true],
      [false, false],
    ]);
  });

  it('of a network whose pages form a loop are given up', async () => {
    for (let at = 0; at < 9; at++)
      await s.partner.control('units', {
        network: 'cobalt-heron',
        key: plantedKey,
        platform: 'android',
        format: 'banner',
        name: `x${at}`,
        'serves-from': '2026-01-01T00:00:00Z',
      });
    await s.partner.control('faults', { network: 'cobalt-heron', kinds: ['loop'], every: 1 });
    const { body } = await fetch({ networks: ['cobalt-heron'], from: '2026-10-01' });
    expect([body.code, body.detail]).toEqual(['partner-odd', expect.stringContaining('form a loop')]);
  });

  it('of one network do not wait for another that has no key', async () => {
    const lone = await partneredService(['marlstone'], { service: { now } });
    try {
      const { body } = await http(lone.api('/tally/fetch'), 'POST', {});
      expect(body.fetched.map(({ network }: any) => network)).toEqual(['marlstone']);
      expect(body.skipped.map(({ network }: any) => network)).toContain('cobalt-heron');
      for (const { fix } of body.skipped) expect(fix).toContain('syndexa publisher set --credential');
      expect(JSON.stringify(body)).not.toContain(plantedKey);
    } finally {
      await lone.stop();
    }
  });
});
