import { isIneffective, isWhereBuildLooks } from '../../facts/effective.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A repository of an SDK is declared where the build does not look. */
export const repositoryPassedOver = defineRule({
  meta: {
    id: 'build/repository-passed-over',
    severity: 'blocker',
    ifShipped: 'The build stops: the SDK cannot be found, although its repository is declared.',
    mend: 'Declare the repository next to those that Gradle uses in this build.',
    messages: {
      found: 'Gradle ignores {url}: {why}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        if (fact.kind !== 'repository' || !isIneffective(fact, 'repository-ignored')) continue;
        const counts = scope.facts.some(
          (other) =>
            other.kind === 'repository' && other.network === fact.network && isWhereBuildLooks(other),
        );
        if (counts) continue;
        const why =
          fact.scope === 'project'
            ? 'the settings use only their own repositories'
            : 'the project declares repositories of its own, and Gradle uses only those';
        yield { ...fromFact(fact), message: 'found', data: { url: fact.value, why } };
      }
    }
  },
});
