import { sumOf } from '../../tally/signals.js';
import { defineRule } from '../model.js';
import { countText, fromTallied, namesOf, reportingUnits, servingDelay } from '../tally-scope.js';

/** Fewer requests than this say nothing. */
const enough = 100;
/** Days beyond the network's serving delay. */
const patience = 2;

/** A unit asks, and its network never answered with an ad. */
export const neverMatched = defineRule({
  meta: {
    id: 'tally/no-match',
    severity: 'warning',
    ifShipped: 'It is shipped: every request is in vain, and users wait for ads that never come.',
    mend: 'Open {unit} at {network}: it may be paused, of another app or another format, or its app may not be approved. Collect the list again: syndexa id collect {title} --network {id}.',
    messages: {
      never:
        'On {on}, {placement} has made {requests} requests to {network} in {days} days, and not one was answered with an ad. A new unit of the network serves after {delay} at the latest.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const unit of reportingUnits(context)) {
      const { history, profile } = unit;
      const delay = servingDelay(profile);
      const requests = sumOf(history.asked);
      const isReported = history.matched.some((value) => value !== null);
      if (!isReported || sumOf(history.matched) > 0 || requests < enough) continue;
      if (history.asked.length < delay + patience) continue;
      yield {
        ...fromTallied(unit),
        message: 'never',
        data: {
          ...namesOf(unit),
          unit: unit.unit,
          id: profile.id,
          delay: profile['serving-delay'] ?? 'no time',
        },
        changing: { requests: countText(requests), days: String(history.asked.length) },
      };
    }
  },
});
