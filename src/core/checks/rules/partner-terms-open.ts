import { defineRule } from '../model.js';
import { fromView, partnerApps } from '../partner-scope.js';

/** The terms of the network were not accepted for an app. */
export const partnerTermsOpen = defineRule({
  meta: {
    id: 'partner/terms-open',
    severity: 'warning',
    ifShipped: 'Every unit stays empty until somebody accepts them.',
    mend: 'Accept them on the network’s pages, then run syndexa id collect again.',
    messages: {
      open: 'The terms of {network} are not accepted for {id} ({platform.label}).',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const view of partnerApps(context)) {
      if (view.item?.terms !== false) continue;
      const { id, platform } = view.expected;
      yield { ...fromView(view), message: 'open', data: { network: view.profile.name, id, platform } };
    }
  },
});
