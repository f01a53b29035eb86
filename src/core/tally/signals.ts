import { weekday, type Day } from './days.js';

/** Values day by day; null where nothing is known. */
export type Daily = readonly (number | null)[];

/** How many days back a usual level is looked for. */
const memory = 180;
/** The number of days whose median is a level. */
const window = 28;

/** The known values among the last ones. */
function known(values: Daily, from: number, to: number): number[] {
  return values.slice(Math.max(0, from), Math.max(0, to)).filter((value) => value !== null);
}

/** The middle of some numbers; NaN of none. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  const upper = sorted[middle] ?? NaN;
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] ?? NaN) + upper) / 2;
}

/** A unit that no longer makes requests. */
export interface Silence {
  /** Days in a row without a request, up to the last day. */
  days: number;
  /** So many days are unusual for this unit. */
  unusual: number;
}

/**
 * How long a unit has been silent, where that is unusual for it. A silence is unusual when it is longer than any in the
 * last 180 days before it, and at least two days long: a unit that rests every weekend is not silent on a Sunday.
 */
export function silence(asked: Daily): Silence | null {
  let days = 0;
  let end = asked.length;
  for (; end > 0; end--) {
    const value = asked[end - 1] ?? null;
    if (value !== null && value > 0) break;
    if (value !== null) days++;
  }
  if (end === 0) return null;
  const unusual = Math.max(2, longestRest(known(asked, end - memory, end)) + 1);
  return days >= unusual ? { days, unusual } : null;
}

function longestRest(values: readonly number[]): number {
  let [longest, run] = [0, 0];
  for (const value of values) {
    run = value > 0 ? 0 : run + 1;
    longest = Math.max(longest, run);
  }
  return longest;
}

/** A level that fell. */
export interface Step {
  /** How much is left of the level before, from 0 to 1. */
  left: number;
  /** Days since, the first one included. */
  days: number;
}

/** How a step down is judged. */
export interface StepOptions {
  /** The first day of the lists. */
  from: Day;
  /** The position at which the level may have fallen. */
  at: number;
  /** What others of the title did meanwhile: what falls with all of them is no fault of one. */
  others?: () => readonly Daily[];
  /** How many deviations a step has to have. */
  level?: number;
}

/** A step is at least this large, whatever the deviation: a third of the level. */
const leastStep = Math.log(1.5);
/** Days of one weekday never vary less than this, as a logarithm. */
const leastSpread = 0.06;
/** A step is looked at for so long. */
const longest = 42;
/** The usual number of deviations. On simulated years, it causes at most one false alarm per title and year. */
const usualLevel = 5;

/**
 * Whether a level fell at a position and stayed low. Levels are medians of logarithms from which the effect of the
 * weekday is taken: that of the 28 days before the position, and that of all days since. The spread is the median
 * absolute deviation of the days before. A step counts from its second day on, when it is larger than `level`
 * deviations of the difference, and when all days since are low. What the others fell by is taken off first.
 */
export function stepDown(values: Daily, { from, at, others, level = usualLevel }: StepOptions): Step | null {
  if (values.length - at < 2 || values.length - at > longest) return null;
  const own = fallOf(values, from, at);
  if (!own || own.days < 2) return null;
  const deviation = own.spread * Math.sqrt(1 / own.days + 1 / window);
  if (own.fall < leastStep || own.fall < level * deviation) return null;
  const shared = (others?.() ?? []).flatMap((other) => fallOf(other, from, at)?.fall ?? []);
  const common = shared.length === 0 ? 0 : Math.max(0, median(shared));
  const fall = own.fall - common;
  if (fall < leastStep || fall < level * deviation || own.least - common < fall / 2) return null;
  return { left: Math.exp(-fall), days: own.days };
}

interface Fall {
  /** The level before less the level since, as logarithms. */
  fall: number;
  /** The level before less the highest day since. */
  least: number;
  spread: number;
  days: number;
}

function fallOf(values: Daily, from: Day, at: number): Fall | null {
  const first = Math.max(0, at - 2 * window);
  const logs = values.map((value, index) => (value === null || index < first ? null : Math.log(value + 1)));
  const effects = weekdayEffects(logs, from, first, at);
  const plain = logs.map((value, index) =>
    value === null ? null : value - (effects[weekday(from + index)] ?? 0),
  );
  const before = known(plain, at - window, at);
  const since = known(plain, at, values.length);
  if (before.length < window / 2 || since.length === 0) return null;
  const usual = median(before);
  const spread = Math.max(leastSpread, 1.4826 * median(before.map((value) => Math.abs(value - usual))));
  return { fall: usual - median(since), least: usual - Math.max(...since), spread, days: since.length };
}

/** By how much each weekday differs from the others. */
function weekdayEffects(logs: Daily, from: Day, first: number, at: number): number[] {
  const all = median(known(logs, first, at));
  return Array.from({ length: 7 }, (_, wanted) => {
    const own = logs.slice(first, at).filter((_value, index) => weekday(from + first + index) === wanted);
    const values = own.filter((value) => value !== null);
    return values.length < 3 ? 0 : median(values) - all;
  });
}

/** A rate of the last days, and the one that was usual before. */
export interface RateChange {
  now: number;
  before: number;
  /** The position of the first of the days in a row on which the rate was nearer to the new level. */
  since: number;
}

/**
 * A rate in the last days beside the best level that it had in the last 180 days: the highest median of 28 days in a
 * row, looked for week by week. Null without enough of either.
 * @param days how many of the last days are taken together
 * @param least how much of the whole a day, and the last days together, must have to count
 */
export function rateChange(
  part: Daily,
  whole: Daily,
  { days, least }: { days: number; least: number },
): RateChange | null {
  const recent = lastKnown(whole, days);
  const [partNow, wholeNow] = [part, whole].map((values) => sumAt(values, recent));
  if (recent.length < days || wholeNow === undefined || partNow === undefined || wholeNow < least)
    return null;
  const until = recent[0] ?? 0;
  const rates = whole.slice(0, until).map((value, at) => {
    const own = part[at] ?? null;
    return value === null || own === null || value < least / days ? null : own / value;
  });
  let before = -Infinity;
  for (let end = until; end > Math.max(0, until - memory); end -= 7) {
    const values = known(rates, end - window, end);
    if (values.length >= window / 2) before = Math.max(before, median(values));
  }
  if (before <= 0) return null;
  const now = partNow / wholeNow;
  let since = until;
  while (since > 0 && (rates[since - 1] ?? now) < (now + before) / 2) since--;
  return { now, before, since };
}

/** The positions of the last known values, in order. */
function lastKnown(values: Daily, count: number): number[] {
  const found: number[] = [];
  for (let at = values.length - 1; at >= 0 && found.length < count; at--)
    if ((values[at] ?? null) !== null) found.unshift(at);
  return found;
}

function sumAt(values: Daily, positions: readonly number[]): number {
  return positions.reduce((sum, at) => sum + (values[at] ?? 0), 0);
}

/** The sum of the last values. */
export function sumOfLast(values: Daily, count: number): number {
  return known(values, values.length - count, values.length).reduce((sum, value) => sum + value, 0);
}

/** The sum of all values. */
export function sumOf(values: Daily): number {
  return sumOfLast(values, values.length);
}
