import type { Decoded } from '../inventory/dialect.js';
import type { Profile } from '../network/model.js';
import type { Report, ReportField } from '../network/report.js';
import { ownText } from '../text/own-text.js';
import { readPattern } from '../text/patterns.js';
import { dayReader, dayText, daysIn, type Day } from './days.js';
import { countReader, moneyReader, type ReadNumber } from './money.js';
import type { Counts, TallyRow } from './model.js';

/** What a row says in a field; undefined where it has no such field. */
export type Cell = (field: ReportField) => string | undefined;

/** Nobody reported daily numbers before this day. */
const earliest: Day = 10_957;
/** What divides a day is kept in full, up to this length. */
const maxPart = 400;
/** A longer text is no ID. */
const longestId = 2_000;
/** The maximum number of cached judgements of IDs. */
const maxKnown = 100_000;

/**
 * Returns a reader for the rows of a network's report, in the words of its profile. A row that makes no sense comes
 * back with the reason; nothing in it is guessed.
 * @param now decides which days are still to come
 */
export function rowDecoder(
  profile: Profile,
  report: Report,
  now: Date,
): (cell: Cell, splits: readonly string[]) => Decoded<TallyRow> {
  const readDay = dayReader(report.day, report.zone);
  const today = daysIn(report.zone)(now.getTime());
  const countsOf = countsReader(report);
  const isTimed = report.day === 'timestamp';
  const appOf = idReader(profile, 'app');
  const unitOf = idReader(profile, 'unit');
  return (cell, splits) => {
    const written = cell('day') ?? '';
    const day = readDay(written);
    if (day === null) return problem(dayProblem(written, report.day));
    if (day < earliest || day > today)
      return problem(`the day ${dayText(day)} is ${day > today ? 'still to come' : 'too long ago'}`);
    const [inUnit, inApp] = [cell('unit') ?? '', cell('app') ?? ''];
    if (inUnit === '' && inApp === '') return problem('it names no unit');
    const unit = inUnit === '' ? '' : unitOf(inUnit);
    if (unit === null) return problem(noId(inUnit, profile, 'unit'));
    const app = inApp === '' ? '' : appOf(inApp);
    if (app === null) return problem(noId(inApp, profile, 'app'));
    const country = (cell('country') ?? '').toUpperCase();
    if (country !== '' && !isCountry(country))
      return problem(`“${shortened(country)}” is no country of two letters`);
    const currency = cell('currency') || report.currency || '';
    if (!isCurrency(currency)) return problem(currencyProblem(currency));
    const counts = countsOf(cell);
    if (isProblem(counts)) return problem(counts.problem);
    const part = partOf(isTimed ? [new Date(written).toISOString(), ...splits] : splits);
    if (part.length > maxPart)
      return problem(`what divides the day of its unit is longer than ${maxPart} characters`);
    const detail = splits.length > 0 ? 2 : isTimed ? 1 : 0;
    return { message: null, value: { day, unit, app, country, part, detail, currency, ...counts } };
  };
}

const isCountry = (text: string): boolean => /^[A-Z]{2}$/.test(text);
const isCurrency = (text: string): boolean => /^[A-Z]{3}$/.test(text);

/** Returns a reader for the numbers of a row. */
function countsReader(report: Report): (cell: Cell) => Counts | { problem: string } {
  const count = countReader(report);
  const money = moneyReader(report);
  return (cell) => {
    const requests = optional(cell('requests'), count);
    const matched = optional(cell('matched'), count);
    const impressions = count(cell('impressions') ?? '');
    const clicks = optional(cell('clicks'), count);
    const rewards = optional(cell('rewards'), count);
    const revenue = money(cell('revenue') ?? '');
    if (isProblem(requests)) return { problem: `requests: ${requests.problem}` };
    if (isProblem(matched)) return { problem: `matched: ${matched.problem}` };
    if (isProblem(impressions)) return { problem: `impressions: ${impressions.problem}` };
    if (isProblem(clicks)) return { problem: `clicks: ${clicks.problem}` };
    if (isProblem(rewards)) return { problem: `rewards: ${rewards.problem}` };
    if (isProblem(revenue)) return { problem: `revenue: ${revenue.problem}` };
    return { requests, matched, impressions, clicks, rewards, revenue };
  };
}

function currencyProblem(currency: string): string {
  return currency === ''
    ? 'it names no currency'
    : `“${shortened(currency)}” is no currency of three capital letters`;
}

function optional(text: string | undefined, read: (text: string) => ReadNumber): ReadNumber | null {
  return text === undefined || text === '' ? null : read(text);
}

function isProblem<Read>(value: Read | { problem: string }): value is { problem: string } {
  return typeof value === 'object' && value !== null && 'problem' in value;
}

/** What divides the numbers of a unit and day, as one text; empty where nothing does. */
function partOf(names: readonly string[]): string {
  if (names.length === 0) return '';
  return names.map((name) => name.replaceAll(/[\\|]/g, String.raw`\$&`)).join('|') || '|';
}

/**
 * Returns a function that recognises IDs of a network; other text gives null. It returns a copy, the same one for the
 * same ID, so that an ID that is kept does not keep the block of the table that it came in.
 */
function idReader(profile: Profile, kind: 'app' | 'unit'): (id: string) => string | null {
  const rules = profile.ids[kind];
  const pattern = rules && readPattern(rules.pattern);
  const known = new Map<string, string | null>();
  return (text) => {
    let id = known.get(text);
    if (id === undefined) {
      const own = ownText(text.slice(0, longestId));
      const fits = text.length <= longestId && (pattern ? pattern.matches(text) : text.length <= 500);
      id = fits ? own : null;
      if (known.size > maxKnown) known.clear();
      if (text.length <= longestId) known.set(own, id);
    }
    return id;
  };
}

function dayProblem(written: string, form: string): string {
  if (written === '') return 'it has no day';
  return `“${shortened(written)}” is no day as the profile describes it: ${form === 'timestamp' ? 'an instant such as 2026-10-01T06:00:00Z' : form}`;
}

function noId(id: string, { name, ids }: Profile, kind: 'app' | 'unit'): string {
  return `“${shortened(id)}” is no ${ids[kind]?.label ?? `${kind} ID`} of ${name}`;
}

function shortened(text: string): string {
  return text.length > 60 ? `${text.slice(0, 60)}…` : text;
}

function problem(message: string): { value: null; message: string } {
  return { value: null, message };
}
