import { defineRule } from '../model.js';
import { fromView, partnerUnits } from '../partner-scope.js';

/** A unit that the roster names is paused at the network. */
export const partnerUnitPaused = defineRule({
  meta: {
    id: 'partner/unit-paused',
    severity: 'warning',
    ifShipped: 'The placement stays empty until somebody resumes the unit.',
    mend: 'Resume it at the network, or remove the placement from the build.',
    messages: {
      paused: '{id}, the {platform.label} unit of {placement}, is paused at {network}.',
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
