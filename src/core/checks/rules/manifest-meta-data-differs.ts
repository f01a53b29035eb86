import { wantedMetaData } from '../../network/wanted.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A meta-data element has another value than an SDK requires. */
export const metaDataDiffers = defineRule({
  meta: {
    id: 'manifest/meta-data-differs',
    severity: 'warning',
    ifShipped: 'The SDK is switched to something that it is not meant to do in this app.',
    mend: 'Give the element the attribute and the value that are named here.',
    byWiring: 'Run syndexa wire: it writes the value.',
    messages: {
      differs: '{network} needs {key} to have {wanted}, but it has {found}: {why}',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const { key, why, ...needed } of profile.android?.['meta-data'] ?? []) {
          const wanted = wantedMetaData(needed);
          if (!wanted) continue;
          for (const fact of scope.facts) {
            if (fact.kind !== 'meta-data' || fact.name !== key || fact.effective !== true) continue;
            // What is put in only when the build runs cannot be compared.
            if (fact.value.includes('${') || (fact.value === wanted.text && fact.as === wanted.as)) continue;
            const data = {
              network: profile.name,
              key,
              wanted: `android:${wanted.as}="${wanted.text}"`,
              found: `android:${fact.as}="${fact.value}"`,
              why,
            };
            yield { ...fromFact(fact), network: profile.id, message: 'differs', data };
          }
        }
      }
    }
  },
});
