import { installCommand } from '../install.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A dependency is named and was not installed since. */
export const installNotRun = defineRule({
  meta: {
    id: 'build/install-not-run',
    severity: 'warning',
    ifShipped:
      'On every machine that uses the lock file, the project builds without the SDK or does not build.',
    mend: 'Run {command} and commit the lock file.',
    messages: {
      stale: '{name} is declared but missing from {lock}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        if (fact.kind !== 'resolved-version' || fact.state !== 'missing') continue;
        const data = { name: fact.name ?? '', lock: fact.lock };
        yield { ...fromFact(fact), message: 'stale', data, changing: { command: installCommand(fact.lock) } };
      }
    }
  },
});
