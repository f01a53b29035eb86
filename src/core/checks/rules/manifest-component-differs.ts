import { mendedAttribute } from '../../network/wanted.js';
import { valueAt } from '../../text/own-values.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A component of an SDK is declared with another attribute than the SDK requires. */
export const componentDiffers = defineRule({
  meta: {
    id: 'manifest/component-differs',
    severity: 'warning',
    ifShipped: 'The component does not start, looks wrong, or can be started by other apps.',
    mend: 'Write the attribute as the network requires it.',
    byWiring: 'Run syndexa wire: it writes the attribute as the network requires it.',
    messages: {
      differs: '{name} of {network} needs {attribute}="{wanted}", but the manifest says "{found}".',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const { kind, name, attributes } of profile.android?.components ?? []) {
          const declared = scope.facts.filter(
            (fact) =>
              fact.kind === 'component' &&
              fact.name === kind &&
              fact.value === name &&
              fact.effective === true,
          );
          for (const fact of declared) {
            if (fact.kind !== 'component' || !fact.attributes) continue;
            for (const [attribute, wanted] of Object.entries(attributes)) {
              const key = attribute.replace(/^android:/, '');
              const found = valueAt(fact.attributes, key);
              // One that is not written comes from the manifest of the SDK itself.
              if (found === undefined || mendedAttribute(key, found, wanted) === undefined) continue;
              const data = { name, network: profile.name, attribute, wanted, found };
              const place = (fact.places && valueAt(fact.places, key)) ?? fact.place;
              yield { ...fromFact(fact), place, message: 'differs', data };
            }
          }
        }
      }
    }
  },
});
