import { platformLabels } from '../../words/platform-labels.js';
import { isWhereBuildLooks } from '../../facts/effective.js';
import { appIdFacts, readAppId } from '../app-ids.js';
import { defineRule } from '../model.js';
import { fromValue, networkName } from '../scope.js';

/** The app ID of the other platform. */
export const appIdWrongPlatform = defineRule({
  meta: {
    id: 'app-id/wrong-platform',
    severity: 'blocker',
    ifShipped: 'The network refuses every request, or counts them for the other app.',
    mend: 'Write the ID of this platform here.',
    byWiring: 'Run syndexa wire: it puts in the ID of this platform.',
    messages: { other: '{id} is the {other} app ID of {network}, in the {platform} build.' },
    needsTitle: false,
  },
  *run(context) {
    for (const fact of appIdFacts(context).filter(isWhereBuildLooks)) {
      const reading = readAppId(fact, context);
      if (reading.is !== 'other-platform') continue;
      const platform = platformLabels[fact.platform];
      const other = platformLabels[fact.platform === 'android' ? 'ios' : 'android'];
      yield {
        ...fromValue(fact),
        message: 'other',
        data: { id: fact.value, other, platform, network: networkName(context, fact.network) },
      };
    }
  },
});
