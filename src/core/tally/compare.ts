import type { Sums } from './figures.js';
import type { Micros } from './money.js';

/** Why revenue changed. The three parts add up to the change, to the micro. */
export interface Change {
  /** Revenue after less revenue before. */
  revenue: Micros;
  /** The part due to more or fewer requests. */
  volume: Micros;
  /** Because more of the requests, or fewer, ended in an impression. */
  fill: Micros;
  /** The part due to a higher or lower price of impressions. */
  price: Micros;
}

/**
 * Splits the change of revenue. Revenue is requests × impressions per request × revenue per impression; each factor takes
 * what its change makes, on average over the orders in which the three can change (Shapley value). Where requests are not
 * reported, impressions stand for them, and the fill has no part in it. A factor that is undefined on one side, because
 * nothing was requested or shown, counts as unchanged.
 */
export function changeBetween(before: Sums, after: Sums): Change {
  const revenue = after.revenue - before.revenue;
  const isCounted = before.requests !== null && after.requests !== null;
  const volumes = [before, after].map(({ requests, impressions }) =>
    isCounted ? (requests ?? 0) : impressions,
  );
  const [volume0 = 0, volume1 = 0] = volumes;
  const fills = [per(before.impressions, volume0), per(after.impressions, volume1)];
  const prices = [per(before.revenue, before.impressions), per(after.revenue, after.impressions)];
  const [fill0, fill1] = bothOf(fills);
  const [price0, price1] = bothOf(prices);
  const volume = Math.round(
    ((volume1 - volume0) * (2 * fill0 * price0 + fill0 * price1 + fill1 * price0 + 2 * fill1 * price1)) / 6,
  );
  const fill = Math.round(
    ((fill1 - fill0) * (2 * volume0 * price0 + volume0 * price1 + volume1 * price0 + 2 * volume1 * price1)) /
      6,
  );
  return { revenue, volume, fill, price: revenue - volume - fill };
}

function per(part: number, whole: number): number | null {
  return whole === 0 ? null : part / whole;
}

/** Two values of a factor; one that is undefined is as the other. */
function bothOf([before = null, after = null]: readonly (number | null)[]): [number, number] {
  return [before ?? after ?? 0, after ?? before ?? 0];
}

/** The sum of changes. */
export function plusChange(one: Change, other: Change): Change {
  return {
    revenue: one.revenue + other.revenue,
    volume: one.volume + other.volume,
    fill: one.fill + other.fill,
    price: one.price + other.price,
  };
}

export const noChange: Change = { revenue: 0, volume: 0, fill: 0, price: 0 };
