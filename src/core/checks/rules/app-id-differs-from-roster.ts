import type { Fact } from '../../facts/model.js';
import { isWhereBuildLooks } from '../../facts/effective.js';
import type { Profile } from '../../network/model.js';
import { expectedIds } from '../../roster/expected.js';
import type { Title } from '../../roster/model.js';
import { readAppId } from '../app-ids.js';
import { defineRule } from '../model.js';
import { editionScopes, fromValue, networkName, variantsAt } from '../scope.js';
import { platformLabels } from '../../words/platform-labels.js';

/** A well-formed production app ID, but not the one that the roster holds. */
export const appIdDiffersFromRoster = defineRule({
  meta: {
    id: 'app-id/differs-from-roster',
    severity: 'blocker',
    ifShipped: 'Revenue goes to another app or account, or nowhere.',
    mend: 'Write the ID of the roster here, or correct the roster if the build is right.',
    byWiring: 'Run syndexa wire, or correct the roster if the build is right.',
    messages: {
      differs: '{id} is not the {stage} app ID that the roster holds for {network}: that is {expected}.',
      elsewhere:
        '{id} is the {found} app ID of {network} on {other}. Here the roster has {expected} for {stage}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const known = new Set(scope.expected.flatMap(({ id }) => id ?? []));
      for (const fact of scope.facts.filter(
        (candidate) => candidate.kind === 'app-id' && isWhereBuildLooks(candidate),
      )) {
        const reading = readAppId(fact, context);
        if (reading.is !== 'right-kind' || reading.recognised.sample || known.has(fact.value)) continue;
        for (const { stage, id } of scope.expected.filter(
          (item) => item.kind === 'app' && item.network === fact.network,
        )) {
          const variants = variantsAt(scope, fact.variants, stage);
          if (variants.length === 0 || id === undefined) continue;
          const data = { id: fact.value, stage, network: networkName(context, fact.network), expected: id };
          const other = context.title && heldElsewhere(context.title, context.profiles, fact);
          yield other
            ? { ...fromValue(fact), variants, message: 'elsewhere', data: { ...data, ...other } }
            : { ...fromValue(fact), variants, message: 'differs', data };
        }
      }
    }
  },
});

/** The platform and stage of the title whose app ID equals a value; undefined if none does. */
function heldElsewhere(
  title: Title,
  profiles: readonly Profile[],
  { value, network, platform }: Fact,
): { other: string; found: string } | undefined {
  const elsewhere = platform === 'android' ? 'ios' : 'android';
  const held = expectedIds(title, profiles, elsewhere).find(
    (one) => one.kind === 'app' && one.network === network && one.id === value,
  );
  return held && { other: platformLabels[elsewhere], found: held.stage };
}
