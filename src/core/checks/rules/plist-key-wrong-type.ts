import type { FactOf } from '../../facts/model.js';
import {
  entryOf,
  holdsPlain,
  lackingIn,
  plainOfWritten,
  plainText,
  serves,
  type PlainValue,
} from '../../formats/plist/plain.js';
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
      content: '{network} requires {key} to hold {wanted}, which is not there.',
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
            if (!serves(fact.type, type))
              yield {
                ...fromFact(fact),
                network: profile.id,
                message: 'type',
                data: { ...data, wanted: type, found: fact.type },
              };
            else if (value !== undefined && !holdsPlain(plainOfWritten(fact), value))
              yield { ...fromFact(fact), network: profile.id, ...differing(fact, value, data) };
          }
        }
      }
    }
  },
});

/** The message for a value that differs. For an array or a dictionary it names what is missing. */
function differing(fact: FactOf<'plist-key'>, wanted: PlainValue, data: { network: string; key: string }) {
  const found = plainOfWritten(fact);
  if (typeof wanted !== 'object')
    return { message: 'value' as const, data: { ...data, wanted: plainText(wanted), found: fact.value } };
  const lacking = lackingIn(found, wanted).map((way) => {
    const value = way.reduce<PlainValue | undefined>(entryOf, wanted);
    const text = plainText(value ?? '');
    return way.length === 0 ? text : `${way.join(' › ')}: ${text}`;
  });
  return { message: 'content' as const, data: { ...data, wanted: lacking.join(', ') } };
}
