import { defineRule } from '../model.js';
import { fromView, partnerUnits } from '../partner-scope.js';
import { timeLeft } from '../../text/time.js';

/** A unit is so new that it serves nothing yet. */
export const partnerUnitTooNew = defineRule({
  meta: {
    id: 'partner/unit-too-new',
    severity: 'note',
    ifShipped: 'The placement stays empty for that long, and people look for a bug that does not exist.',
    mend: 'Wait, and test with the sample ID in the meantime.',
    messages: {
      new: '{id}, the {platform.label} unit of {placement}, is new: {network} does not serve ads for it for another {left}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const view of partnerUnits(context)) {
      const left = view.item?.servesFrom ? timeLeft(view.item.servesFrom, context.now) : null;
      if (left === null) continue;
      const { id, placement = '', platform } = view.expected;
      const data = { network: view.profile.name, id, placement, platform };
      yield { ...fromView(view), message: 'new', data, changing: { left } };
    }
  },
});
