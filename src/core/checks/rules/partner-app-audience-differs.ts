import { defineRule } from '../model.js';
import { fromView, partnerApps } from '../partner-scope.js';

/** An app is declared for another audience at the network. */
export const partnerAppAudienceDiffers = defineRule({
  meta: {
    id: 'partner/app-audience-differs',
    severity: 'blocker',
    ifShipped: 'Ads for adults reach children, or the other way round; stores take such apps down.',
    mend: 'Declare the same audience in both places.',
    messages: {
      differs: '{network} has the audience {is} for {id}, but the audience of the title is {wanted}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const view of partnerApps(context)) {
      const is = view.item?.audience;
      const wanted = view.scope.title.audience;
      if (!is || is === wanted) continue;
      const data = { network: view.profile.name, id: view.expected.id, is, wanted };
      yield { ...fromView(view), message: 'differs', data };
    }
  },
});
