import { isIdFact } from '../../facts/model.js';
import { misplacedIn, misplacedMend } from '../misplaced.js';
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
    otherMends: {
      app: 'Take the key from the placebook, which holds those of both stages and platforms.',
      misplaced: misplacedMend,
    },
    messages: {
      literal: '{id} is the {placement} placement of {network}, written as a literal.',
      app: '{id} is an app key of {network}, written as a literal.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const isMisplaced = misplacedIn(scope);
      for (const fact of scope.facts) {
        if (!isIdFact(fact) || fact.carrier !== 'code') continue;
        const data = { id: fact.value, network: networkName(context, fact.network) };
        if (fact.kind === 'app-id') yield { ...fromFact(fact), message: 'app', mend: 'app', data };
        else if (fact.placement)
          yield {
            ...fromFact(fact),
            message: 'literal',
            ...(isMisplaced(fact) ? { mend: 'misplaced' } : {}),
            data: { ...data, placement: fact.placement },
          };
      }
    }
  },
});
