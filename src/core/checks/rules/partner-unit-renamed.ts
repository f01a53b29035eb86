import { valueAt } from '../../text/own-values.js';
import { defineRule } from '../model.js';
import { fromView, partnerUnits } from '../partner-scope.js';

/** A unit has another name at the network than when it was first seen. */
export const partnerUnitRenamed = defineRule({
  meta: {
    id: 'partner/unit-renamed',
    severity: 'note',
    ifShipped: 'Reports show a name that nobody here knows, and people mix up units.',
    mend: 'Change the name at the network, or accept it: syndexa id collect {title} --accept-names.',
    messages: {
      renamed: '{id} was called “{was}” at {network} and is now called “{is}”.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const view of partnerUnits(context)) {
      const was = valueAt(view.inventory.knownAs, view.expected.id);
      if (!view.item || was === undefined) continue;
      const data = { network: view.profile.name, id: view.expected.id, was, is: view.item.name };
      yield { ...fromView(view), message: 'renamed', data };
    }
  },
});
