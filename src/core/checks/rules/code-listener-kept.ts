import { callsOf, oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A listener is handed to an SDK and never taken back. */
export const listenerKept = defineRule({
  meta: {
    id: 'code/listener-kept',
    severity: 'warning',
    ifShipped:
      'Each visit to the screen adds another listener: events are counted more than once, and closed screens stay in memory.',
    mend: 'Remove the listener when the screen is disposed of.',
    messages: { kept: '{call} adds a listener of {network}, but nothing in {file} calls {remove}.' },
    needsTitle: true,
  },
  *run(context) {
    const found = editionScopes(context).flatMap((scope) =>
      scope.networks.flatMap((profile) => {
        const removed = callsOf(scope, profile.id, 'stop-listening');
        return callsOf(scope, profile.id, 'listen').flatMap((call) => {
          const both = Object.values(profile.code).find((code) => code.listeners?.add === call.value);
          const remove = both?.listeners?.remove;
          const ends = removed.some(({ place }) => place.path === call.place.path);
          return remove === undefined || ends ? [] : [{ call, profile, remove, place: call.place }];
        });
      }),
    );
    for (const { call, profile, remove } of oncePerPlace(found)) {
      const file = call.place.path.split('/').at(-1) ?? call.place.path;
      const data = { call: call.value, network: profile.name, file, remove };
      yield { ...fromFact(call), platform: null, module: null, variants: [], message: 'kept', data };
    }
  },
});
