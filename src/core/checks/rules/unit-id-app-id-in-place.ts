import { defineRule } from '../model.js';
import { callsOf, oncePerPlace } from '../code.js';
import { editionScopes, fromFact } from '../scope.js';

/** An app ID is given where a unit ID belongs. */
export const appIdInUnitPlace = defineRule({
  meta: {
    id: 'unit-id/app-id-in-place',
    severity: 'blocker',
    ifShipped: 'The network refuses every request of the placement.',
    mend: 'Pass the unit ID of the placement. The placebook has it.',
    messages: {
      app: '{call} takes a unit ID, but gets {id}, which is an app ID of {network}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const call of oncePerPlace(callsOf(scope, profile.id, 'load', 'show', 'view', 'identify'))) {
          for (const id of call.code?.argument?.ids ?? []) {
            const readings = context.recogniser
              .recognise(id, profile.id)
              .filter(({ network }) => network === profile.id);
            if (!readings.some(({ kind }) => kind === 'app') || readings.some(({ kind }) => kind === 'unit'))
              continue;
            yield {
              ...fromFact(call),
              message: 'app',
              data: { call: call.value, id, network: profile.name },
            };
          }
        }
      }
    }
  },
});
