import { defineRule } from '../model.js';
import { fromFact, listed } from '../scope.js';
import { groupBy } from '../../text/group-by.js';

/** Two targets read one literal app ID from one property list. */
export const plistSharedByTargets = defineRule({
  meta: {
    id: 'plist/shared-by-targets',
    severity: 'warning',
    ifShipped: 'The network counts one app as the other.',
    mend: 'Refer to a build setting in the property list, and set it per target.',
    messages: {
      shared: '{targets} share this property list, so all of them carry the app ID {value}.',
    },
    needsTitle: false,
  },
  *run(context) {
    const written = context.survey.facts.filter(
      ({ platform, kind, chain }) => platform === 'ios' && kind === 'app-id' && chain.length === 1,
    );
    const byPlace = groupBy(written, ({ place, network }) => `${place.path} ${place.line} ${network}`);
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
