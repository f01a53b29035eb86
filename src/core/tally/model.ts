import type { Day } from './days.js';
import type { Micros } from './money.js';

/** The numbers that a network reports. Null where it does not report them. */
export interface Counts {
  requests: number | null;
  /** Requests that were answered with an ad. */
  matched: number | null;
  impressions: number;
  clicks: number | null;
  rewards: number | null;
  revenue: Micros;
}

/** Not divided, divided by instants, divided by the columns that the profile names as `splits`. */
export type Detail = 0 | 1 | 2;

/** A row of a report: what one unit did on one day. */
export interface TallyRow extends Counts {
  day: Day;
  /** Empty in the total of an app. */
  unit: string;
  /** Empty where the row does not say. */
  app: string;
  /** Empty for all countries together. */
  country: string;
  /** What else divides the numbers of a unit and day, such as the hour; empty where nothing does. */
  part: string;
  /** How the row splits the day of a unit: not at all, by instants, or by more columns. */
  detail: Detail;
  currency: string;
}

/** A row that was written, and what became of it. */
export interface WrittenRow {
  /** The line of the table, or the number of the row of an answer, from 1. */
  line: number;
  row: TallyRow;
  /** `repeated` where the same import brought the same day, unit, country and part before. */
  was: 'new' | 'same' | 'restated' | 'repeated';
  /** The revenue on record before (micros). */
  before: Micros;
}

/** A row that was on record, and is no longer reported. */
export interface GoneRow {
  day: Day;
  currency: string;
  revenue: Micros;
}
