import type { Settings } from '../../words/settings.js';
import type { PlacebookStage } from './placebook.js';

/** One row of a list: the number of an item, from 0, or an ad. */
export type ListRow = number | 'ad';

/**
 * The rows of a list of content with ads: the first ad after `first` items, or after `every` where that is not given, and
 * one after every `every` items from there; one alone where that is not given. An empty list has none. The helpers in
 * placebooks must return the same.
 */
export function listRows({ first, every }: Pick<Settings, 'first' | 'every'>, items: number): ListRow[] {
  const start = first ?? every;
  const rows: ListRow[] = [];
  for (let item = 0; item <= items && items > 0; item++) {
    const since = start === undefined ? -1 : item - start;
    if (since === 0 || (since > 0 && every !== undefined && since % every === 0)) rows.push('ad');
    if (item < items) rows.push(item);
  }
  return rows;
}

/** Whether a placebook gets helpers for lists: some placement of it is in one. */
export const hasLists = (stages: readonly PlacebookStage[]): boolean =>
  stages.some(({ placements }) => placements.some(({ format }) => format === 'native'));

/** What the helpers say of themselves. */
export const listHelp = {
  adRows: 'In a list: the number of ads among this many items.',
  rows: 'In a list: the number of rows, items and ads together.',
  isAd: 'In a list: whether a row, counted from 0, is an ad.',
  itemAt: (nothing: string) => `In a list: the item, counted from 0, that a row shows; ${nothing} for an ad.`,
} as const;
