import { namedOtherwise, placementsByType } from '../../roster/carrier-names.js';
import { defineRule } from '../model.js';
import { editionScopes, fromValue } from '../scope.js';

/** A unit ID is in a constant, or a class, that is named after another placement of the same format. */
export const unitOfAnotherPlacement = defineRule({
  meta: {
    id: 'code/unit-of-another-placement',
    severity: 'warning',
    ifShipped: 'Ads of one placement are counted, capped and paid as those of another.',
    mend: 'Use the unit ID of {says} here, or give the constant the name of the placement that it holds.',
    messages: { swapped: '{name} holds {id} of {network}, which is {placement}, not {says}.' },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        const byType = placementsByType(scope.facts, profile.id);
        for (const fact of scope.facts) {
          const other = namedOtherwise(fact, byType, scope.title, profile);
          if (!other) continue;
          const { name, says } = other;
          const data = { name, says, id: fact.value, network: profile.name, placement: fact.placement ?? '' };
          yield { ...fromValue(fact), message: 'swapped', data };
        }
      }
    }
  },
});
