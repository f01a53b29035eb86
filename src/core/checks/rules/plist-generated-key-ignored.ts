import { isIneffective } from '../../facts/effective.js';
import { defineRule } from '../model.js';
import { fromFact, listed } from '../scope.js';

/** A build setting is named like a generated key, and generates nothing. */
export const generatedKeyIgnored = defineRule({
  meta: {
    id: 'plist/generated-key-ignored',
    severity: 'blocker',
    ifShipped: 'The property list lacks the key, and the SDK stops the app or earns nothing.',
    mend: 'Give the target a property list of its own (INFOPLIST_FILE) and set the key there.',
    messages: {
      ignored:
        'INFOPLIST_KEY_{key} has no effect in {variants}: Xcode generates only system keys, and only with GENERATE_INFOPLIST_FILE.',
    },
    needsTitle: false,
  },
  *run(context) {
    for (const fact of context.survey.facts) {
      if (!isIneffective(fact, 'setting-ignored')) continue;
      const data = { key: fact.name ?? '', variants: listed(fact.variants) };
      yield { ...fromFact(fact), message: 'ignored', data };
    }
  },
});
