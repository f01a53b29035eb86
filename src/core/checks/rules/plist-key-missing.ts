import { defineRule } from '../model.js';
import { trackingKey } from '../../formats/plist/keys.js';
import { withoutKey } from '../plist-keys.js';
import { editionScopes, listed } from '../scope.js';

/** A key that an SDK requires is not in the property list. */
export const plistKeyMissing = defineRule({
  meta: {
    id: 'plist/key-missing',
    severity: 'warning',
    ifShipped: 'What the key is for does not happen, without an error.',
    mend: 'Add the key to the property list.',
    messages: {
      missing: '{network} requires the key {key}, which is missing in {variants}: {why}',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      for (const profile of platform === 'ios' ? scope.networks : []) {
        for (const { key, why } of profile.ios?.keys ?? []) {
          if (key === trackingKey) continue;
          const variants = withoutKey(scope, key);
          if (variants.length === 0) continue;
          const data = { network: profile.name, key, variants: listed(variants), why };
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
    }
  },
});
