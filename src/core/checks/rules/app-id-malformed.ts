import { isWhereBuildLooks } from '../../facts/effective.js';
import { appIdFacts, readAppId } from '../app-ids.js';
import { defineRule } from '../model.js';
import { fromValue, networkName } from '../scope.js';

/** The value is no ID: it carries white space, is text that is for an ID, or has another shape. */
export const appIdMalformed = defineRule({
  meta: {
    id: 'app-id/malformed',
    severity: 'blocker',
    ifShipped: 'The SDK does not recognise the text, and stops the app or shows no ads.',
    mend: 'Write the ID of the roster here.',
    byWiring: 'Run syndexa wire: it puts in the ID that the roster holds.',
    messages: {
      whiteSpace: 'The app ID of {network} contains white space: {value}.',
      placeholder: '{value} is a placeholder, not an app ID of {network}.',
      unknown: '{value} does not look like an app ID of {network}.',
    },
    needsTitle: false,
  },
  *run(context) {
    const messages = { 'white-space': 'whiteSpace', placeholder: 'placeholder', unknown: 'unknown' } as const;
    for (const fact of appIdFacts(context).filter(isWhereBuildLooks)) {
      const { is } = readAppId(fact, context);
      if (is !== 'white-space' && is !== 'placeholder' && is !== 'unknown') continue;
      yield {
        ...fromValue(fact),
        message: messages[is],
        data: { value: JSON.stringify(fact.value), network: networkName(context, fact.network) },
      };
    }
  },
});
