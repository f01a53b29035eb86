import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedOnNetworks } from '../rehearsed.js';

/** A reward is granted though the video was not watched to its end. */
export const rewardWithoutCompletion = defineRule({
  meta: {
    id: 'rehearsal/reward-without-completion',
    severity: 'warning',
    ifShipped: 'Users take rewards without watching, and the network does not pay for it.',
    mend: 'Grant the reward where the network says that it was earned, and not where the ad is closed.',
    messages: { early: '{placement} grants its reward where the ad is closed, also when it was skipped.' },
    needsTitle: true,
  },
  *run(context) {
    for (const { fact } of rehearsedOnNetworks(context)) {
      const isComplete = (ad: number | undefined) =>
        fact.events.some((event) => event.what === 'complete' && event.ad === ad);
      const early = fact.events.find(({ what, ad }) => what === 'reward' && !isComplete(ad));
      if (early) yield { ...fromRehearsed(fact), message: 'early', data: { placement: nameOf(fact) } };
    }
  },
});
