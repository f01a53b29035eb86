import type { Profile } from '../../network/model.js';
import type { Platform } from '../../words/words.js';
import { isEnrolled } from '../../roster/expected.js';
import type { SurveyEdition } from '../../facts/model.js';
import { compareVersions } from '../../text/versions.js';
import type { Tree } from '../../tree/tree.js';
import type { ByHand, Change } from '../../edits/model.js';
import { literalFixes } from './literal-fix.js';
import type { StackWiring, WireContext } from '../stack.js';

const rule = 'build/platform-level-too-low';

interface Level {
  kind: 'min-sdk' | 'compile-sdk' | 'deployment-target';
  what: string;
  needed: (profile: Profile) => string | undefined;
}

const levels: Record<Platform, readonly Level[]> = {
  android: [
    {
      kind: 'min-sdk',
      what: 'the minimum SDK',
      needed: ({ android }) => android?.['min-sdk']?.value.toString(),
    },
    {
      kind: 'compile-sdk',
      what: 'the compile SDK',
      needed: ({ android }) => android?.['compile-sdk']?.value.toString(),
    },
  ],
  ios: [
    {
      kind: 'deployment-target',
      what: 'the deployment target',
      needed: ({ ios }) => ios?.['deployment-target']?.value,
    },
  ],
};

/** Platform levels of an edition, raised to what enrolled networks need: only on request. */
export function wireLevels(context: WireContext & { tree: Tree; edition: SurveyEdition }): StackWiring {
  const { tree, title, profiles, survey, extras, edition } = context;
  const { platform, module } = edition;
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  if (!extras.levels) return { changes, byHand };
  const enrolled = profiles.filter(({ id }) => isEnrolled(title, id, platform));
  for (const { kind, what, needed } of levels[platform]) {
    const asking = enrolled.flatMap((profile) => {
      const value = needed(profile);
      return value === undefined ? [] : [{ network: profile.id, value }];
    });
    const wanted = asking
      .map(({ value }) => value)
      .sort(compareVersions)
      .at(-1);
    if (wanted === undefined) continue;
    const low = survey.facts.filter(
      (fact) => fact.kind === kind && fact.module === module && compareVersions(fact.value, wanted) < 0,
    );
    if (low.length === 0) continue;
    const fixes = literalFixes(
      tree,
      low.flatMap(({ variants, chain, value }) =>
        variants.map((variant) => ({ variant, chain, value, wanted })),
      ),
    );
    if (!fixes) {
      byHand.push({
        platform,
        network: null,
        rule,
        what: `Raise ${what} to ${wanted}.`,
        why: 'The place where it is set is not certain, or other things use it too.',
        where: low[0]?.place.path ?? null,
      });
      continue;
    }
    const needing = asking.filter(({ value }) => low.some((fact) => compareVersions(fact.value, value) < 0));
    for (const { network } of needing)
      changes.push(
        ...fixes.map(({ path, variants, ...edit }): Change => ({
          path,
          platform,
          network,
          topic: 'levels',
          rules: [rule],
          variants,
          kind: 'edit',
          edits: [edit],
        })),
      );
  }
  return { changes, byHand };
}
