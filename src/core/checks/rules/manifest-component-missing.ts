import { defineRule } from '../model.js';
import { editionScopes, listed } from '../scope.js';

/** A component of an SDK is not declared. */
export const componentMissing = defineRule({
  meta: {
    id: 'manifest/component-missing',
    severity: 'blocker',
    ifShipped: 'The app crashes, or nothing happens, when the SDK starts the component.',
    mend: 'Declare the component in the application element of the main manifest.',
    messages: {
      missing: '{network} requires the {kind} {name}, but {variants} do not declare it: {why}',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      if (platform !== 'android') continue;
      for (const profile of scope.networks) {
        for (const { kind, name, why } of profile.android?.components ?? []) {
          const declared = scope.facts.filter((fact) => fact.kind === 'component' && fact.value === name);
          const variants = edition.variants
            .map((variant) => variant.name)
            .filter((variant) => !declared.some((fact) => fact.variants.includes(variant)));
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
