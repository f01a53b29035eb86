import type { FactOf } from '../../facts/model.js';
import { valueAt } from '../../text/own-values.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact, listed } from '../scope.js';

/** Where a person writes IDs: the placebook and generated resources do not show that a placement is used. */
const inSources = new Set<FactOf<'unit-id'>['carrier']>(['code', 'layout', 'storyboard']);

/** A placement is used in the code of one platform only. */
export const placementOnOneSide = defineRule({
  meta: {
    id: 'platform/placement-on-one-side',
    severity: 'note',
    ifShipped: 'The placement earns on one platform and nobody misses it on the other.',
    mend: 'Use the placement on the other platform too, or remove its IDs for that platform from the roster.',
    messages: {
      onlyHere: 'The placement {placement} is used on {used.label}, but not in the code for {unused.label}.',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    const scopes = editionScopes(context);
    if (scopes.length < 2) return;
    for (const [placement, { units }] of Object.entries(context.title?.placements ?? {})) {
      const wanted = scopes.filter(({ platform, networks }) =>
        networks.some(({ id }) => valueAt(units, id)?.[platform] !== undefined),
      );
      const uses = wanted.map((scope) => ({
        scope,
        facts: scope.facts.filter(
          (fact) =>
            fact.placement === placement &&
            (fact.kind === 'placement-use' || (fact.kind === 'unit-id' && inSources.has(fact.carrier))),
        ),
      }));
      const used = uses.filter(({ facts }) => facts.length > 0);
      const unused = uses.filter(({ facts }) => facts.length === 0);
      const [first] = used.flatMap(({ facts }) => facts);
      if (!first || unused.length === 0) continue;
      const names = (list: typeof uses) => listed(list.map(({ scope }) => scope.platform));
      const data = { placement, used: names(used), unused: names(unused) };
      yield {
        ...fromFact(first),
        network: null,
        placement,
        platform: null,
        module: null,
        message: 'onlyHere',
        data,
      };
    }
  },
});
