import type { Day } from './days.js';
import type { Micros } from './money.js';
import type { Owner } from './owners.js';
import type { Release } from './releases.js';

/**
 * The daily numbers of one unit. All lists begin on `from` and end on the last day of its network. A value is null on
 * days for which the network has no rows at all.
 */
export interface UnitHistory {
  network: string;
  unit: string;
  /** The app that its rows name; empty where they name none. */
  app: string;
  /** Null for units that are in no record. */
  owner: Owner | null;
  /** The title of the app that its rows name. */
  appTitle: string | null;
  /** The first day on which it reported anything. */
  from: Day;
  /** Requests; impressions where the network reports no requests. */
  asked: readonly (number | null)[];
  /** Requests that were answered with an ad; null where it is not reported. */
  matched: readonly (number | null)[];
  impressions: readonly (number | null)[];
  /** In micros of its currency; what came in other currencies is left out. */
  revenue: readonly (Micros | null)[];
  currency: string;
}

/** The total that a network reports for an app, day by day. */
export interface AppHistory {
  network: string;
  app: string;
  from: Day;
  impressions: readonly (number | null)[];
}

/** A unit that a placement had before it got the one on record. */
export interface FormerUnit {
  network: string;
  unit: string;
  placement: string;
  platform: 'android' | 'ios';
}

/** The daily numbers that rules look at: those of one title, or those that belong to no title. */
export interface TallyHistory {
  units: readonly UnitHistory[];
  apps: readonly AppHistory[];
  /** The last day that each network has reported. */
  last: readonly { network: string; day: Day }[];
  /** Networks whose numbers were only imported from tables: a table may be of one app. */
  inTables: readonly string[];
  releases: readonly Release[];
  former: readonly FormerUnit[];
  /** Networks whose line was missing when app-ads.txt was last read. */
  lacksAppAds: readonly string[];
}

/** More days than this are not looked back at. */
export const historyDays = 400;
