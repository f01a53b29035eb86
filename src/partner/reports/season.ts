import { dayText, weekday, type Day } from '../../core/tally/days.js';
import type { Counts } from '../../core/tally/model.js';
import type { Format } from '../../core/words/words.js';
import { seeded, type Draw } from '../../core/text/seeded.js';
import { hashOf } from '../serving/hash.js';

/** A unit with generated daily numbers. */
export interface SimulatedUnit {
  id: string;
  /** Units of one app go up and down together. */
  app: string;
  format: Format;
  /** The first day on which it was asked. */
  since: Day;
}

/** What befalls a unit, or all units of an app, on some days. */
export interface Incident {
  /** Of one unit, or of all units of one app. */
  unit?: string | undefined;
  app?: string | undefined;
  from: Day;
  to?: Day | undefined;
  what: 'silent' | 'unfilled' | 'unshown' | 'fewer' | 'cheaper';
  /** For `fewer` and `cheaper`: what is left, from 0 to 1. */
  left?: number | undefined;
}

/**
 * What a format usually does: its part of the requests of an app, loaded ads that are shown, clicks, and the price of a
 * thousand (micros).
 */
const usual: Record<
  Format,
  { asked: number; shown: number; clicked: number; price: number; rewarded: boolean }
> = {
  banner: { asked: 1, shown: 0.96, clicked: 0.004, price: 350_000, rewarded: false },
  interstitial: { asked: 0.3, shown: 0.72, clicked: 0.03, price: 4_200_000, rewarded: false },
  rewarded: { asked: 0.18, shown: 0.55, clicked: 0.02, price: 9_500_000, rewarded: true },
  native: { asked: 0.6, shown: 0.9, clicked: 0.008, price: 1_200_000, rewarded: false },
  splash: { asked: 0.22, shown: 0.93, clicked: 0.015, price: 2_600_000, rewarded: false },
  video: { asked: 0.25, shown: 0.8, clicked: 0.006, price: 6_000_000, rewarded: false },
  notification: { asked: 0.12, shown: 0.98, clicked: 0.05, price: 180_000, rewarded: false },
};

/** How far the days of one app differ from what season and weekday say, as a share; and those of one unit. */
const spread = { app: 0.05, unit: 0.06 };

/** How many requests the smallest app makes on a usual day, and the largest. */
export interface Size {
  least: number;
  most: number;
}
const usualSize: Size = { least: 1_500, most: 40_000 };

/**
 * What a unit did on a day: growth, the seasons of the year, weekdays, days that are better or worse for the whole app,
 * and chance. The same seed, unit and day always give the same numbers. Null where nothing was asked.
 */
export function numbersOf(
  seed: number,
  unit: SimulatedUnit,
  day: Day,
  { incidents = [], size = usualSize }: { incidents?: readonly Incident[]; size?: Size } = {},
): Counts | null {
  const befalls = incidents.filter((one) => concerns(one, unit, day));
  if (day < unit.since || befalls.some(({ what }) => what === 'silent')) return null;
  const ofUnit = draws(seed, unit.id);
  const ofApp = draws(seed, unit.app);
  const today = draws(seed, `${unit.id} ${day}`);
  const appToday = draws(seed, `${unit.app} ${day}`);
  const { asked, shown, clicked, price, rewarded } = usual[unit.format];
  // An app has its users, and each of its units its part of what they do.
  const base = size.least * (size.most / size.least) ** ofApp() * asked * (0.75 + 0.5 * ofUnit());
  const volume =
    base *
    growth(ofApp(), day - unit.since) *
    ofWeekday(ofApp(), day) *
    ofSeason(ofApp(), day) *
    around(appToday, spread.app) *
    around(today, spread.unit) *
    left(befalls, 'fewer');
  const requests = Math.max(0, Math.round(volume));
  const fill = befalls.some(({ what }) => what === 'unfilled')
    ? 0
    : Math.min(0.995, (0.84 + 0.13 * ofUnit()) * around(today, 0.01));
  const matched = Math.min(requests, Math.round(requests * fill));
  const show = befalls.some(({ what }) => what === 'unshown')
    ? 0.03
    : Math.min(1, shown * around(today, 0.015));
  const impressions = Math.min(matched, Math.round(matched * show));
  const clicks = Math.min(
    impressions,
    Math.round(impressions * clicked * (0.6 + 0.8 * ofUnit()) * around(today, 0.15)),
  );
  const perThousand =
    price * (0.6 + 0.8 * ofUnit()) * ofPrice(day) * around(today, 0.08) * left(befalls, 'cheaper');
  return {
    requests,
    matched,
    impressions,
    clicks,
    rewards: rewarded ? Math.round(impressions * 0.94) : null,
    revenue: Math.round((impressions * perThousand) / 1000),
  };
}

function concerns({ unit, app, from, to }: Incident, one: SimulatedUnit, day: Day): boolean {
  const isItsOwn = unit === undefined ? app === one.app : unit === one.id;
  return isItsOwn && day >= from && (to === undefined || day <= to);
}

function left(incidents: readonly Incident[], what: Incident['what']): number {
  return incidents.filter((one) => one.what === what).reduce((rest, one) => rest * (one.left ?? 0.5), 1);
}

/** Numbers from 0 to 1 that belong to a name. */
function draws(seed: number, name: string): () => number {
  const draw: Draw = seeded(seed + hashOf(name));
  draw(2);
  return () => draw(1_000_000) / 1_000_000;
}

/** A factor around 1: the sum of twelve draws is close to a normal distribution. */
function around(draw: () => number, share: number): number {
  let sum = -6;
  for (let at = 0; at < 12; at++) sum += draw();
  return Math.exp(share * sum);
}

/** Titles grow or shrink by up to 3 percent a month. */
function growth(drawn: number, age: number): number {
  return Math.exp(((drawn - 0.35) * 0.05 * age) / 30);
}

/** Some titles are for weekends, others for working days. */
function ofWeekday(drawn: number, day: Day): number {
  const weekend = 0.75 + 0.7 * drawn;
  return weekday(day) >= 5 ? weekend : 1;
}

/** A year has a high and a low; the days around the turn of the year are the best. */
function ofSeason(drawn: number, day: Day): number {
  const date = dayText(day);
  const isHoliday = date.slice(5) >= '12-24' || date.slice(5) <= '01-02';
  return (1 + 0.15 * Math.sin(((day % 365.25) / 365.25 + drawn) * 2 * Math.PI)) * (isHoliday ? 1.2 : 1);
}

/** Advertisers pay most before the end of the year, and least after it. */
function ofPrice(day: Day): number {
  const month = Number(dayText(day).slice(5, 7));
  return [0.78, 0.84, 0.95, 0.98, 1, 1.02, 0.97, 0.95, 1.05, 1.12, 1.28, 1.35][month - 1] ?? 1;
}
