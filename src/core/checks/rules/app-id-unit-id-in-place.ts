import { isWhereBuildLooks } from '../../facts/effective.js';
import { appIdFacts, readAppId } from '../app-ids.js';
import { defineRule } from '../model.js';
import { fromValue, networkName } from '../scope.js';

/** A unit ID is used where an app ID belongs. */
export const appIdUnitIdInPlace = defineRule({
  meta: {
    id: 'app-id/unit-id-in-place',
    severity: 'blocker',
    ifShipped: 'The SDK does not know the ID when it starts, and stops the app or shows nothing.',
    mend: 'Write the app ID here, and not that of a unit.',
    byWiring: 'Run syndexa wire: it puts in the app ID.',
    messages: { unit: '{id} is a {kind} ID of {network}, but an app ID belongs here.' },
    needsTitle: false,
  },
  *run(context) {
    for (const fact of appIdFacts(context).filter(isWhereBuildLooks)) {
      const reading = readAppId(fact, context);
      if (reading.is !== 'other-kind') continue;
      yield {
        ...fromValue(fact),
        message: 'unit',
        data: { id: fact.value, kind: reading.kind, network: networkName(context, fact.network) },
      };
    }
  },
});
