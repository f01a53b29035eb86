import { platforms } from '../../words/words.js';
import { defineRule } from '../model.js';
import { editionScopes } from '../scope.js';

/** A tree builds several apps for one platform, and none of them is the title's edition. */
export const editionNotFound = defineRule({
  meta: {
    id: 'identifier/edition-not-found',
    severity: 'blocker',
    ifShipped: 'Nothing of this edition was checked.',
    mend: 'Correct the identifier in the roster, or name the folder of the right app.',
    messages: { none: 'The tree builds {apps} for {platform}, but not {expected}.' },
    needsTitle: true,
  },
  *run(context) {
    const found = new Set(editionScopes(context).map(({ platform }) => platform));
    for (const platform of platforms) {
      const candidates = context.survey.editions.filter((edition) => edition.platform === platform);
      const expected = context.title?.editions[platform]?.identifier;
      if (found.has(platform) || candidates.length === 0 || expected === undefined) continue;
      const apps = candidates
        .map(({ module, identifier }) => `${identifier ?? 'an app without a known identifier'} (${module})`)
        .join(', ');
      yield {
        platform,
        place: candidates[0]?.home ?? null,
        message: 'none',
        data: { apps, platform, expected },
      };
    }
  },
});
