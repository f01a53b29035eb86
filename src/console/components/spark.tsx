import type { WeekAnswer } from '../../api/tally.js';
import { amountText, moneyText } from '../../core/tally/money.js';

export type WeekUnit = WeekAnswer['units'][number];

const width = 84;
const height = 20;

/** Seven days as bars, with their sum in words. */
export function Spark({ values, currency }: { values: readonly number[]; currency: string }) {
  const most = Math.max(...values, 1);
  const step = width / values.length;
  const sum = values.reduce((total, value) => total + value, 0);
  const label = `${moneyText(sum, currency)} in seven days`;
  return (
    <span className="spark" title={label}>
      <svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={label}>
        {values.map((value, at) => {
          const tall = Math.max(1, (value / most) * height);
          return <rect key={at} x={at * step + 1} y={height - tall} width={step - 2} height={tall} />;
        })}
      </svg>
      <span className="spark-sum">
        {shortAmount(sum)} {currency}
      </span>
    </span>
  );
}

/** An amount in little room: cents count only where there is not much else. */
function shortAmount(micros: number): string {
  return micros >= 10_000_000 ? Math.round(micros / 1_000_000).toLocaleString('en') : amountText(micros);
}

/** What some units earned together, currency by currency. */
export function WeekSpark({ units }: { units: readonly WeekUnit[] }) {
  const sums = new Map<string, number[]>();
  for (const { currency, revenue } of units) {
    const known = sums.get(currency) ?? revenue.map(() => 0);
    sums.set(
      currency,
      known.map((value, at) => value + (revenue[at] ?? 0)),
    );
  }
  if (sums.size === 0) return <span className="soft">—</span>;
  return [...sums].map(([currency, values]) => <Spark key={currency} values={values} currency={currency} />);
}
