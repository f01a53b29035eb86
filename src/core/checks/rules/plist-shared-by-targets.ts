import { defineRule } from '../model.js';
import type { Fact } from '../../facts/model.js';
import { fromFact, listed } from '../scope.js';

/** Two targets read one literal app ID from one property list. */
export const plistSharedByTargets = defineRule({
  meta: {
    id: 'plist/shared-by-targets',
    severity: 'warning',
    ifShipped: 'One of the two applications is counted as the other.',
    mend: 'Refer to a build setting in the property list, and set it per target.',
    messages: {
      shared: '{targets} share this property list, so all of them carry the app ID {value}.',
    },
    needsTitle: false,
  },
  *run(context) {
    const byPlace = new Map<string, Fact[]>();
    for (const fact of context.survey.facts) {
      if (fact.platform !== 'ios' || fact.kind !== 'app-id' || fact.chain.length !== 1) continue;
      const key = `${fact.place.path} ${fact.place.line} ${fact.network}`;
      byPlace.set(key, [...(byPlace.get(key) ?? []), fact]);
    }
    for (const facts of byPlace.values()) {
      const [first] = facts;
      const modules = [...new Set(facts.map(({ module }) => module))];
      const identifiers = new Set(
        context.survey.editions
          .filter(({ platform, module }) => platform === 'ios' && modules.includes(module))
          .map(({ identifier }) => identifier),
      );
      if (!first || modules.length < 2 || identifiers.size < 2) continue;
      const variants = facts.flatMap((fact) => fact.variants);
      yield {
        ...fromFact(first),
        module: null,
        variants,
        message: 'shared',
        data: { targets: listed(modules), value: first.value },
      };
    }
  },
});
