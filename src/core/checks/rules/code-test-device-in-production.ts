import { defineRule } from '../model.js';
import { callsOf, oncePerPlace } from '../code.js';
import { editionScopes, fromFact, listed, variantsAt } from '../scope.js';

/** Test devices are named in code that ships. */
export const testDeviceInProduction = defineRule({
  meta: {
    id: 'code/test-device-in-production',
    severity: 'blocker',
    ifShipped:
      'Owners of these devices, or of copies of their IDs, get test ads that earn nothing; some networks treat it as fraud.',
    mend: 'Register test devices in test builds only, under a condition such as BuildConfig.DEBUG or #if DEBUG.',
    messages: {
      ships: '{call} registers test devices in {variants}, which belong to the production stage.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const call of oncePerPlace(callsOf(scope, profile.id, 'test-devices'))) {
          // The placebook names devices in test builds only.
          if (/\bPlacebook\b/.test(call.code?.argument?.written ?? '')) continue;
          const variants = variantsAt(scope, call.variants, 'production');
          if (variants.length === 0) continue;
          yield {
            ...fromFact(call),
            variants,
            message: 'ships',
            data: { call: call.value, variants: listed(variants) },
          };
        }
      }
    }
  },
});
