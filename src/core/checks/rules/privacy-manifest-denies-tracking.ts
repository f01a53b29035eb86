import { defineRule } from '../model.js';
import { trackingKey } from '../../formats/plist/keys.js';
import { fromFact, listed } from '../scope.js';

/** The privacy manifest says that the app does not track, and the app asks for permission to. */
export const manifestDeniesTracking = defineRule({
  meta: {
    id: 'privacy/manifest-denies-tracking',
    severity: 'warning',
    ifShipped: 'The store rejects the contradiction, and the system blocks the hosts of the networks.',
    mend: 'Set NSPrivacyTracking in the privacy manifest, and name the tracking domains there.',
    messages: {
      denies:
        'NSPrivacyTracking is {value} in {path}, but the app asks for permission to track ({variants}).',
    },
    needsTitle: false,
  },
  *run(context) {
    for (const fact of context.survey.facts) {
      if (fact.kind !== 'plist-key' || fact.name !== 'NSPrivacyTracking' || fact.value !== 'false') continue;
      const asking = context.survey.facts.filter(
        (other) => other.kind === 'plist-key' && other.name === trackingKey && other.module === fact.module,
      );
      const variants = [...new Set(asking.flatMap((other) => other.variants))].filter((name) =>
        fact.variants.includes(name),
      );
      if (variants.length === 0) continue;
      const data = { value: fact.value, path: fact.place.path, variants: listed(variants) };
      yield { ...fromFact(fact), variants, message: 'denies', data };
    }
  },
});
