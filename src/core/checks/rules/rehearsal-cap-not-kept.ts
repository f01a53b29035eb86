import { durationMs } from '../../words/durations.js';
import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedPlacements } from '../rehearsed.js';

/** A placement is shown more often than its cap says. */
export const capNotKept = defineRule({
  meta: {
    id: 'rehearsal/cap-not-kept',
    severity: 'warning',
    ifShipped: 'Users see more ads than was decided, and leave.',
    mend: 'Ask the cap of the placebook before the ad is shown, or set the cap at the network.',
    messages: { over: '{placement} was shown {shown} times in {per}; its cap is {cap}.' },
    needsTitle: true,
  },
  *run(context) {
    for (const { facts, events } of rehearsedPlacements(context)) {
      const [fact] = facts;
      const { cap } = fact.settings;
      if (!cap) continue;
      const per = cap.per === undefined ? Infinity : durationMs(cap.per);
      const shown = events.filter(({ what }) => what === 'impression').map(({ at }) => at);
      const most = Math.max(
        0,
        ...shown.map((from) => shown.filter((at) => at >= from && at < from + per).length),
      );
      if (most <= cap.count) continue;
      yield {
        ...fromRehearsed(fact),
        message: 'over',
        data: { placement: nameOf(fact), per: cap.per ?? 'a session', cap: String(cap.count) },
        changing: { shown: String(most) },
      };
    }
  },
});
