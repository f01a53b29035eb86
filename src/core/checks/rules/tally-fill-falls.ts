import { rateChange } from '../../tally/signals.js';
import { defineRule } from '../model.js';
import { fromTallied, namesOf, percentText, reportingUnits } from '../tally-scope.js';

/** How much of the usual fill rate is left. */
const fallen = 0.85;
const enough = 500;

/** Fewer requests are answered with an ad, and app-ads.txt lacks the line of the network. */
export const fillFallsWithoutLine = defineRule({
  meta: {
    id: 'tally/fill-falls',
    severity: 'warning',
    ifShipped: 'It is shipped: buyers leave an app whose developer site does not name the network.',
    mend: 'Put the line of {network} on the developer site: syndexa appads merge app-ads.txt --write, then syndexa appads verify.',
    messages: {
      falls:
        'On {on}, {network} answered {now} of the requests of {placement} with an ad in the last week, after {before}; app-ads.txt lacks the line of {network}.',
    },
    needsTitle: true,
  },
  *run(context) {
    const lacking = context.tally?.lacksAppAds ?? [];
    for (const unit of reportingUnits(context)) {
      if (!lacking.includes(unit.profile.id)) continue;
      const change = rateChange(unit.history.matched, unit.history.asked, { days: 7, least: enough });
      if (!change || change.now >= change.before * fallen) continue;
      yield {
        ...fromTallied(unit),
        message: 'falls',
        data: namesOf(unit),
        changing: { now: percentText(change.now), before: percentText(change.before) },
      };
    }
  },
});
