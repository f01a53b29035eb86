import { isIneffective, isWhereBuildLooks } from '../../facts/effective.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A repository of an SDK stands where the build does not look. */
export const repositoryPassedOver = defineRule({
  meta: {
    id: 'build/repository-passed-over',
    severity: 'blocker',
    ifShipped: 'The build stops: the SDK cannot be found, though its repository is named.',
    mend: 'Name the repository where the others of this build stand that count.',
    messages: {
      found: '{url} is passed over: {why}.',
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
            ? 'the settings prefer their own repositories to those of projects'
            : 'a project names repositories of its own, and Gradle then takes only those';
        yield { ...fromFact(fact), message: 'found', data: { url: fact.value, why } };
      }
    }
  },
});
