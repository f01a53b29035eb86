import { defineRule } from '../model.js';
import { fromView, partnerUnits } from '../partner-scope.js';

/** A unit belongs to the other platform at the network. */
export const partnerUnitWrongPlatform = defineRule({
  meta: {
    id: 'partner/unit-wrong-platform',
    severity: 'blocker',
    ifShipped: 'The network refuses the requests, or counts them for the other app.',
    mend: 'Swap the IDs of the two platforms.',
    messages: {
      platform: '{id} is a unit for {is.label} at {network}, but the roster has it for {wanted.label}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const view of partnerUnits(context)) {
      const { id, platform } = view.expected;
      const is = view.item?.platform;
      if (!is || is === platform) continue;
      const data = { network: view.profile.name, id, is, wanted: platform };
      yield { ...fromView(view), message: 'platform', data };
    }
  },
});
