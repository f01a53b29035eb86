import { defineRule } from '../model.js';
import { editionScopes, fromFact, lackingVariants, listed, removalsAmong } from '../scope.js';

/** A meta-data element that an SDK reads is not in the manifest. */
export const metaDataMissing = defineRule({
  meta: {
    id: 'manifest/meta-data-missing',
    severity: 'warning',
    ifShipped: 'The SDK runs with its own default, or stops where it has none.',
    mend: 'Add the meta-data element to the application element of the main manifest.',
    byWiring: 'Run syndexa wire: it writes the element.',
    otherMends: {
      removed:
        'Take the directive out of this manifest, or accept the finding if these variants are meant to do without.',
      nested: 'Move the element out of the component, directly into the application element.',
    },
    messages: {
      removed: '{network} reads the meta-data {key}, but {directive} removes it from {variants}: {why}',
      nested: '{network} reads the meta-data {key} of the application, but it is in {holder} here: {why}',
      missing: '{network} reads the meta-data {key}, which is missing in {variants}: {why}',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      if (platform !== 'android') continue;
      for (const profile of scope.networks) {
        for (const { key, why } of profile.android?.['meta-data'] ?? []) {
          const held = scope.facts.filter((fact) => fact.kind === 'meta-data' && fact.name === key);
          const lacking = lackingVariants(scope, held);
          const removals = removalsAmong(held, lacking);
          for (const { fact, directive, variants } of removals) {
            const data = { network: profile.name, key, directive, variants: listed(variants), why };
            const base = { ...fromFact(fact), variants, network: profile.id };
            yield { ...base, message: 'removed', mend: 'removed', data };
          }
          const variants = lacking.filter(
            (one) => !removals.some((removal) => removal.variants.includes(one)),
          );
          if (variants.length === 0) continue;
          const nested = held.find(
            ({ effective, ...fact }) =>
              effective !== true &&
              effective.reason === 'nested' &&
              variants.every((one) => fact.variants.includes(one)),
          );
          const base = { platform, module: edition.module, variants, network: profile.id };
          if (nested && nested.effective !== true) {
            const data = { network: profile.name, key, holder: nested.effective.about ?? '', why };
            yield { ...base, place: nested.place, message: 'nested', mend: 'nested', data };
          } else {
            const data = { network: profile.name, key, variants: listed(variants), why };
            yield { ...base, place: edition.home, message: 'missing', data };
          }
        }
      }
    }
  },
});
