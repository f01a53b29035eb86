import { describe, it } from 'vitest';
import { silentText } from '../../src/cli/render/tally-silent.js';
import { fetchText, importText } from '../../src/cli/render/tally-imports.js';
import { compareText, figuresCsv, figuresText } from '../../src/cli/render/tally.js';
import { given, paint, plain, same } from '../support/rendered.js';

describe('daily numbers', () => {
  const days = { from: '2026-01-01', to: '2026-01-07' };
  const figures = (more: object = {}) => ({
    currency: 'EUR',
    requests: 12_000,
    matched: 9_000,
    fillRate: 0.75,
    impressions: 6_000,
    showRate: 0.5,
    clicks: 60,
    clickRate: 0.01,
    revenue: 12_340_000,
    ecpm: 2_056_000,
    share: 0.5,
    ...more,
  });
  const none = {
    requests: null,
    fillRate: null,
    showRate: null,
    clicks: null,
    clickRate: null,
    ecpm: null,
    share: null,
  };
  const answer = (by: string, keys: readonly (string | readonly [string, string])[], more: object = {}) =>
    given<Parameters<typeof figuresText>[0]>({
      by,
      days,
      rows: keys.map((key, at) => ({
        ...figures(at === 0 ? {} : none),
        key: typeof key === 'string' ? key : key[0],
        unit: typeof key === 'string' ? null : key[1],
      })),
      totals: [figures()],
      daily: [{ day: '2026-01-03', currency: 'EUR', revenue: 5_000_000 }],
      zones: [],
      unconverted: [],
      in: null,
      ...more,
    });
  const shown = (...of: Parameters<typeof answer>) =>
    figuresText(answer(...of), paint, { width: 100, subject: 'Kelp' });

  it('by what they are of', () =>
    same(
      'tally',
      shown('placement', ['footer', ['Marlstone: mrl-1', 'mrl-1'], '']),
      shown('platform', ['android', 'other']),
      shown('release', ['2026-01-02 ios 3.2 kelp', '0000-00-00 android', '0000-00-00 ios kelp', '']),
      shown('day', ['2026-01-02'], {
        in: 'USD',
        zones: [
          { network: 'Marlstone', zone: 'UTC' },
          { network: 'Quincebury', zone: 'UTC' },
          { network: 'Ferrowick', zone: 'Europe/Lisbon' },
        ],
        unconverted: [
          { currency: 'GBP', days: 1 },
          { currency: 'SEK', days: 3 },
        ],
      }),
      shown('placement', [], { days: null }),
      figuresText(answer('placement', ['footer']), plain, { width: 50, subject: 'Kelp' }),
    ));

  it('compared', () => {
    const change = (more: object = {}) => ({
      currency: 'EUR',
      before: 2_000_000,
      after: 3_000_000,
      revenue: 1_000_000,
      volume: 1_500_000,
      fill: -500_000,
      price: 0,
      ...more,
    });
    const row = (more: object) => ({
      ...change(),
      title: 'kelp',
      placement: 'footer',
      network: 'Marlstone',
      platform: 'ios',
      unit: 'mrl-1',
      ...more,
    });
    const compared = (more: object) =>
      compareText(
        given<Parameters<typeof compareText>[0]>({
          title: 'kelp',
          days,
          against: { from: '2025-12-25', to: '2025-12-31' },
          rows: [row({}), row({ placement: null, platform: null }), row({ currency: 'USD' })],
          totals: [change(), change({ currency: 'USD', revenue: 1, before: 0 })],
          zones: [],
          unconverted: [],
          in: null,
          ...more,
        }),
        paint,
        { width: 120, subject: 'Kelp' },
      );
    return same(
      'tally-compared',
      compared({}),
      compared({ title: null, rows: [row({}), row({ title: null })], totals: [change()] }),
      compared({ days: null }),
      compared({ against: null }),
    );
  });

  it('as CSV', () => {
    const csv = answer('placement', ['footer', 'page, "below"'], { rows: undefined });
    const rows = [
      { ...figures({ rewards: 7 }), key: 'footer', unit: null },
      { ...figures({ ...none, rewards: null }), key: 'page, "below"', unit: null },
    ];
    return same('tally-csv', figuresCsv({ ...csv, rows } as typeof csv));
  });

  it('in several currencies, each by itself', () =>
    same(
      'tally-currencies',
      shown('network', ['Reef', 'Kelp'], {
        rows: [
          { ...figures(), key: 'Reef', unit: null },
          { ...figures({ currency: 'USD', revenue: 999_000 }), key: 'Kelp', unit: null },
        ],
        totals: [figures(), figures({ currency: 'USD', revenue: 999_000 })],
        daily: [
          { day: '2026-01-03', currency: 'EUR', revenue: 5_000_000 },
          { day: '2026-01-07', currency: 'USD', revenue: 1_000_000 },
        ],
      }),
    ));

  it('that contradict the record', () => {
    const finding = (more: object = {}) => ({
      rule: 'tally/silent',
      severity: 'warning',
      message: 'The footer of Kelp has not been asked for since 2026-01-01.',
      mend: 'Look at the release of that day, and at what has changed since.',
      title: 'kelp',
      stake: { micros: 12_340_000, currency: 'EUR' },
      ...more,
    });
    const silent = (more: object) =>
      silentText(
        given<Parameters<typeof silentText>[0]>({
          title: null,
          last: [
            { network: 'Reef', day: '2026-01-07' },
            { network: 'Marlstone', day: '2026-01-06' },
          ],
          findings: [],
          ...more,
        }),
        paint,
        46,
      );
    return same(
      'tally-silent',
      silent({ last: [] }),
      silent({}),
      silent({ title: 'kelp' }),
      silent({
        findings: [
          finding(),
          finding({ severity: 'note', title: null, stake: null }),
          finding({ stake: { micros: 0, currency: 'EUR' } }),
        ],
      }),
      ...[30, 31].map((length) => {
        const text = silent({ findings: Array.from({ length }, () => finding()) });
        return `${text.split('tally/silent').length - 1} times, and then\n${text.slice(-300)}`;
      }),
    );
  });

  it('that were imported or fetched', () => {
    const odd = (count: number) =>
      Array.from({ length: count }, (_, at) => ({ row: at + 2, message: 'The day is not a day.' }));
    const summary = (more: object = {}) =>
      given<Parameters<typeof importText>[0]>({
        network: 'Reef',
        name: 'may.csv',
        days: { from: '2026-05-01', to: '2026-05-31' },
        rows: 31,
        added: 30,
        same: 1,
        restated: [],
        repeated: { count: 0, lines: [] },
        gaps: [],
        unknownColumns: [],
        missingColumns: [],
        odd: [],
        oddCount: 0,
        unitsNotOnRecord: 0,
        ...more,
      });
    const fetched = (more: object) =>
      fetchText(given<Parameters<typeof fetchText>[0]>({ fetched: [], skipped: [], ...more }), paint);
    return same(
      'tally-imports',
      importText(summary(), paint),
      importText(summary({ name: '', unknownColumns: ['Mood'], odd: odd(2), oddCount: 2 }), paint),
      importText(summary({ odd: odd(20), oddCount: 20 }), paint),
      importText(summary({ odd: odd(25), oddCount: 1_025 }), paint),
      fetched({}),
      fetched({
        fetched: [summary({ name: '' }), summary({ network: 'Kelp' })],
        skipped: [{ network: 'Marlstone', why: 'It has no key.', fix: 'Set one.' }],
      }),
    );
  });
});
