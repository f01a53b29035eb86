import { defineRule } from '../model.js';
import { fromRehearsed, rehearsedPlacements, timeIn } from '../rehearsed.js';

/** An ad that is shown so soon after the last was closed comes again, to the user (ms). */
const soon = 30_000;

/** The screen comes back after an ad, and the next ad with it. */
export const shownOnReturn = defineRule({
  meta: {
    id: 'rehearsal/shown-on-return',
    severity: 'warning',
    ifShipped: 'Users never get back to what they were doing, and networks suspend accounts for it.',
    mend: 'Show the ad when the user does something, or keep a pause between two of them.',
    messages: {
      again: '{placement} is shown again {time} after the last ad was closed, as the screen comes back.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { facts, events } of rehearsedPlacements(context)) {
      const again = events.flatMap((show) => {
        if (show.what !== 'show' || show.because !== 'return') return [];
        const closed = events.findLast(({ what, at }) => what === 'ad-closed' && at <= show.at);
        return closed && show.at - closed.at <= soon ? [show.at - closed.at] : [];
      });
      const [first] = again;
      if (first === undefined) continue;
      const [fact] = facts;
      yield {
        ...fromRehearsed(fact),
        message: 'again',
        data: { placement: fact.placement ?? '' },
        changing: { time: timeIn(first) },
      };
    }
  },
});
