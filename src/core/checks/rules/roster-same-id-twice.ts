import { defineRule } from '../model.js';
import { isSample } from '../roster.js';
import { listed } from '../scope.js';

/** One unit ID is given to two placements. */
export const sameIdTwice = defineRule({
  meta: {
    id: 'roster/same-id-twice',
    severity: 'blocker',
    ifShipped: 'The network cannot tell the placements apart, in caps or in figures.',
    mend: 'Create a unit for each: syndexa provision.',
    messages: {
      same: '{id} is held by {placements}.',
    },
    needsTitle: true,
  },
  *run(context) {
    if (!context.title) return;
    const holders = new Map<string, Set<string>>();
    for (const [placement, { units }] of Object.entries(context.title.placements))
      for (const [network, platforms] of Object.entries(units))
        for (const stages of Object.values(platforms))
          for (const id of Object.values(stages)) {
            if (isSample(context, id)) continue;
            const key = `${network} ${id}`;
            holders.set(key, (holders.get(key) ?? new Set()).add(placement));
          }
    for (const [key, placements] of holders) {
      if (placements.size < 2) continue;
      const [network = '', id = ''] = key.split(' ');
      yield {
        network,
        placement: [...placements][0] ?? null,
        message: 'same',
        data: { id, placements: listed([...placements]) },
      };
    }
  },
});
