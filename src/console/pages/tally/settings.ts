import type { GroupName } from '../../../api/tally.js';

/** What a chart draws. */
export const metrics = {
  revenue: 'Revenue',
  requests: 'Requests',
  impressions: 'Impressions',
  fillRate: 'Fill rate',
  showRate: 'Show rate',
  ecpm: 'eCPM',
} as const;
export type Metric = keyof typeof metrics;

/** What rows can be, in words. */
export const groupings: Record<GroupName, string> = {
  placement: 'Placement',
  network: 'Network',
  platform: 'Platform',
  format: 'Format',
  country: 'Country',
  day: 'Day',
  week: 'Week',
  release: 'Release',
  title: 'Title',
};

/** What the address of the page says is shown. */
export interface TallySettings {
  by: GroupName;
  days: string;
  into: string | null;
  metric: Metric;
}

export function tallySettings(search: URLSearchParams, isAll: boolean): TallySettings {
  const by = search.get('by') ?? '';
  const metric = search.get('metric') ?? '';
  return {
    by: Object.hasOwn(groupings, by) ? (by as GroupName) : isAll ? 'title' : 'placement',
    days: search.get('days') ?? '28d',
    into: search.get('in'),
    metric: Object.hasOwn(metrics, metric) ? (metric as Metric) : 'revenue',
  };
}
