import { defineRule } from '../model.js';
import { fromView, partnerUnits } from '../partner-scope.js';

/** A unit that the roster names is paused at the network. */
export const partnerUnitPaused = defineRule({
  meta: {
    id: 'partner/unit-paused',
    severity: 'warning',
    ifShipped: 'The placement stays empty until somebody switches the unit on again.',
    mend: 'Switch it on at the network, or take the placement out of the build.',
    messages: {
      paused: '{id}, the {platform} unit of {placement}, is paused at {network}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const view of partnerUnits(context)) {
      if (view.item?.status !== 'paused') continue;
      const { id, placement = '', platform } = view.expected;
      const data = { network: view.profile.name, id, placement, platform };
      yield { ...fromView(view), message: 'paused', data };
    }
  },
});
