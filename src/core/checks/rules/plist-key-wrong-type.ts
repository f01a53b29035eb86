import { isInfoKey } from '../plist-keys.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A key of the property list has another type, or another value, than an SDK requires. */
export const plistKeyWrongType = defineRule({
  meta: {
    id: 'plist/key-wrong-type',
    severity: 'warning',
    ifShipped: 'The SDK ignores it: a flag that is written as text counts as not set.',
    mend: 'Set the key with the type and value named here.',
    messages: {
      type: '{network} reads {key} as {wanted}, but its type is {found} here.',
      value: '{network} requires {key} to be {wanted}, but it is {found} here.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.platform === 'ios' ? scope.networks : []) {
        for (const { key, type, value } of profile.ios?.keys ?? []) {
          for (const fact of scope.facts) {
            if (fact.kind !== 'plist-key' || fact.name !== key || !isInfoKey(fact)) continue;
            const data = { network: profile.name, key };
            if (fact.type !== type)
              yield {
                ...fromFact(fact),
                network: profile.id,
                message: 'type',
                data: { ...data, wanted: type, found: fact.type },
              };
            else if (value !== undefined && fact.value !== String(value))
              yield {
                ...fromFact(fact),
                network: profile.id,
                message: 'value',
                data: { ...data, wanted: String(value), found: fact.value },
              };
          }
        }
      }
    }
  },
});
