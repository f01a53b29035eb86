import { callsOf, formatOf, oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A screen releases an ad somewhere, but not where it goes away. */
export const keptBeyondScreen = defineRule({
  meta: {
    id: 'code/kept-beyond-screen',
    severity: 'warning',
    ifShipped: 'Each visit of the screen leaves an ad behind that is never let go, until memory runs out.',
    mend: 'Release it in dispose too, which runs however the screen is left.',
    messages: {
      kept: '{type} loads an ad of {network} and releases it in {where} only; dispose does not.',
    },
    needsTitle: true,
  },
  *run(context) {
    const found = editionScopes(context).flatMap((scope) =>
      scope.networks.flatMap((profile) =>
        callsOf(scope, profile.id, /^load /).flatMap((load) => {
          const type = load.code?.type;
          if (!load.place.path.endsWith('.dart') || !type) return [];
          const releases = callsOf(scope, profile.id, new RegExp(`^release ${formatOf(load)}$`)).filter(
            ({ place, code }) => place.path === load.place.path && code?.type === type,
          );
          const [first] = releases;
          if (!first || releases.some(({ code }) => code?.methods.includes('dispose'))) return [];
          return [{ load, profile, type, where: first.code?.methods[0] ?? type, place: load.place }];
        }),
      ),
    );
    for (const { load, profile, type, where } of oncePerPlace(found)) {
      const data = { type, network: profile.name, where };
      yield { ...fromFact(load), platform: null, module: null, variants: [], message: 'kept', data };
    }
  },
});
