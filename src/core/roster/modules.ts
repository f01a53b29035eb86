import type { Platform } from '../words/words.js';
import type { Title } from './model.js';
import type { SurveyEdition } from '../facts/model.js';

/**
 * The application in a tree that is a title's edition: the only one of its platform, or the one that has
 * the identifier. Undefined when there is none, or when several could be meant.
 */
export function editionOf<E extends SurveyEdition>(
  editions: readonly E[],
  title: Title,
  platform: Platform,
): E | undefined {
  const wanted = title.editions[platform]?.identifier;
  const candidates = editions.filter((edition) => edition.platform === platform);
  if (wanted === undefined) return undefined;
  const named = candidates.filter(({ identifiers }) => Object.values(identifiers).includes(wanted));
  if (named.length === 1) return named[0];
  return candidates.length === 1 ? candidates[0] : undefined;
}
