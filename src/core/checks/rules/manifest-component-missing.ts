import { defineRule } from '../model.js';
import { editionScopes, fromFact, lackingVariants, listed, removalsAmong } from '../scope.js';

/** A component of an SDK is not declared. */
export const componentMissing = defineRule({
  meta: {
    id: 'manifest/component-missing',
    severity: 'blocker',
    ifShipped: 'The app crashes, or nothing happens, when the SDK starts the component.',
    mend: 'Declare the component in the application element of the main manifest.',
    byWiring: 'Run syndexa wire: it declares the component.',
    otherMends: {
      removed:
        'Take the directive out of this manifest, or accept the finding if these variants are meant to do without.',
    },
    messages: {
      removed: '{network} requires the {kind} {name}, but {directive} removes it from {variants}: {why}',
      missing: '{network} requires the {kind} {name}, which is not declared in {variants}: {why}',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      if (platform !== 'android') continue;
      for (const profile of scope.networks) {
        for (const { kind, name, why } of profile.android?.components ?? []) {
          const declared = scope.facts.filter((fact) => fact.kind === 'component' && fact.value === name);
          const lacking = lackingVariants(scope, declared);
          const removals = removalsAmong(declared, lacking);
          for (const { fact, directive, variants } of removals) {
            const data = { network: profile.name, kind, name, directive, variants: listed(variants), why };
            const base = { ...fromFact(fact), variants, network: profile.id };
            yield { ...base, message: 'removed', mend: 'removed', data };
          }
          const variants = lacking.filter(
            (one) => !removals.some((removal) => removal.variants.includes(one)),
          );
          if (variants.length === 0) continue;
          const data = { network: profile.name, kind, name, variants: listed(variants), why };
          yield {
            platform,
            module: edition.module,
            variants,
            network: profile.id,
            place: edition.home,
            message: 'missing',
            data,
          };
        }
      }
    }
  },
});
