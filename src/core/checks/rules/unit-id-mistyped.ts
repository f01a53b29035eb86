import { defineRule } from '../model.js';
import { nearUnit } from '../near-ids.js';
import { editionScopes, fromValue } from '../scope.js';

/** A unit ID that no placement has, and that is one or two characters away from one that does. */
export const unitIdMistyped = defineRule({
  meta: {
    id: 'unit-id/mistyped',
    severity: 'blocker',
    ifShipped: 'The placement never serves an ad: the network knows no such unit, or it is somebody else’s.',
    mend: 'Correct the ID, or name the placement through the placebook instead of writing it.',
    messages: { near: 'No placement has {id} of {network}. Did you mean {near} ({placement})?' },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        if (fact.kind !== 'unit-id' || fact.placement || fact.network === null) continue;
        const profile = scope.networks.find(({ id }) => id === fact.network);
        const sample = context.recogniser
          .recognise(fact.value, fact.network ?? undefined)
          .some(
            ({ network, kind, sample: of }) =>
              network === fact.network && kind === 'unit' && of !== undefined,
          );
        const near = sample ? undefined : nearUnit(fact.value, fact.network, scope.title);
        if (!profile || !near) continue;
        const data = { id: fact.value, network: profile.name, near: near.id, placement: near.placement };
        yield { ...fromValue(fact), message: 'near', data };
      }
    }
  },
});
