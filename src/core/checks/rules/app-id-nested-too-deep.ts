import { appIdFacts } from '../app-ids.js';
import { defineRule } from '../model.js';
import { fromFact, networkName } from '../scope.js';

/** The key is in a component instead of in the application element itself. */
export const appIdNestedTooDeep = defineRule({
  meta: {
    id: 'app-id/nested-too-deep',
    severity: 'blocker',
    ifShipped:
      'The SDK looks only in the application element, finds nothing there, and stops the app at launch.',
    mend: 'Move the declaration directly into the application element.',
    byWiring: 'Run syndexa wire: it moves the declaration into the application element.',
    messages: {
      nested:
        'The app ID of {network} is inside {holder}, where its SDK does not look. It belongs directly in the application element.',
    },
    needsTitle: false,
  },
  *run(context) {
    for (const fact of appIdFacts(context)) {
      const { effective } = fact;
      if (effective === true || effective.reason !== 'nested') continue;
      yield {
        ...fromFact(fact),
        message: 'nested',
        data: { network: networkName(context, fact.network), holder: effective.about ?? '' },
      };
    }
  },
});
