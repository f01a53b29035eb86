import { defineRule } from '../model.js';

/** A rewarded placement can be skipped. */
export const rewardedSkippable = defineRule({
  meta: {
    id: 'roster/rewarded-skippable',
    severity: 'warning',
    ifShipped: 'Users get the reward without watching, and networks refuse to pay.',
    mend: 'Say so in the roster: syndexa placement set {title} {placement} --skippable no.',
    messages: {
      skippable: '{placement} is rewarded and skippable.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const [placement, { format, settings }] of Object.entries(context.title?.placements ?? {})) {
      if (format !== 'rewarded' || settings.skippable !== true) continue;
      yield { placement, message: 'skippable', data: { placement } };
    }
  },
});
