import { defineRule } from '../model.js';
import { heldIds } from '../../roster/validate.js';
import { isSample, oneEditApart } from '../roster.js';

/** Two IDs of one network differ by one character. */
export const nearDuplicateIds = defineRule({
  meta: {
    id: 'roster/near-duplicate-ids',
    severity: 'warning',
    ifShipped: 'One of them was probably mistyped, and its placement serves nothing.',
    mend: 'Compare both with the network’s pages, or run syndexa id collect.',
    messages: {
      near: '{one} ({first}) and {two} ({second}) differ in one character.',
    },
    needsTitle: true,
  },
  *run(context) {
    if (!context.title) return;
    const held = heldIds(context.title).filter(({ id }) => !isSample(context, id));
    for (const [index, one] of held.entries()) {
      for (const two of held.slice(index + 1)) {
        if (one.network !== two.network || !oneEditApart(one.id, two.id)) continue;
        const data = { one: one.id, two: two.id, first: one.field, second: two.field };
        yield { network: one.network, message: 'near', data };
      }
    }
  },
});
