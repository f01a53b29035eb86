import { defineRule } from '../model.js';
import { fromView, partnerUnits } from '../partner-scope.js';

/** The network no longer has a unit that the roster names. */
export const partnerUnitGone = defineRule({
  meta: {
    id: 'partner/unit-gone',
    severity: 'blocker',
    ifShipped: 'The placement stays empty on every device, and nothing is earned.',
    mend: 'Look it up at the network. Then provision the placement again, or put the right ID into the roster.',
    messages: {
      gone: '{network} no longer has {id}, the {platform.label} unit of {placement}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const view of partnerUnits(context)) {
      if (view.item) continue;
      const { id, placement = '', platform } = view.expected;
      const data = { network: view.profile.name, id, placement, platform };
      yield { ...fromView(view), message: 'gone', data };
    }
  },
});
