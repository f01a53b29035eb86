import { defineRule } from '../model.js';
import { editionScopes, fromFact, lackingVariants, listed, removalsAmong } from '../scope.js';

/** A permission that a network's SDK needs is not declared. */
export const permissionMissing = defineRule({
  meta: {
    id: 'manifest/permission-missing',
    severity: 'blocker',
    ifShipped: 'The SDK may not use the network, and every request fails.',
    mend: 'Declare the permission in the main manifest.',
    byWiring: 'Run syndexa wire: it adds the permission to the main manifest.',
    otherMends: {
      removed:
        'Take the directive out of this manifest, or accept the finding if these variants are meant to do without.',
    },
    messages: {
      missing: '{network} needs {permission}, which is not declared in {variants}: {why}',
      removed: '{network} needs {permission}, but {directive} removes it from {variants}: {why}',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { edition, platform } = scope;
      if (platform !== 'android') continue;
      for (const profile of scope.networks) {
        for (const { name, why } of profile.android?.permissions ?? []) {
          const found = scope.facts.filter((fact) => fact.kind === 'permission' && fact.name === name);
          const lacking = lackingVariants(scope, found);
          const removals = removalsAmong(found, lacking);
          for (const { fact, directive, variants } of removals) {
            const data = {
              network: profile.name,
              permission: name,
              directive,
              variants: listed(variants),
              why,
            };
            const base = { ...fromFact(fact), variants, network: profile.id };
            yield { ...base, message: 'removed', mend: 'removed', data };
          }
          const variants = lacking.filter(
            (one) => !removals.some((removal) => removal.variants.includes(one)),
          );
          if (variants.length === 0) continue;
          const data = { network: profile.name, permission: name, variants: listed(variants), why };
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
