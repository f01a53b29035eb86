import type { PortfolioEntry } from '../../../core/portfolio/portfolio.js';
import { portfolioStates, type PortfolioState } from '../../../core/portfolio/states.js';
import type { WeekUnit } from '../../components/spark.js';

export const orders = ['work', 'name', 'changed', 'earned', 'record'] as const;
export type Order = (typeof orders)[number];

/** A title with its revenue. */
export interface Shown extends PortfolioEntry {
  week: readonly WeekUnit[];
}

/** What is shown, and in which order. */
export interface View {
  find: string;
  state: PortfolioState | null;
  network: string | null;
  order: Order;
  isGrouped: boolean;
}

/** The view that an address names. */
export function viewOf(search: URLSearchParams): View {
  const state = search.get('state');
  const order = search.get('sort');
  return {
    find: search.get('find') ?? '',
    state: portfolioStates.find((name) => name === state) ?? null,
    network: search.get('network'),
    order: orders.find((name) => name === order) ?? 'work',
    isGrouped: search.get('group') === 'state',
  };
}

/** A row of the table: a title, or the name of a group. */
export type Row = { title: Shown } | { group: PortfolioState; count: number };

/** The titles that a view shows, in its order. */
export function rowsOf(titles: readonly Shown[], { find, state, network, order, isGrouped }: View): Row[] {
  const wanted = find.trim().toLowerCase();
  const shown = titles.filter(
    (title) =>
      (wanted === '' || `${title.name} ${title.id}`.toLowerCase().includes(wanted)) &&
      (state === null || title.state === state) &&
      (network === null || title.networks.includes(network)),
  );
  const sorted = order === 'record' ? shown : [...shown].sort(comparisons[order]);
  if (!isGrouped) return sorted.map((title) => ({ title }));
  return portfolioStates.flatMap((group): Row[] => {
    const own = sorted.filter((title) => title.state === group);
    return own.length === 0 ? [] : [{ group, count: own.length }, ...own.map((title) => ({ title }))];
  });
}

const comparisons: Record<Exclude<Order, 'record'>, (one: Shown, other: Shown) => number> = {
  work: (one, other) =>
    portfolioStates.indexOf(one.state) - portfolioStates.indexOf(other.state) ||
    count(other, 'blocker') - count(one, 'blocker') ||
    other.cells.wrong - one.cells.wrong ||
    count(other, 'warning') - count(one, 'warning'),
  name: (one, other) => one.name.localeCompare(other.name),
  changed: (one, other) => (other.changed?.at ?? '').localeCompare(one.changed?.at ?? ''),
  earned: (one, other) => earnedBy(other) - earnedBy(one),
};

/** Findings of one severity, over all editions. */
export function count({ editions }: PortfolioEntry, severity: 'blocker' | 'warning' | 'note'): number {
  return editions.reduce((sum, { summary }) => sum + (summary?.[severity] ?? 0), 0);
}

/** The amount of the currency that a title earns most in, for sorting alone. */
function earnedBy({ week }: Shown): number {
  const sums = new Map<string, number>();
  for (const { currency, revenue } of week)
    sums.set(
      currency,
      revenue.reduce((sum, value) => sum + value, sums.get(currency) ?? 0),
    );
  return Math.max(0, ...sums.values());
}
