import type { TallyRow } from '../../core/tally/model.js';
import type { tallyRows } from './tally-schema.js';

/** A row as it is stored. */
export type StoredRow = typeof tallyRows.$inferSelect;

/** The numbers of a row, in the order of their columns. */
export function numbersOf({
  requests,
  matched,
  impressions,
  clicks,
  rewards,
  revenue,
}: TallyRow): (number | null)[] {
  return [requests, matched, impressions, clicks, rewards, revenue];
}

/** A row as it is stored next. A table that lacks a column takes nothing away that another one has brought. */
export function mergedWith(stored: StoredRow, row: TallyRow): TallyRow {
  return {
    ...row,
    requests: row.requests ?? stored.requests,
    matched: row.matched ?? stored.matched,
    clicks: row.clicks ?? stored.clicks,
    rewards: row.rewards ?? stored.rewards,
  };
}

/** Whether a row says what is stored already. */
export function isSame(stored: StoredRow, row: TallyRow): boolean {
  return (
    stored.requests === row.requests &&
    stored.matched === row.matched &&
    stored.impressions === row.impressions &&
    stored.clicks === row.clicks &&
    stored.rewards === row.rewards &&
    stored.revenue === row.revenue &&
    stored.currency === row.currency
  );
}
