import { defineRule } from '../model.js';
import { trackingKey } from '../../formats/plist/keys.js';
import { editionScopes, fromFact, listed } from '../scope.js';

/** A title for children asks for permission to track. */
export const childrenAskedToTrack = defineRule({
  meta: {
    id: 'privacy/children-asked-to-track',
    severity: 'blocker',
    ifShipped: 'The store takes such a title down.',
    mend: 'Remove the text and the request, and tell each network the audience of the title.',
    messages: {
      asked: 'The title is for children, but the app asks for permission to track ({variants}).',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      if (scope.title.audience !== 'children') continue;
      for (const fact of scope.facts) {
        if (fact.kind !== 'plist-key' || fact.name !== trackingKey) continue;
        yield { ...fromFact(fact), message: 'asked', data: { variants: listed(fact.variants) } };
      }
    }
  },
});
