import { earlyLoads } from '../gates.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** Something is loaded while the question for consent is still open. */
export const loadBeforeConsent = defineRule({
  meta: {
    id: 'code/load-before-consent',
    severity: 'blocker',
    ifShipped:
      'Ads are requested for users who have not answered: the network refuses them, and the law may too.',
    mend: 'Load once the user has answered.',
    messages: {
      early: '{call} runs right after {ask}, and the user has answered only when {completed}: {why}',
      unawaited: '{call} runs right after {ask}, and nothing waits for the answer: {why}',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const { load, gate, completed, why } of earlyLoads(scope, profile, 'consent')) {
          const data = { call: load.value, ask: gate.value, why };
          yield completed === null
            ? { ...fromFact(load), message: 'unawaited', data }
            : { ...fromFact(load), message: 'early', data: { ...data, completed } };
        }
      }
    }
  },
});
