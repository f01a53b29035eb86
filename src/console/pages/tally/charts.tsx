import { useMemo, useRef } from 'react';
import {
  Bar,
  BarChart,
  Brush,
  CartesianGrid,
  Legend,
  Line,
  LineChart,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import type { FiguresAnswer, Release } from '../../../api/tally.js';
import { moneyText } from '../../../core/tally/money.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { metricOf, metricText, rowName } from './format.js';
import { metrics, type Metric } from './settings.js';

const colours = ['var(--teal)', 'var(--rust)', 'var(--ochre)', 'var(--slate)'];
/** Bars of more rows than this are left to the table. */
const mostBars = 12;
/** How long (ms) after the last move of the brush the days are loaded. */
const rest = 300;

interface ChartProps {
  daily: FiguresAnswer;
  figures: FiguresAnswer;
  releases: readonly Release[];
  metric: Metric;
  choose: (from: string, to: string) => void;
}

/** A line of days with releases and a brush, and bars of the rows; each has a table behind it. */
export function Charts({ daily, figures, releases, metric, choose }: ChartProps) {
  return (
    <>
      <Days daily={daily} figures={figures} releases={releases} metric={metric} choose={choose} />
      <Bars figures={figures} />
    </>
  );
}

interface DayPoint {
  day: string;
  values: ReadonlyMap<string, number | null>;
}

function Days({ daily, figures, releases, metric, choose }: ChartProps) {
  const waiting = useRef<ReturnType<typeof setTimeout>>(undefined);
  const currencies = daily.totals.map(({ currency }) => currency);
  // The same days stay the same list: the brush forgets where it is when it is handed another one.
  const points = useMemo(() => pointsOf(daily, metric), [daily, metric]);
  const at = (day: string | undefined, otherwise: number) => {
    const found = points.findIndex((point) => point.day === day);
    return found < 0 ? otherwise : found;
  };
  const isMoney = metric === 'revenue' || metric === 'ecpm';
  return (
    <figure className="chart" aria-label={`${metrics[metric]} day by day`}>
      <figcaption>
        {metrics[metric]} day by day. Drag the ends of the bar below to choose days; with the arrow keys, go
        from day to day.
      </figcaption>
      <ResponsiveContainer width="100%" height={260}>
        <LineChart data={points} margin={{ top: 18, right: 12, bottom: 4, left: 8 }}>
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <XAxis dataKey="day" stroke="var(--ink-soft)" minTickGap={40} />
          <YAxis stroke="var(--ink-soft)" width={64} tickFormatter={(value: number) => shortText(value)} />
          <Tooltip
            formatter={(value) => metricText(Number(value), metric)}
            contentStyle={{ background: 'var(--paper-raised)', border: '1px solid var(--rule-strong)' }}
          />
          {currencies.length > 1 && <Legend />}
          {releaseLines(releases, points)}
          {currencies.map((currency, index) => (
            <Line
              key={currency}
              type="linear"
              dataKey={(point: DayPoint) => point.values.get(currency) ?? null}
              name={isMoney ? currency : `paid in ${currency}`}
              stroke={colours[index % colours.length] ?? 'var(--teal)'}
              dot={false}
              isAnimationActive={false}
            />
          ))}
          <Brush
            dataKey="day"
            height={26}
            stroke="var(--teal)"
            fill="var(--paper-sunk)"
            startIndex={at(figures.days?.from, 0)}
            endIndex={at(figures.days?.to, points.length - 1)}
            onChange={({ startIndex, endIndex }) => {
              const [from, to] = [points[startIndex ?? 0]?.day, points[endIndex ?? 0]?.day];
              clearTimeout(waiting.current);
              if (from !== undefined && to !== undefined)
                waiting.current = setTimeout(() => choose(from, to), rest);
            }}
          />
        </LineChart>
      </ResponsiveContainer>
      <DayTable points={points} currencies={currencies} metric={metric} />
    </figure>
  );
}

/** Marks on the time axis where versions went out. */
function releaseLines(releases: readonly Release[], points: readonly DayPoint[]) {
  return releases
    .filter(({ day }) => points.some((point) => point.day === day))
    .map(({ platform, version, day }) => (
      <ReferenceLine
        key={`${platform} ${version}`}
        x={day}
        stroke="var(--rule-strong)"
        strokeDasharray="3 3"
        label={{
          value: `${platformLabels[platform]} ${version}`,
          position: platform === 'ios' ? 'top' : 'insideTopLeft',
          fill: 'var(--ink-soft)',
          fontSize: 10,
        }}
      />
    ));
}

interface DayTableProps {
  points: readonly DayPoint[];
  currencies: readonly string[];
  metric: Metric;
}

/** What the line draws, for those who read it. */
function DayTable({ points, currencies, metric }: DayTableProps) {
  return (
    <details>
      <summary>The days as a table</summary>
      <div className="ledger-scroll">
        <table className="ledger figures">
          <thead>
            <tr>
              <th>Day</th>
              {currencies.map((currency) => (
                <th key={currency}>{currency}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {points.map(({ day, values }) => (
              <tr key={day}>
                <th scope="row">{day}</th>
                {currencies.map((currency) => (
                  <td key={currency}>{valueText(values.get(currency), metric)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}

/** What the rows earned, as bars. The table below them says the same. */
function Bars({ figures }: { figures: FiguresAnswer }) {
  const { by, totals, rows } = figures;
  if (by === 'day') return null;
  return totals.map(({ currency }) => {
    const bars = rows
      .filter((row) => row.currency === currency)
      .slice(0, mostBars)
      .map((row) => ({
        name: row.unit ?? rowName(figures, row.key, null),
        revenue: row.revenue / 1_000_000,
      }));
    return (
      <figure key={currency} className="chart" aria-label={`Revenue in ${currency}`}>
        <ResponsiveContainer width="100%" height={28 * bars.length + 30}>
          <BarChart data={bars} layout="vertical" margin={{ top: 4, right: 24, bottom: 4, left: 8 }}>
            <XAxis
              type="number"
              stroke="var(--ink-soft)"
              tickFormatter={(value: number) => shortText(value)}
            />
            <YAxis type="category" dataKey="name" stroke="var(--ink-soft)" width={190} interval={0} />
            <Tooltip
              formatter={(value) => moneyText(Math.round(Number(value) * 1_000_000), currency)}
              contentStyle={{ background: 'var(--paper-raised)', border: '1px solid var(--rule-strong)' }}
            />
            <Bar dataKey="revenue" name="Revenue" fill="var(--teal)" isAnimationActive={false} />
          </BarChart>
        </ResponsiveContainer>
      </figure>
    );
  });
}

/** A point for each day, with a value for each currency. */
function pointsOf({ rows }: FiguresAnswer, metric: Metric): DayPoint[] {
  const points = new Map<string, Map<string, number | null>>();
  for (const row of rows) {
    const values = points.get(row.key) ?? new Map<string, number | null>();
    points.set(row.key, values.set(row.currency, metricOf(row, metric)));
  }
  return [...points].map(([day, values]) => ({ day, values }));
}

function valueText(value: number | null | undefined, metric: Metric): string {
  return value === null || value === undefined ? '–' : metricText(value, metric);
}

/** A number short enough for an axis. */
function shortText(value: number): string {
  return new Intl.NumberFormat('en', { notation: 'compact', maximumFractionDigits: 1 }).format(value);
}
