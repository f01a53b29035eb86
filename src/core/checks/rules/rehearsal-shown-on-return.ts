import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedPlacements } from '../rehearsed.js';

/** The screen comes back, and an ad with it, each time. */
export const shownOnReturn = defineRule({
  meta: {
    id: 'rehearsal/shown-on-return',
    severity: 'warning',
    ifShipped: 'Users never get back to what they were doing, and networks suspend accounts for it.',
    mend: 'Show the ad when the user does something, or keep a pause between two of them.',
    messages: {
      again:
        '{placement} was shown as its screen came back, {times} times in this session, and nothing limits it.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { facts, events } of rehearsedPlacements(context)) {
      const again = events.filter(({ what, because }) => what === 'show' && because === 'return');
      if (again.length < 2) continue;
      const [fact] = facts;
      yield {
        ...fromRehearsed(fact),
        message: 'again',
        data: { placement: nameOf(fact) },
        changing: { times: String(again.length) },
      };
    }
  },
});
