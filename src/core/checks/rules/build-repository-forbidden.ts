import { isIneffective } from '../../facts/effective.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A repository of an SDK is declared where the build forbids it. */
export const repositoryForbidden = defineRule({
  meta: {
    id: 'build/repository-forbidden',
    severity: 'blocker',
    ifShipped: 'The build stops before anything is compiled.',
    mend: 'Move the repository to dependencyResolutionManagement in the settings.',
    messages: {
      found: '{url} is declared in a project script, which the settings forbid (FAIL_ON_PROJECT_REPOS).',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        if (fact.kind !== 'repository' || !isIneffective(fact, 'repository-forbidden')) continue;
        yield { ...fromFact(fact), message: 'found', data: { url: fact.value } };
      }
    }
  },
});
