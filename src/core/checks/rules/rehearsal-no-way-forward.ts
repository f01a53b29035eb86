import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedOnNetworks, timeIn } from '../rehearsed.js';

/** There is no ad, or it was closed, and the user cannot continue. */
export const noWayForward = defineRule({
  meta: {
    id: 'rehearsal/no-way-forward',
    severity: 'warning',
    ifShipped: 'The user stands before a screen that does nothing, and closes the app.',
    mend: 'Continue when the ad is closed, when it fails, and when none is loaded.',
    messages: { stuck: 'At {time} the user is stuck at {placement}: {reason}' },
    needsTitle: true,
  },
  *run(context) {
    for (const { fact } of rehearsedOnNetworks(context)) {
      const stuck = fact.events.find(({ what }) => what === 'stuck');
      if (!stuck) continue;
      yield {
        ...fromRehearsed(fact),
        message: 'stuck',
        data: { placement: nameOf(fact), reason: stuck.text ?? '' },
        changing: { time: timeIn(stuck.at) },
      };
    }
  },
});
