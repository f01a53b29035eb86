import { defineRule } from '../model.js';
import { editionScopes, fromFact, lackingVariants, listed, removalsAmong } from '../scope.js';

/** A network is enrolled, but a variant carries no app ID for it where the SDK looks. */
export const appIdMissing = defineRule({
  meta: {
    id: 'app-id/missing',
    severity: 'blocker',
    ifShipped: 'The SDK finds no app ID when it starts: most stop the app at launch, the others show no ads.',
    mend: 'Declare the app ID where the SDK looks for it, for both stages.',
    byWiring: 'Run syndexa wire: it declares the app ID for both stages.',
    otherMends: {
      removed:
        'Take the directive out of this manifest, or accept the finding if these variants are meant to do without.',
    },
    messages: {
      removed: 'The app ID of {network} ({key}) is removed from {variants} by {directive}.',
      declared: 'The app ID of {network} ({key}) is missing in {variants}.',
      inCode: 'No code passes the {label} of {network} to its start-up call in {variants}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        const place = profile[scope.platform]?.['app-id'];
        if (!place || !profile.ids.app) continue;
        const here = [...scope.facts, ...context.survey.unresolved].filter(
          (fact) =>
            fact.kind === 'app-id' && fact.network === profile.id && fact.module === scope.edition.module,
        );
        const lacking = lackingVariants(scope, here);
        const removals = removalsAmong(
          scope.facts.filter((fact) => here.includes(fact)),
          lacking,
        );
        for (const { fact, directive, variants } of removals) {
          const data = { network: profile.name, key: fact.name ?? '', directive, variants: listed(variants) };
          yield { ...fromFact(fact), variants, message: 'removed', mend: 'removed', data };
        }
        const variants = lacking.filter((one) => !removals.some((removal) => removal.variants.includes(one)));
        if (variants.length === 0) continue;
        const common = {
          platform: scope.platform,
          module: scope.edition.module,
          variants,
          network: profile.id,
          place: scope.edition.home,
        };
        const data = { network: profile.name, variants: listed(variants) };
        if (place.place === 'code')
          yield { ...common, message: 'inCode', data: { ...data, label: profile.ids.app.label } };
        else yield { ...common, message: 'declared', data: { ...data, key: place.key } };
      }
    }
  },
});
