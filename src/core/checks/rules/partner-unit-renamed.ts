import { valueAt } from '../../text/own-values.js';
import { defineRule } from '../model.js';
import { fromView, partnerUnits } from '../partner-scope.js';

/** A unit bears another name at the network than when it was first seen. */
export const partnerUnitRenamed = defineRule({
  meta: {
    id: 'partner/unit-renamed',
    severity: 'note',
    ifShipped: 'Reports show a name that nobody here knows, and units are mixed up by people.',
    mend: 'Name it back at the network, or accept the names: syndexa id collect TITLE --accept-names.',
    messages: {
      renamed: '{id}, known as “{was}”, is called “{is}” at {network} now.',
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
