import { isInItsFolder } from '../companions.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact, networkName } from '../scope.js';

/** The companion file was made for another application than the one that is built. */
export const companionIdentifierDiffers = defineRule({
  meta: {
    id: 'companion/identifier-differs',
    severity: 'blocker',
    ifShipped: 'The SDK reports for another app: nothing arrives, or somebody else gets it.',
    mend: 'Get the file for this identifier from the network’s pages.',
    messages: {
      differs: 'The file of {network} was made for {found}, but the identifier of {variants} is {wanted}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        if (fact.kind !== 'companion' || !isInItsFolder(fact)) continue;
        const right = context.survey.facts.some(
          (other) =>
            other.kind === 'companion' &&
            other.network === fact.network &&
            other.place.path === fact.place.path &&
            other.value === scope.title.editions[scope.platform]?.identifier,
        );
        const wanted = scope.title.editions[scope.platform]?.identifier;
        if (right || wanted === undefined) continue;
        const data = {
          network: networkName(context, fact.network),
          found: fact.value,
          variants: fact.variants.join(', '),
          wanted,
        };
        yield { ...fromFact(fact), message: 'differs', data };
      }
    }
  },
});
