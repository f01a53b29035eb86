import { defineRule } from '../model.js';
import type { Fact } from '../../facts/model.js';
import { editionScopes, fromFact, listed, networkName } from '../scope.js';

/** One SDK is taken in twice, in different versions or by different managers. */
export const dependencyTwice = defineRule({
  meta: {
    id: 'build/dependency-twice',
    severity: 'warning',
    ifShipped: 'The build tool decides which version ships, or the linker finds every class twice.',
    mend: 'Remove one of the two lines.',
    messages: {
      twice: '{name} of {network} is a dependency of {variants} twice: {first} and {second}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const seen = new Map<string, Fact>();
      for (const fact of scope.facts) {
        if (fact.kind !== 'dependency' || !fact.network) continue;
        for (const variant of fact.variants) {
          const key = `${fact.network} ${scope.platform === 'ios' ? '' : fact.name} ${variant}`;
          const known = seen.get(key);
          if (!known) {
            seen.set(key, fact);
            continue;
          }
          if (known === fact || (known.name === fact.name && known.value === fact.value)) continue;
          const text = ({ name, value, place }: Fact) => `${name} ${value} (${place.path}:${place.line})`;
          const data = {
            name: fact.name ?? '',
            network: networkName(context, fact.network),
            variants: variant,
            first: text(known),
            second: text(fact),
          };
          yield {
            ...fromFact(fact),
            variants: [variant],
            message: 'twice',
            data: { ...data, variants: listed(fact.variants) },
          };
        }
      }
    }
  },
});
