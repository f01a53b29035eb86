import { oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** Packages with native code, and no client of one's own to develop with. */
export const stockClient = defineRule({
  meta: {
    id: 'build/stock-client',
    severity: 'note',
    ifShipped:
      'The SDK does not work during development: the stock client has none of its native code, so ads are never tested.',
    mend: 'Install expo-dev-client, and add a build profile with developmentClient.',
    messages: {
      none: '{network} has native code, but no development client includes it: {why}.',
    },
    needsTitle: true,
  },
  *run(context) {
    const found = editionScopes(context).flatMap(({ facts, networks }) => {
      const [profile] = networks;
      return facts.flatMap((fact) =>
        fact.kind === 'client' && profile ? [{ fact, profile, place: fact.place }] : [],
      );
    });
    for (const { fact, profile } of oncePerPlace(found)) {
      const base = { ...fromFact(fact), platform: null, module: null, variants: [] };
      yield { ...base, message: 'none', data: { network: profile.name, why: fact.value } };
    }
  },
});
