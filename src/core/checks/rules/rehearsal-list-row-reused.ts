import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedOnNetworks } from '../rehearsed.js';

/** A row of a list is used again while it still has the ad of another. */
export const listRowReused = defineRule({
  meta: {
    id: 'rehearsal/list-row-reused',
    severity: 'warning',
    ifShipped: 'The row shows an ad that was counted elsewhere, and jumps when its own arrives.',
    mend: 'Release the ad where the row is recycled, or keep the ads by row.',
    messages: { reused: 'Row {row} of {placement} still shows the ad of another row.' },
    needsTitle: true,
  },
  *run(context) {
    for (const { fact } of rehearsedOnNetworks(context)) {
      const reused = fact.events.find(({ what }) => what === 'row-reused');
      if (!reused) continue;
      const data = { placement: nameOf(fact), row: String(reused.row ?? 0) };
      yield { ...fromRehearsed(fact), message: 'reused', data };
    }
  },
});
