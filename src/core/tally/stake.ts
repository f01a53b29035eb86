import type { TallyHistory, UnitHistory } from './history.js';
import type { Micros } from './money.js';
import { sumOfLast, type Daily } from './signals.js';

/** Money that is not earned, for thirty days. */
export interface Stake {
  micros: Micros;
  currency: string;
}

const month = 30;
const window = 28;
/** How far back a better time is looked for, in days. */
const memory = 180;

/**
 * What a placement could earn in thirty days but does not: what it earned in its best four weeks of the last half year,
 * or what the same placement earns on the other platform, less what it earned in the last week. Null where neither
 * earned.
 */
export function stakeOf(
  { units }: TallyHistory,
  {
    network,
    placement,
    platform,
  }: { network: string | null; placement: string | null; platform: string | null },
): Stake | null {
  const own = units.filter(
    ({ owner, ...unit }) =>
      owner?.stage === 'production' &&
      owner.placement === placement &&
      (network === null || unit.network === network),
  );
  const mine = own.filter(({ owner }) => platform === null || owner?.platform === platform);
  const sisters = own.filter(({ owner }) => platform !== null && owner?.platform !== platform);
  const [first] = [...mine, ...sisters];
  if (!first || placement === null) return null;
  const { currency } = first;
  const total = (some: readonly UnitHistory[], amount: (revenue: Daily) => number) =>
    some.filter((unit) => unit.currency === currency).reduce((sum, { revenue }) => sum + amount(revenue), 0);
  const now = total(mine, (revenue) => sumOfLast(revenue, 7) / 7);
  const best = total(mine, bestDays);
  const usual = best > 0 ? best : total(sisters, (revenue) => sumOfLast(revenue, window) / window);
  const micros = Math.max(0, Math.round((usual - now) * month));
  return usual > 0 ? { micros, currency } : null;
}

/** The mean of a day in the best four weeks. */
function bestDays(revenue: Daily): number {
  let best = 0;
  for (let end = revenue.length; end > Math.max(0, revenue.length - memory); end -= 7)
    best = Math.max(best, sumOfLast(revenue.slice(0, end), window) / Math.min(window, end));
  return best;
}
