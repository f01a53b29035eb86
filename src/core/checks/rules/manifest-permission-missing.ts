import { defineRule } from '../model.js';
import { editionScopes, listed } from '../scope.js';

/** A permission that a network's SDK needs is not declared. */
export const permissionMissing = defineRule({
  meta: {
    id: 'manifest/permission-missing',
    severity: 'blocker',
    ifShipped: 'The SDK may not use the network, and every request fails.',
    mend: 'Run syndexa wire: it adds the permission to the main manifest.',
    messages: { missing: '{network} needs {permission}, but {variants} do not declare it: {why}' },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { edition, platform } = scope;
      if (platform !== 'android') continue;
      for (const profile of scope.networks) {
        for (const { name, why } of profile.android?.permissions ?? []) {
          const covered = new Set(
            scope.facts
              .filter((fact) => fact.kind === 'permission' && fact.name === name)
              .flatMap(({ variants }) => variants),
          );
          const variants = edition.variants
            .map((variant) => variant.name)
            .filter((variant) => !covered.has(variant));
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
