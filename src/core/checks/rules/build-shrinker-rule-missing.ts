import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A build that shrinks its code lacks a rule that keeps a part of an SDK. */
export const shrinkerRuleMissing = defineRule({
  meta: {
    id: 'build/shrinker-rule-missing',
    severity: 'warning',
    ifShipped:
      'The shrinker removes or renames what the SDK looks up by name, and the app crashes in release builds only.',
    mend: 'Add the rule to the file of shrinker rules that this build takes in.',
    byWiring: 'Run syndexa wire: it adds the rule.',
    messages: {
      missing: '{network} needs the shrinker rule “{rule}”, and no file of rules of this build has it: {why}',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const { rule, why } of profile.android?.shrinker ?? []) {
          const held = scope.facts.filter(
            (fact) => fact.kind === 'shrinker-rule' && fact.network === profile.id && fact.name === rule,
          );
          for (const fact of scope.facts) {
            if (fact.kind !== 'shrinking') continue;
            const variants = fact.variants.filter((name) => !held.some((one) => one.variants.includes(name)));
            if (variants.length === 0) continue;
            const data = { network: profile.name, rule, why };
            yield { ...fromFact(fact), variants, network: profile.id, message: 'missing', data };
          }
        }
      }
    }
  },
});
