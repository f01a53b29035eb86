import { defineRule } from '../model.js';
import { editionScopes, fromFact, networkName } from '../scope.js';

/** An ID that the roster knows is written into code by hand. */
export const hardCodedId = defineRule({
  meta: {
    id: 'code/hard-coded-id',
    severity: 'note',
    ifShipped: 'When the ID changes, every place has to be edited by hand, and one is forgotten.',
    mend: 'Name the placement through the placebook instead: syndexa wire --call-sites does it where it can.',
    byWiring: 'Run syndexa wire --call-sites: it names the placement through the placebook.',
    messages: {
      literal: '{id} is the {placement} placement of {network}, written as a literal.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        if (fact.kind !== 'unit-id' || fact.carrier !== 'code' || !fact.placement) continue;
        const data = {
          id: fact.value,
          placement: fact.placement,
          network: networkName(context, fact.network),
        };
        yield { ...fromFact(fact), message: 'literal', data };
      }
    }
  },
});
