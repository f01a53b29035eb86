import { defineRule } from '../model.js';
import { editionScopes, fromFact, listed } from '../scope.js';

/** No script names the repository that an SDK comes from. */
export const repositoryMissing = defineRule({
  meta: {
    id: 'build/repository-missing',
    severity: 'blocker',
    ifShipped: 'The build stops: the SDK cannot be found.',
    mend: 'Add the repository next to the others of this tree.',
    byWiring: 'Run syndexa wire: it adds the repository.',
    messages: {
      missing: '{network} publishes {dependency} only in {url}, which is not a repository of {variants}.',
    },
    isAbsence: true,
    mayBeInScript: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      if (scope.platform !== 'android') continue;
      for (const profile of scope.networks) {
        const wanted = profile.android?.dependencies ?? [];
        const used = scope.facts.filter(
          ({ kind, name }) => kind === 'dependency' && wanted.some(({ coordinate }) => coordinate === name),
        );
        for (const { url } of profile.android?.repositories ?? []) {
          const there = scope.facts.filter(
            ({ kind, value }) =>
              kind === 'repository' && value.replace(/\/+$/, '') === url.replace(/\/+$/, ''),
          );
          const [first] = used;
          if (!first || there.length > 0) continue;
          const variants = [...new Set(used.flatMap((fact) => fact.variants))];
          const data = {
            network: profile.name,
            dependency: first.name ?? '',
            url,
            variants: listed(variants),
          };
          yield { ...fromFact(first), variants, message: 'missing', data };
        }
      }
    }
  },
});
