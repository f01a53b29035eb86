import { carriesId } from '../app-ids.js';
import { misplacedIn, misplacedMend } from '../misplaced.js';
import { defineRule } from '../model.js';
import { editionScopes, fromValue, listed, networkName, variantsAt } from '../scope.js';

/** A sample, or an ID that the roster keeps for testing, in a variant that ships. */
export const testIdInProduction = defineRule({
  meta: {
    id: 'stage/test-id-in-production',
    severity: 'blocker',
    ifShipped: 'Test ads are shown to everybody, and they earn nothing.',
    mend: 'Give the production variants production IDs here.',
    byWiring: 'Run syndexa wire: it keeps test IDs in the test variants.',
    otherMends: {
      code: 'Name the placement through the placebook here, instead of writing its ID: syndexa wire --call-sites does it where it can.',
      misplaced: misplacedMend,
      sample: 'Name the placement through the placebook here, instead of writing a sample ID.',
    },
    messages: { sample: '{id} is a test ID of {network}, but it ships in {variants}.' },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const production = new Set(
        scope.expected.filter(({ stage }) => stage === 'production').map(({ id }) => id),
      );
      const test = new Set(
        scope.expected.filter(({ stage, id }) => stage === 'test' && !production.has(id)).map(({ id }) => id),
      );
      const isMisplaced = misplacedIn(scope);
      for (const fact of scope.facts) {
        if (!carriesId(fact, context)) continue;
        const sample = context.recogniser
          .recognise(fact.value.trim(), fact.network ?? undefined)
          .some((reading) => reading.network === fact.network && reading.sample);
        const variants = variantsAt(scope, fact.variants, 'production');
        if (variants.length === 0 || !(sample || test.has(fact.value))) continue;
        const isHeld = fact.kind === 'unit-id' && fact.placement != null;
        const mend =
          fact.carrier !== 'code' ? undefined : isMisplaced(fact) ? 'misplaced' : isHeld ? 'code' : 'sample';
        yield {
          ...fromValue(fact),
          variants,
          ...(mend ? { mend } : {}),
          message: 'sample',
          data: { id: fact.value, network: networkName(context, fact.network), variants: listed(variants) },
        };
      }
    }
  },
});
