import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A dependency is named and was not installed since. */
export const installNotRun = defineRule({
  meta: {
    id: 'build/install-not-run',
    severity: 'warning',
    ifShipped:
      'The project builds without the SDK, or does not build, on every machine that trusts the lock file.',
    mend: 'Run the install of the dependency manager (npm install, flutter pub get, pod install, dotnet restore, or resolve packages in Xcode or Unity) and keep its lock file.',
    messages: {
      stale: '{name} is asked for and stands not in {lock}: its install was not run since.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        if (fact.kind !== 'resolved-version' || fact.state !== 'missing') continue;
        const data = { name: fact.name ?? '', lock: fact.lock };
        yield { ...fromFact(fact), message: 'stale', data };
      }
    }
  },
});
