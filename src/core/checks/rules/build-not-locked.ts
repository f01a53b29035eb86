import { installCommand } from '../install.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** An SDK is declared, and no lock file says which version is taken. */
export const notLocked = defineRule({
  meta: {
    id: 'build/not-locked',
    severity: 'note',
    ifShipped:
      'Two machines may build with different versions of the SDK, and nobody can tell which one shipped.',
    mend: 'Run {command} and commit the lock file.',
    messages: { open: '{name} is declared, but there is {lock} that pins its version.' },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        if (fact.kind !== 'resolved-version' || fact.state !== 'no-lock') continue;
        yield {
          ...fromFact(fact),
          message: 'open',
          data: { name: fact.name ?? '', lock: `no ${fact.lock}` },
          changing: { command: installCommand(fact.lock) },
        };
      }
    }
  },
});
