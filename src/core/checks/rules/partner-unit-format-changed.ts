import { defineRule } from '../model.js';
import { fromView, partnerUnits } from '../partner-scope.js';

/** A unit has another format at the network than its placement. */
export const partnerUnitFormatChanged = defineRule({
  meta: {
    id: 'partner/unit-format-changed',
    severity: 'blocker',
    ifShipped: 'The SDK refuses the ad, or shows one that does not fit.',
    mend: 'Create a unit of the right format, or change the placement.',
    messages: {
      format: 'The format of {id} is {is} at {network}, but that of the placement {placement} is {wanted}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const view of partnerUnits(context)) {
      const { id, placement = '', format } = view.expected;
      const is = view.item?.format;
      if (!is || !format || is === format) continue;
      const data = { network: view.profile.name, id, placement, is, wanted: format };
      yield { ...fromView(view), message: 'format', data };
    }
  },
});
