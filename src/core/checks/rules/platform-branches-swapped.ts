import { oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { fromFact, networkName } from '../scope.js';
import { unitsOfOtherPlatform } from '../both-platforms.js';

/** The two branches of a choice by platform hold each other's IDs. */
export const branchesSwapped = defineRule({
  meta: {
    id: 'platform/branches-swapped',
    severity: 'blocker',
    ifShipped: 'Each platform uses the ID of the other: neither gets ads, and no figure can be trusted.',
    mend: 'Swap the two IDs, or name the placement through the placebook, which never mixes them up.',
    messages: {
      swapped:
        'Where the platform is {platform.label}, {network} is given {id}, which is its {placement} placement on {holder.label}.',
    },
    needsTitle: true,
  },
  *run(context) {
    const swapped = unitsOfOtherPlatform(context).filter(({ how }) => how === 'swapped');
    for (const { fact } of oncePerPlace(swapped.map((one) => ({ ...one, place: one.fact.place })))) {
      const one = swapped.find((candidate) => candidate.fact === fact);
      if (!one) continue;
      const data = {
        id: fact.value,
        placement: fact.placement ?? '',
        network: networkName(context, fact.network),
        holder: one.holder,
        platform: one.scope.platform,
      };
      yield { ...fromFact(fact), message: 'swapped', data };
    }
  },
});
