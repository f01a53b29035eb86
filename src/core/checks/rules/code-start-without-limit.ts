import { callsOf, oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** What the app draws first waits for the start-up of an SDK for as long as that takes. */
export const startWithoutLimit = defineRule({
  meta: {
    id: 'code/start-without-limit',
    severity: 'note',
    ifShipped: 'On a bad connection the first screen stays empty until the SDK gets an answer.',
    mend: 'Wait for a few seconds at most (Promise.race with a timer), then continue without ads.',
    messages: { open: 'The code waits for the start-up of {network} without a time limit.' },
    needsTitle: true,
  },
  *run(context) {
    const found = editionScopes(context).flatMap((scope) =>
      scope.networks.flatMap((profile) =>
        callsOf(scope, profile.id, 'start').flatMap((call) =>
          call.code?.waits === 'open' ? [{ call, profile, place: call.place }] : [],
        ),
      ),
    );
    for (const { call, profile } of oncePerPlace(found)) {
      const base = { ...fromFact(call), platform: null, module: null, variants: [] };
      yield { ...base, message: 'open', data: { network: profile.name } };
    }
  },
});
