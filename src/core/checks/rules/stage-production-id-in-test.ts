import { carriesId } from '../app-ids.js';
import { misplacedIn, misplacedMend } from '../misplaced.js';
import { defineRule } from '../model.js';
import { editionScopes, fromValue, listed, networkName, variantsAt } from '../scope.js';

/** An ID that earns money, in a variant that developers run. */
export const productionIdInTest = defineRule({
  meta: {
    id: 'stage/production-id-in-test',
    severity: 'blocker',
    ifShipped: 'Every tap during development counts as a real click, and networks suspend accounts for that.',
    mend: 'Give the test variants test IDs here.',
    byWiring: 'Run syndexa wire: it puts test IDs into the test variants.',
    otherMends: {
      code: 'Name the placement through the placebook here, instead of writing its ID: syndexa wire --call-sites does it where it can.',
      misplaced: misplacedMend,
    },
    messages: { live: '{id} is a production ID of {network}, but it is used in {variants}.' },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const test = new Set(scope.expected.filter(({ stage }) => stage === 'test').map(({ id }) => id));
      const production = new Set(
        scope.expected.filter(({ stage, id }) => stage === 'production' && !test.has(id)).map(({ id }) => id),
      );
      const isMisplaced = misplacedIn(scope);
      for (const fact of scope.facts) {
        if (!carriesId(fact, context)) continue;
        const variants = variantsAt(scope, fact.variants, 'test');
        if (variants.length === 0 || !production.has(fact.value)) continue;
        const mend = fact.carrier === 'code' ? (isMisplaced(fact) ? 'misplaced' : 'code') : undefined;
        yield {
          ...fromValue(fact),
          variants,
          ...(mend ? { mend } : {}),
          message: 'live',
          data: { id: fact.value, network: networkName(context, fact.network), variants: listed(variants) },
        };
      }
    }
  },
});
