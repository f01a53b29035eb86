import { defineRule } from '../model.js';
import { callsOf, oncePerPlace } from '../code.js';
import { editionScopes, fromFact, listed, variantsAt } from '../scope.js';

/** Test devices are named in code that ships. */
export const testDeviceInProduction = defineRule({
  meta: {
    id: 'code/test-device-in-production',
    severity: 'blocker',
    ifShipped:
      'Whoever owns such a device, or its copied ID, is served test ads that earn nothing; some networks take it for fraud.',
    mend: 'Name test devices under a condition of test builds only, such as BuildConfig.DEBUG or #if DEBUG.',
    messages: {
      ships: '{call} names test devices in {variants}, which are of the production stage.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const call of oncePerPlace(callsOf(scope, profile.id, 'test-devices'))) {
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
