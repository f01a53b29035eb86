import type { WeekAnswer } from '../../api/tally.js';
import { amountText } from '../../core/tally/money.js';
import { sparkline } from '../../core/text/sparkline.js';

type Units = readonly WeekAnswer['units'][number][];

/** What some units earned on each of seven days, and together: a line for each currency. */
export function weekLines(units: Units): string[] {
  const sums = new Map<string, number[]>();
  for (const { currency, revenue } of units)
    sums.set(
      currency,
      revenue.map((value, at) => value + (sums.get(currency)?.[at] ?? 0)),
    );
  return [...sums].map(([currency, days]) => {
    const sum = days.reduce((total, day) => total + day, 0);
    // Cents count only where there is not much else.
    const amount = sum >= 10_000_000 ? Math.round(sum / 1_000_000).toLocaleString('en') : amountText(sum);
    return `${sparkline(days, days.length)} ${amount} ${currency}`;
  });
}
