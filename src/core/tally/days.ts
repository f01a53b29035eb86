import * as z from 'zod';

/**
 * A calendar day as a number: days since 1 January 1970. A day has no time zone of its own, so that counting with days
 * never meets a day of 23 or 25 hours.
 */
export type Day = number;

const dayMs = 86_400_000;

/** The day of a date of the Gregorian calendar; null where there is no such date. */
export function dayOf(year: number, month: number, date: number): Day | null {
  const at = new Date(Date.UTC(year, month - 1, date));
  const isReal = at.getUTCFullYear() === year && at.getUTCMonth() === month - 1 && at.getUTCDate() === date;
  return isReal && year >= 1970 && year <= 2999 ? at.getTime() / dayMs : null;
}

/** A day as `2026-10-01`. */
export function dayText(day: Day): string {
  return new Date(day * dayMs).toISOString().slice(0, 10);
}

/** Reads `2026-10-01`; null for anything else. */
export function readDay(text: string): Day | null {
  const [, year, month, date] = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text) ?? [];
  return date === undefined ? null : dayOf(Number(year), Number(month), Number(date));
}

/** A day as requests and answers write it. */
export const DayText = z
  .string()
  .refine((text) => readDay(text) !== null, 'A day such as 2026-10-01.')
  .meta({ description: 'A day: year, month and date, such as 2026-10-01.' });

/** The day of the week, from 0 for Monday to 6 for Sunday. */
export function weekday(day: Day): number {
  return (((day + 3) % 7) + 7) % 7;
}

/** The Monday of the week of a day. */
export function weekOf(day: Day): Day {
  return day - weekday(day);
}

/** Returns the day that it is in a time zone (IANA name) at an instant (ms since 1970). */
export function daysIn(zone: string): (at: number) => Day {
  const format = new Intl.DateTimeFormat('en-CA', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  });
  // Clocks are set by whole quarters of an hour, so that all instants of one quarter are on one day.
  const known = new Map<number, Day>();
  return (at) => {
    const quarter = Math.floor(at / 900_000);
    let day = known.get(quarter);
    if (day === undefined) {
      day = readDay(format.format(at)) ?? Math.floor(at / dayMs);
      if (known.size > 50_000) known.clear();
      known.set(quarter, day);
    }
    return day;
  };
}

/** Some days in a row, the first and the last included. */
export interface Span {
  from: Day;
  to: Day;
}

/** The number of days of a span. */
export function lengthOf({ from, to }: Span): number {
  return to - from + 1;
}

/**
 * Reads days as people write them: `7d` for this number of days up to and including `last`, `2026-10-01..2026-10-07`,
 * `2026-10-01..07` or one day alone. Null for anything else, and for spans that end before they begin.
 */
export function readSpan(text: string, last: Day): Span | null {
  const count = /^([1-9]\d{0,3})d$/.exec(text)?.[1];
  if (count !== undefined) return { from: last - Number(count) + 1, to: last };
  const [, start = '', end = start] =
    /^(\d{4}-\d{2}-\d{2})(?:\.\.((?:\d{4}-)?(?:\d{2}-)?\d{2}))?$/.exec(text) ?? [];
  const from = readDay(start);
  const to = readDay(`${start.slice(0, Math.max(0, start.length - end.length))}${end}`);
  return from === null || to === null || to < from ? null : { from, to };
}

/** The days of a list as spans: days that follow each other are one. */
export function spansOf(days: Iterable<Day>): Span[] {
  const spans: Span[] = [];
  for (const day of [...new Set(days)].sort((a, b) => a - b)) {
    const last = spans.at(-1);
    if (last?.to === day - 1) last.to = day;
    else spans.push({ from: day, to: day });
  }
  return spans;
}

/** A span in words: `2026-10-01`, or `2026-10-01 to 2026-10-07`. */
export function daySpanText({ from, to }: Span): string {
  return from === to ? dayText(from) : `${dayText(from)} to ${dayText(to)}`;
}

/**
 * Returns a reader for days in a form: `dd.mm.yyyy` and the like, or `timestamp` for ISO 8601 instants with their
 * offset, which are cut into days of a zone. It returns null for text that is no day in this form; two digits are no
 * year.
 */
export function dayReader(form: string, zone: string): (text: string) => Day | null {
  const read = form === 'timestamp' ? instantReader(zone) : formReader(form);
  const known = new Map<string, Day | null>();
  return (text) => {
    let day = known.get(text);
    if (day === undefined) {
      day = read(text);
      if (known.size > 50_000) known.clear();
      known.set(text, day);
    }
    return day;
  };
}

function instantReader(zone: string): (text: string) => Day | null {
  const dayIn = daysIn(zone);
  return (text) => {
    const isInstant = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d{1,9})?)?(Z|[+-]\d{2}:?\d{2})$/.test(text);
    const at = isInstant ? Date.parse(text) : NaN;
    return Number.isFinite(at) && at >= 0 ? dayIn(at) : null;
  };
}

function formReader(form: string): (text: string) => Day | null {
  const [year, month, date] = ['yyyy', 'mm', 'dd'].map((part) => form.indexOf(part));
  return (text) => {
    if (text.length !== form.length || year === undefined || month === undefined || date === undefined)
      return null;
    for (let at = 0; at < form.length; at++) {
      const wanted = form[at] ?? '';
      const isDigit = text.charCodeAt(at) >= 48 && text.charCodeAt(at) <= 57;
      if (/[ymd]/.test(wanted) ? !isDigit : text[at] !== wanted) return null;
    }
    const part = (at: number, length: number) => Number(text.slice(at, at + length));
    return dayOf(part(year, 4), part(month, 2), part(date, 2));
  };
}

/** Writes a day in a form, as {@link dayReader} reads it; for `timestamp`, as a date of ISO 8601. */
export function writeDay(form: string, day: Day): string {
  const [year = '', month = '', date = ''] = dayText(day).split('-');
  if (form === 'timestamp') return dayText(day);
  return form.replace('yyyy', year).replace('mm', month).replace('dd', date);
}
