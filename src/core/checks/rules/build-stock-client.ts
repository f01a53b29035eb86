import { oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** Packages with native code, and no client of one's own to develop with. */
export const stockClient = defineRule({
  meta: {
    id: 'build/stock-client',
    severity: 'note',
    ifShipped:
      'While developing, the SDK cannot be reached: the stock client holds none of its native code, so nothing of the ads is ever tried.',
    mend: 'Install expo-dev-client, and build a profile with developmentClient.',
    messages: {
      none: '{network} has native code, and there is no client for developing that holds it: {why}.',
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
