import { stackNamed } from '../../network/described.js';
import { requirementsOf } from '../../network/for-stack.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A package is declared, and nothing names the registry or feed that it is published in. */
export const feedMissing = defineRule({
  meta: {
    id: 'build/feed-missing',
    severity: 'blocker',
    ifShipped: 'The package cannot be found, so the build fails on every machine without a cached copy.',
    mend: 'Add {url} to the {feeds}.',
    byWiring: 'Run syndexa wire: it adds the feed.',
    messages: {
      missing: '{package} of {network} is published only in {url}, which this project does not use.',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    const seen = new Set<string>();
    for (const { edition, networks, facts } of editionScopes(context)) {
      for (const profile of networks) {
        const { feed: url, package: name } = requirementsOf(profile, edition.stack) ?? {};
        const asked = facts.find((fact) => fact.kind === 'dependency' && fact.name === name);
        if (url === undefined || name === undefined || !asked || seen.has(profile.id)) continue;
        const plain = (text: string) => text.replace(/\/+$/, '');
        if (facts.some(({ kind, value }) => kind === 'repository' && plain(value) === plain(url))) continue;
        seen.add(profile.id);
        const base = { ...fromFact(asked), platform: null, module: null, variants: [] };
        yield {
          ...base,
          message: 'missing',
          data: { package: name, network: profile.name, url },
          changing: { feeds: stackNamed(edition.stack)?.packages?.feeds ?? 'package feeds' },
        };
      }
    }
  },
});
