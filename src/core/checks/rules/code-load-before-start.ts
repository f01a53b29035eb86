import { earlyLoads } from '../gates.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** Something is loaded right after the start-up, which is not done by then. */
export const loadBeforeStart = defineRule({
  meta: {
    id: 'code/load-before-start',
    severity: 'warning',
    ifShipped: 'The first request of every launch fails, and the placement stays empty until the next.',
    mend: 'Load once the SDK has reported that it has started.',
    messages: {
      early:
        '{call} runs right after the start-up call of {network}, which has finished only when {completed}.',
      unawaited: '{call} runs right after the start-up call of {network}, and nothing waits for that to end.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const { load, completed } of earlyLoads(scope, profile, 'start')) {
          const data = { call: load.value, network: profile.name };
          yield completed === null
            ? { ...fromFact(load), message: 'unawaited', data }
            : { ...fromFact(load), message: 'early', data: { ...data, completed } };
        }
      }
    }
  },
});
