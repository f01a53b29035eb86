import type { Report, ReportField, ReportFields } from '../../core/network/report.js';
import { writeDay } from '../../core/tally/days.js';
import type { ReportRow } from './desk.js';

/** A row in the network's words: by the names of its fields. */
export function inWords(
  report: Report,
  fields: ReportFields,
  row: ReportRow,
): Record<string, string | number | null> {
  const values: Record<ReportField, string | number | null> = {
    day: row.quarter === null ? writeDay(report.day, row.day) : new Date(row.quarter).toISOString(),
    unit: row.unit,
    app: row.app,
    country: row.country,
    requests: row.requests,
    matched: row.matched,
    impressions: row.impressions,
    clicks: row.clicks,
    rewards: row.rewards,
    revenue: amountIn(report, row.revenue),
    currency: report.currency ?? 'EUR',
  };
  return Object.fromEntries(
    (Object.entries(fields) as [ReportField, string | undefined][]).flatMap(([field, name]) =>
      name === undefined ? [] : [[name, values[field]]],
    ),
  );
}

/** An amount as the network writes it, with all its digits. */
function amountIn({ revenue, decimal }: Report, micros: number): string {
  if (revenue === 'micros') return String(micros);
  const digits = revenue === 'units' ? 6 : 3;
  const text = String(micros).padStart(digits + 1, '0');
  return `${text.slice(0, -digits)}${decimal}${text.slice(-digits)}`;
}
