import { platforms, type Platform } from '../../words/words.js';
import { breaksFile } from '../broken-files.js';
import { defineRule } from '../model.js';
import type { Survey, SurveyEdition } from '../../facts/model.js';
import { editionScopes, listed } from '../scope.js';
import { platformLabels } from '../../words/platform-labels.js';

/** A tree builds several apps for one platform, and none of them is the title's edition. */
export const editionNotFound = defineRule({
  meta: {
    id: 'identifier/edition-not-found',
    severity: 'blocker',
    ifShipped: 'Nothing of this edition was checked.',
    mend: 'Correct the identifier in the roster, or name the folder of the right app.',
    otherMends: {
      several: 'Name the module: syndexa title set {title} --module {platform}=MODULE.',
    },
    messages: {
      several:
        'Several apps of this tree have the identifier {expected}: {modules}. The title has to name the module of one.',
      none: 'The tree builds {apps} for {platform.label}, but not {expected}.',
      nothing: 'No {platform} app was found in this tree: {expected} was looked for. {recognised}.',
    },
    needsTitle: true,
  },
  *run(context) {
    const found = new Set(editionScopes(context).map(({ platform }) => platform));
    const builds = (platform: Platform) =>
      context.survey.editions.filter((edition) => edition.platform === platform);
    const expectedOn = (platform: Platform) => context.title?.editions[platform]?.identifier;
    const isTitles = platforms.some(
      (platform) => sameApps(builds(platform), expectedOn(platform)).length > 0,
    );
    for (const platform of platforms) {
      const candidates = builds(platform);
      const expected = expectedOn(platform);
      if (found.has(platform) || expected === undefined) continue;
      if (candidates.length === 0) {
        // One platform may be built elsewhere; a tree that builds neither is the wrong one, or cannot be read.
        // A file that cannot be read is reported separately, because its content is unknown.
        if (found.size > 0 || isTitles || context.survey.problems.some(breaksFile)) continue;
        const recognised = recognisedIn(context.survey);
        const data: Record<string, string> = { platform: platformLabels[platform], expected, recognised };
        yield { platform, place: null, message: 'nothing' as const, data };
        continue;
      }
      const same = sameApps(candidates, expected);
      if (same.length > 1) {
        const modules = listed(same.map(({ module }) => module));
        const data: Record<string, string> = { platform, expected, modules };
        yield { platform, place: same[0]?.home ?? null, message: 'several' as const, mend: 'several', data };
        continue;
      }
      const apps = candidates
        .map(({ module, identifier }) => `${identifier ?? 'an app without a known identifier'} (${module})`)
        .join(', ');
      yield {
        platform,
        place: candidates[0]?.home ?? null,
        message: 'none' as const,
        data: { apps, platform, expected },
      };
    }
  },
});

/** The applications that have an identifier in a variant. */
function sameApps(editions: readonly SurveyEdition[], identifier: string | undefined): SurveyEdition[] {
  return editions.filter(
    ({ identifiers }) => identifier !== undefined && Object.values(identifiers).includes(identifier),
  );
}

/** What a tree was recognised as, in words. */
function recognisedIn({ stacks, passedOver }: Survey): string {
  const parts = [
    ...stacks.map(({ stack, root }) => `${stack} in ${root || 'the root'}`),
    ...passedOver.map(({ root, why }) => `${root || 'the root'} was skipped: ${why}`),
  ];
  if (parts.length === 0) return 'Nothing in it was recognised as an application that can be read';
  const [first = '', ...rest] = parts;
  return [`Recognised instead: ${first}`, ...rest].join('; ');
}
