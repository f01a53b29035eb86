import { defineRule } from '../model.js';

/** A rewarded placement does not say what the reward is. */
export const rewardedWithoutReward = defineRule({
  meta: {
    id: 'roster/rewarded-without-reward',
    severity: 'warning',
    ifShipped: 'Users watch to the end and get nothing, or a different reward on each platform.',
    mend: 'Set the reward: syndexa placement set {title} {placement} --reward "1 hint".',
    messages: {
      open: '{placement} is rewarded, but the roster does not say what the reward is.',
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
