import type { SurveyEdition } from '../facts/model.js';
import type { Profile } from '../network/model.js';
import { platforms, type Compared } from '../words/words.js';
import { isEnrolled } from './expected.js';
import type { Title } from './model.js';
import { editionOf } from './modules.js';

/** Whether the editions of a tree can be compared with a title. */
export function comparedWith(
  editions: readonly SurveyEdition[],
  title: Title | null,
  profiles: readonly Profile[],
): Compared {
  if (!title) return 'no-title';
  const isUsed = platforms.some((platform) => profiles.some(({ id }) => isEnrolled(title, id, platform)));
  if (!isUsed) return 'no-networks';
  return platforms.some((platform) => editionOf(editions, title, platform)) ? 'title' : 'no-edition';
}
