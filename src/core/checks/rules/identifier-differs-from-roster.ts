import { defineRule } from '../model.js';
import { editionScopes, fromValue, listed, variantsAt } from '../scope.js';

/** The identifier that ships is not the one in the roster. */
export const identifierDiffersFromRoster = defineRule({
  meta: {
    id: 'identifier/differs-from-roster',
    severity: 'blocker',
    ifShipped: 'The networks know the app by the registered identifier; requests from another earn nothing.',
    mend: 'Correct the build file named here, or the roster (syndexa title set {title} --{platform} ID).',
    messages: { differs: 'The build uses {value} in {variants}, but the roster has {expected}.' },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const expected = scope.title.editions[scope.platform]?.identifier;
      for (const fact of scope.facts.filter(({ kind }) => kind === 'identifier')) {
        const variants = variantsAt(scope, fact.variants, 'production');
        if (expected === undefined || variants.length === 0 || fact.value === expected) continue;
        yield {
          ...fromValue(fact),
          variants,
          message: 'differs',
          data: { value: fact.value, variants: listed(variants), expected },
        };
      }
    }
  },
});
