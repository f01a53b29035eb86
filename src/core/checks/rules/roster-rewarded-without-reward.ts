import { defineRule } from '../model.js';

/** A rewarded placement says not what the reward is. */
export const rewardedWithoutReward = defineRule({
  meta: {
    id: 'roster/rewarded-without-reward',
    severity: 'warning',
    ifShipped: 'The user watches to the end and gets nothing, or what each platform makes up.',
    mend: 'Say what is given: syndexa placement set PLACEMENT --reward "1 hint".',
    messages: {
      open: '{placement} is rewarded, and the roster says not what is given.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const [placement, { format, settings }] of Object.entries(context.title?.placements ?? {})) {
      if (format !== 'rewarded' || settings.reward) continue;
      yield { placement, message: 'open', data: { placement } };
    }
  },
});
