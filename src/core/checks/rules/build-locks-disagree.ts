import { identityOf } from '../../facts/show.js';
import type { FactOf } from '../../facts/model.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** Two package managers each left a lock file, and these hold different versions of one package. */
export const locksDisagree = defineRule({
  meta: {
    id: 'build/locks-disagree',
    severity: 'warning',
    ifShipped:
      'Which SDK version is built depends on the package manager that was used; another machine may build the other one.',
    mend: 'Keep the lock file of the package manager that builds releases, and delete the other.',
    messages: { differ: '{lock} has {name} at {value}, but {other} has it at {held}.' },
    needsTitle: true,
  },
  *run(context) {
    const seen = new Set<string>();
    for (const scope of editionScopes(context)) {
      const held = scope.facts.filter(
        (fact): fact is FactOf<'resolved-version'> => fact.kind === 'resolved-version' && fact.value !== '',
      );
      for (const fact of held) {
        const earlier = held.find(
          (other) => identityOf(other) === identityOf(fact) && other.place.path !== fact.place.path,
        );
        const key = `${fact.name} ${fact.place.path}`;
        const first = earlier && held.indexOf(earlier) < held.indexOf(fact);
        if (!earlier || !first || earlier.value === fact.value || seen.has(key)) continue;
        seen.add(key);
        const data = {
          lock: fact.lock,
          name: fact.name ?? '',
          value: fact.value,
          other: earlier.lock,
          held: earlier.value,
        };
        yield { ...fromFact(fact), platform: null, module: null, variants: [], message: 'differ', data };
      }
    }
  },
});
