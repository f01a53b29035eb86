import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { schemaDocuments } from '../../src/api/schemas.js';
import { paintFor } from '../../src/cli/io.js';
import { run } from '../../src/cli/program.js';
import { readCsv } from '../../src/core/formats/csv/read.js';
import { dayText, readDay } from '../../src/core/tally/days.js';
import { http, testService, type TestService } from '../support/service.js';
import { recorder } from '../support/recorder.js';

const ajv = new Ajv2020({ strict: false, validateFormats: false });
const unit = 'CH-U-310772-DDDD3333';
const iosUnit = 'CH-U-310772-EEEE4444';
let s: TestService;
let columns = 100;

async function syndexa(...args: string[]) {
  const io = recorder({
    input: () =>
      Promise.resolve(new TextEncoder().encode('day,currency,base,rate\n2026-10-01,USD,EUR,0.5\n')),
    width: columns,
    columns,
    cwd: s.home,
    env: { SYNDEXA_HOME: s.home, SYNDEXA_URL: s.url },
  });
  const code = await run(args, io, paintFor(false));
  return { code, out: io.text, err: io.errors };
}

/** A document of its published shape. */
function shaped(name: string, text: string): any {
  const value: unknown = JSON.parse(text);
  const validate = ajv.compile(schemaDocuments()[name]!);
  expect(validate(value) ? [] : validate.errors).toEqual([]);
  return value;
}

const head = 'Day,Unit ID,Requests,Matched,Impressions,Clicks,Revenue,Currency,Made by';
const table = (last: number, price: string) =>
  [
    head,
    ...Array.from({ length: 30 }, (_, at) => dayText(readDay('2026-10-01')! + at)).flatMap((day, at) => [
      `${day},${unit},100,80,50,2,${price},EUR,x`,
      ...(at < last ? [`${day},${iosUnit},100,80,50,2,4.00,USD,x`] : []),
    ]),
    'Total,,1,1,1,1,1,EUR,x',
  ].join('\n');

beforeAll(async () => {
  s = await testService({ now: () => new Date('2026-11-15T12:00:00Z') });
  await http(`${s.url}/api/v1/titles`, 'POST', {
    id: 'kelp',
    title: {
      name: 'Kelp',
      editions: { android: { identifier: 'example.brine.kelp' }, ios: { identifier: 'example.brine.kelp' } },
      networks: { 'cobalt-heron': { android: {}, ios: {} } },
      placements: {
        page: {
          format: 'interstitial',
          units: { 'cobalt-heron': { android: { production: unit }, ios: { production: iosUnit } } },
        },
      },
    },
  });
  writeFileSync(join(s.home, 'october.csv'), table(20, '2.50'));
  writeFileSync(join(s.home, 'again.csv'), table(20, '2.00'));
});
afterAll(() => s.stop());

describe('syndexa tally', () => {
  it('says that nothing is on record, and what to do', async () => {
    expect((await syndexa('tally', 'show', 'kelp')).out).toContain('syndexa tally fetch');
    expect((await syndexa('tally', 'silent')).out).toContain('No network has reported anything yet.');
    expect((await syndexa('tally', 'imports')).out).toBe('Nothing has been imported yet.\n');
    expect((await syndexa('tally', 'release', 'kelp')).out).toBe('No release of kelp is on record.\n');
  });

  it('imports files, says what was odd, and what a second one restates', async () => {
    const first = await syndexa('tally', 'import', 'october.csv', '--network', 'cobalt-heron');
    expect([first.code, first.err]).toEqual([0, '']);
    expect(first.out).toContain(
      '✔ cobalt-heron from october.csv: 50 rows, 2026-10-01 to 2026-10-30: 50 new, 0 as before',
    );
    expect(first.out).toContain('not read: Made by');
    expect(first.out).toContain('line 52: “Total” is no day');
    const second = await syndexa('tally', 'import', 'october.csv', 'again.csv', '--network', 'cobalt-heron');
    expect(second.out).toContain('0 new, 50 as before');
    expect(second.out).toContain(
      '▲ 30 days restated (2026-10-01 to 2026-10-30): 30 rows, revenue −20.0 %, 75.00 EUR → 60.00 EUR',
    );
    const json = await syndexa('tally', 'import', 'again.csv', '--network', 'cobalt-heron', '--json');
    expect(shaped('tally-imported', json.out)).toMatchObject([{ same: 50 }]);
    expect(shaped('tally-imports', (await syndexa('tally', 'imports', '--json')).out)).toHaveLength(4);
  });

  it.each([
    [['nowhere.csv'], 2, 'nowhere.csv cannot be read'],
    [['.'], 2, 'it is a folder'],
    [['october.csv', '--column', 'money=Revenue'], 2, 'The fields are day, unit, app'],
    [['october.csv', '--column', 'revenue=Money'], 2, 'no column “Money”'],
    [['october.csv', '--encoding', 'utf-16le'], 2, 'The table'],
  ])('refuses %j', async (args, code, message) => {
    const result = await syndexa('tally', 'import', ...args, '--network', 'cobalt-heron');
    expect(result.code).toBe(code);
    expect(result.err).toContain(message);
  });

  it('notes releases and rates', async () => {
    const noDay = await syndexa('tally', 'release', 'kelp', '2.0', '--platform', 'android');
    expect([noDay.code, noDay.err]).toEqual([
      2,
      expect.stringContaining('A release has a platform and a day.'),
    ]);
    for (const platform of ['android', 'ios'])
      await syndexa('tally', 'release', 'kelp', '2.0', '--platform', platform, '--on', '2026-10-05');
    const listed = await syndexa('tally', 'release', 'kelp', '--json');
    expect(shaped('tally-releases', listed.out)).toHaveLength(2);
    const rates = await syndexa('tally', 'rates', '-', '--json');
    expect(shaped('tally-rates', rates.out)).toMatchObject({ rates: 1, changed: 1 });
  });

  it('shows tables that fit, and says which columns it left out', async () => {
    for (const width of [60, 80, 120]) {
      columns = width;
      const { out } = await syndexa('tally', 'show', 'kelp', '--days', '2026-10-01..30');
      for (const line of out.split('\n'))
        if (!line.includes('Days are')) expect(line.length).toBeLessThanOrEqual(width);
      expect(out).toMatch(/page +3,000/);
      expect(out.includes('These columns do not fit')).toBe(width < 100);
    }
    columns = 100;
    const converted = await syndexa('tally', 'show', 'kelp', '--days', '2026-10-01..30', '--in', 'EUR');
    // The one rate holds for ten days; the other ten stay in their currency.
    expect(converted.out).toContain('no rate from USD into EUR for 10 days');
    const json = await syndexa('tally', 'show', '--all', '--json');
    expect(shaped('tally-figures', json.out).rows.length).toBeGreaterThan(0);
    expect((await syndexa('tally', 'show')).err).toContain('Name a title, or all of them.');
  });

  it('writes CSV that is read back', async () => {
    const { out } = await syndexa(
      'tally',
      'show',
      'kelp',
      '--by',
      'platform',
      '--days',
      '2026-10-01..30',
      '--csv',
    );
    const [names, ...rows] = readCsv(out).map(({ cells }) => cells);
    expect(names?.slice(0, 3)).toEqual(['platform', 'currency', 'requests']);
    expect(rows.map(([platform, currency, requests]) => [platform, currency, requests])).toEqual([
      ['android', 'EUR', '3000'],
      ['ios', 'USD', '2000'],
    ]);
  });

  it('compares, and lists what is silent with its price', async () => {
    const compared = await syndexa('tally', 'compare', 'kelp', '--this', '7d');
    expect(compared.out).toContain('kelp, 2026-10-24 to 2026-10-30 against 2026-10-17 to 2026-10-23');
    expect(compared.out).toMatch(/page +16\.00 +0\.00 +−16\.00 +−16\.00 +0\.00 +0\.00/);
    const json = await syndexa('tally', 'compare', '--all', '--json');
    shaped('tally-comparison', json.out);
    const silent = await syndexa('tally', 'silent', 'kelp');
    expect(silent.code).toBe(1);
    expect(silent.out).toContain('▲ kelp  tally/silent  about ');
    shaped('tally-silence', (await syndexa('tally', 'silent', '--json')).out);
  });

  it('says which network has no key', async () => {
    const { code, out } = await syndexa('tally', 'fetch');
    expect(code).toBe(3);
    expect(out).toContain(
      'cobalt-heron was not read: The roster does not say which secret is the inventory key',
    );
    shaped('tally-fetched', (await syndexa('tally', 'fetch', '--json')).out);
    expect((await syndexa('tally', 'fetch', '--network', 'cobalt-heron')).code).toBe(2);
  });
});
