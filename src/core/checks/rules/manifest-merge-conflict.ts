import { defineRule } from '../model.js';
import { fromFact, listed } from '../scope.js';

/** Two manifests give one attribute different values. */
export const mergeConflict = defineRule({
  meta: {
    id: 'manifest/merge-conflict',
    severity: 'blocker',
    ifShipped: 'The manifest merger stops the build of these variants.',
    mend: 'Set the value in one manifest only (a string resource per source set separates stages), or add tools:replace to the stronger one.',
    messages: {
      conflict: '{name} has two values in {variants}: {value}.',
    },
    needsTitle: false,
  },
  *run(context) {
    for (const fact of context.survey.facts) {
      if (fact.kind !== 'merge-conflict') continue;
      const data = { name: fact.name ?? '', variants: listed(fact.variants), value: fact.value };
      yield { ...fromFact(fact), message: 'conflict', data };
    }
  },
});
