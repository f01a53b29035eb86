import { durationMs } from '../../words/durations.js';
import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedOnNetworks, timeIn } from '../rehearsed.js';

/** A banner is refreshed faster than its network allows. */
export const refreshTooFast = defineRule({
  meta: {
    id: 'rehearsal/refresh-too-fast',
    severity: 'warning',
    ifShipped: 'The network counts the impressions as invalid, and pays for none of them.',
    mend: 'Set a refresh time of at least {least}: syndexa placement set {title} {placement} --refresh TIME; then wire the tree again.',
    messages: { fast: '{placement} is refreshed after {time}; {network} allows {least} and more.' },
    needsTitle: true,
  },
  *run(context) {
    for (const { fact, profile } of rehearsedOnNetworks(context)) {
      const least = profile.formats[fact.format]?.refresh?.min;
      if (least === undefined) continue;
      const seen = fact.events.filter(({ what }) => what === 'show' || what === 'refresh');
      const times = seen.flatMap(({ what, at }, index) =>
        what === 'refresh' && index > 0 ? [at - (seen[index - 1]?.at ?? at)] : [],
      );
      const fastest = Math.min(...times);
      if (fastest >= durationMs(least)) continue;
      const data = { placement: nameOf(fact), network: profile.name, least, time: timeIn(fastest) };
      yield { ...fromRehearsed(fact), message: 'fast', data };
    }
  },
});
