import { defineRule } from '../model.js';
import { trackingKey } from '../../formats/plist/keys.js';
import { withoutKey } from '../plist-keys.js';
import { editionScopes, listed } from '../scope.js';

/** The text that asks for permission to track is missing. */
export const trackingTextMissing = defineRule({
  meta: {
    id: 'privacy/tracking-text-missing',
    severity: 'warning',
    ifShipped:
      'The system does not ask, every request goes out without an identifier, and prices fall; a call that asks crashes the app.',
    mend: 'Add NSUserTrackingUsageDescription to the property list, in words that a user understands.',
    messages: {
      missing: '{network} asks for permission to track, but there is no text for it in {variants}.',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      for (const profile of platform === 'ios' ? scope.networks : []) {
        if (!profile.ios?.keys.some(({ key }) => key === trackingKey)) continue;
        const variants = withoutKey(scope, trackingKey);
        if (variants.length === 0) continue;
        const data = { network: profile.name, variants: listed(variants) };
        yield {
          platform,
          module: edition.module,
          variants,
          network: profile.id,
          place: edition.home,
          message: 'missing',
          data,
        };
      }
    }
  },
});
