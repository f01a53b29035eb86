import { defineRule } from '../model.js';
import { editionScopes, listed } from '../scope.js';

/** A network is enrolled, but a variant carries no app ID for it where the SDK looks. */
export const appIdMissing = defineRule({
  meta: {
    id: 'app-id/missing',
    severity: 'blocker',
    ifShipped: 'The SDK finds no app ID when it starts: most stop the app at launch, the others show no ads.',
    mend: 'Run syndexa wire: it declares the app ID for both stages.',
    messages: {
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
        const covered = new Set(
          here
            .filter(({ effective }) => effective === undefined || effective === true)
            .flatMap(({ variants }) => variants),
        );
        const variants = scope.edition.variants.map(({ name }) => name).filter((name) => !covered.has(name));
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
