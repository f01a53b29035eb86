import type { Platform } from '../words/words.js';
import type { Title } from './model.js';
import type { SurveyEdition } from '../facts/model.js';

/**
 * The application in a tree that is a title's edition: the module that the title names, else the one that has the
 * identifier, else the only one of its platform. Undefined when there is none, or when several could be meant.
 */
export function editionOf<E extends SurveyEdition>(
  editions: readonly E[],
  title: Title,
  platform: Platform,
): E | undefined {
  const { identifier: wanted, module: named } = title.editions[platform] ?? {};
  const candidates = editions.filter((edition) => edition.platform === platform);
  if (wanted === undefined) return undefined;
  if (named !== undefined) return candidates.find(({ module }) => module === named);
  const fitting = candidates.filter(({ identifiers }) => Object.values(identifiers).includes(wanted));
  if (fitting.length === 1) return fitting[0];
  return candidates.length === 1 ? candidates[0] : undefined;
}
