import { defineRule } from '../model.js';
import { fromView, partnerApps } from '../partner-scope.js';

/** The network does not know an app ID that the roster names. */
export const partnerAppGone = defineRule({
  meta: {
    id: 'partner/app-gone',
    severity: 'blocker',
    ifShipped: 'The SDK refuses to start, or revenue is credited to nobody.',
    mend: 'Look it up at the network, or provision the title again.',
    messages: {
      gone: '{network} does not know {id}, the app ID for {platform.label}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const view of partnerApps(context)) {
      if (view.item) continue;
      const { id, platform } = view.expected;
      yield { ...fromView(view), message: 'gone', data: { network: view.profile.name, id, platform } };
    }
  },
});
