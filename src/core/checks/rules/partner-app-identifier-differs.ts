import { defineRule } from '../model.js';
import { fromView, partnerApps } from '../partner-scope.js';

/** An app ID belongs to another application at the network. */
export const partnerAppIdentifierDiffers = defineRule({
  meta: {
    id: 'partner/app-identifier-differs',
    severity: 'blocker',
    ifShipped: 'Requests from an app that is not registered earn nothing, and can cost the account.',
    mend: 'Correct the identifier in the roster or at the network.',
    messages: {
      differs: 'At {network}, {id} belongs to {is} on {platform.label}, but the edition is {wanted}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const view of partnerApps(context)) {
      const wanted = view.scope.title.editions[view.scope.platform]?.identifier;
      if (!view.item || wanted === undefined || view.item.identifier === wanted) continue;
      const { id, platform } = view.expected;
      const data = { network: view.profile.name, id, is: view.item.identifier, wanted, platform };
      yield { ...fromView(view), message: 'differs', data };
    }
  },
});
