import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  dayOf,
  dayReader,
  daysIn,
  dayText,
  readDay,
  readSpan,
  spansOf,
  weekday,
  weekOf,
  writeDay,
} from '../../../src/core/tally/days.js';

const day = fc.integer({ min: 0, max: 40_000 });
const zones = [
  'UTC',
  'Europe/Lisbon',
  'America/New_York',
  'America/Sao_Paulo',
  'Asia/Kathmandu',
  'Pacific/Apia',
  'Australia/Lord_Howe',
];

describe('days', () => {
  it('are written and read back in every form', () => {
    fc.assert(
      fc.property(
        day,
        fc.constantFrom('yyyy-mm-dd', 'dd.mm.yyyy', 'mm/dd/yyyy', 'yyyymmdd', 'dd-mm-yyyy'),
        (one, form) => {
          expect(dayReader(form, 'UTC')(writeDay(form, one))).toBe(one);
          expect(readDay(dayText(one))).toBe(one);
        },
      ),
    );
  });

  it('agree with the calendar about weekdays', () => {
    fc.assert(
      fc.property(day, (one) => {
        expect(weekday(one)).toBe((new Date(`${dayText(one)}T00:00:00Z`).getUTCDay() + 6) % 7);
        expect(weekday(weekOf(one))).toBe(0);
        expect(one - weekOf(one)).toBeLessThan(7);
      }),
    );
  });

  it.each([
    [
      'yyyy-mm-dd',
      ['2026-02-30', '26-10-01', '2026-10-1', '2026/10/01', '', ' 2026-10-01', '2026-10-01T00:00:00Z'],
    ],
    ['dd.mm.yyyy', ['31.04.2026', '01.10.26', '1.10.2026', '2026.10.01']],
    ['timestamp', ['2026-10-01', '2026-10-01T06:00:00', '1759276800', 'yesterday']],
  ])('in the form %s are refused where they are not in it', (form, texts) => {
    for (const text of texts) expect([text, dayReader(form, 'UTC')(text)]).toEqual([text, null]);
  });

  it('that do not exist are refused', () => {
    expect([dayOf(2026, 2, 29), dayOf(2026, 13, 1), dayOf(2024, 2, 29)]).toEqual([null, null, 19_782]);
  });

  it('follow each other in every zone: each instant is on one, and none is lost or doubled where clocks are set', () => {
    for (const zone of zones) {
      const dayIn = daysIn(zone);
      const seen: number[] = [];
      for (let at = Date.UTC(2011, 11, 20); at < Date.UTC(2012, 11, 1); at += 15 * 60_000) {
        const now = dayIn(at);
        if (seen.at(-1) !== now) seen.push(now);
      }
      // Samoa had no 30 December 2011: it changed sides.
      const skipped = zone === 'Pacific/Apia' ? [readDay('2011-12-30')] : [];
      const all = Array.from(
        { length: (seen.at(-1) ?? 0) - (seen[0] ?? 0) + 1 },
        (_, at) => (seen[0] ?? 0) + at,
      );
      expect([zone, seen]).toEqual([zone, all.filter((one) => !skipped.includes(one))]);
    }
  });

  it('of instants are those of the clock on the wall', () => {
    const read = dayReader('timestamp', 'America/Sao_Paulo');
    expect(dayText(read('2026-10-02T02:59:00Z')!)).toBe('2026-10-01');
    expect(dayText(read('2026-10-02T03:00:00Z')!)).toBe('2026-10-02');
    expect(dayText(read('2026-10-02T00:00:00-03:00')!)).toBe('2026-10-02');
  });
});

describe('spans of days', () => {
  const last = readDay('2026-10-31')!;
  it.each([
    ['7d', '2026-10-25', '2026-10-31'],
    ['2026-10-01..2026-10-07', '2026-10-01', '2026-10-07'],
    ['2026-10-01..07', '2026-10-01', '2026-10-07'],
    ['2026-09-28..10-04', '2026-09-28', '2026-10-04'],
    ['2026-10-05', '2026-10-05', '2026-10-05'],
  ])('%s', (text, from, to) => {
    expect(readSpan(text, last)).toEqual({ from: readDay(from), to: readDay(to) });
  });

  it.each(['', '0d', '7', '7w', '2026-10-07..2026-10-01', '2026-10-01..', '2026-10-01..32', '..2026-10-01'])(
    'refuses %s',
    (text) => {
      expect(readSpan(text, last)).toBeNull();
    },
  );

  it('hold all days that they are made of, and no others', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 60 })), (days) => {
        const spans = spansOf(days);
        const held = spans.flatMap(({ from, to }) =>
          Array.from({ length: to - from + 1 }, (_, at) => from + at),
        );
        expect(held).toEqual([...new Set(days)].sort((a, b) => a - b));
        for (const [at, { from }] of spans.entries())
          if (at > 0) expect(from).toBeGreaterThan(spans[at - 1]!.to + 1);
      }),
    );
  });
});
