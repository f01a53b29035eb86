import { dayText } from '../../tally/days.js';
import { median, silence } from '../../tally/signals.js';
import { defineRule } from '../model.js';
import {
  countText,
  fromTallied,
  mayBeLeftOut,
  namesOf,
  releaseBefore,
  talliedUnits,
} from '../tally-scope.js';

/** How many days after a release users have it. */
const spreads = 3;

/** A placement that is released makes no requests: not any more, or never. */
export const placementSilent = defineRule({
  meta: {
    id: 'tally/silent',
    severity: 'warning',
    ifShipped: 'It is shipped: the placement earns nothing, and no report shows a row that is not there.',
    mend: 'Rehearse {placement} on the tree of the release that is live, and look at what that release changed: syndexa rehearse DIR --title {title} --placement {placement}.',
    messages: {
      stopped:
        'On {on}, {placement} has made no request to {network} since {since}: for {days} days, after {usual} requests a day. For this unit, {unusual} days are unusual.',
      stoppedInTables:
        'On {on}, {placement} has made no request to {network} since {since}: for {days} days, after {usual} requests a day. No table has a row of {on} since then: if the last ones are of another app, import those of {on}, too.',
      never:
        'On {on}, {placement} has never made a request to {network}, though {version} was released on {day}.',
      neverInTables:
        'On {on}, {placement} has never made a request to {network}, though {version} was released on {day}. No table has a row of {on}: if they are of another app, import those of {on}, too.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const unit of talliedUnits(context)) {
      const { history, platform, last } = unit;
      const names = namesOf(unit);
      if (!history) {
        const release = releaseBefore(context, platform, last - spreads, last);
        if (!release) continue;
        const data = { ...names, version: release.version, day: release.text };
        const message = mayBeLeftOut(context, unit, 0) ? 'neverInTables' : 'never';
        yield { ...fromTallied(unit), message, data };
        continue;
      }
      const found = silence(history.asked);
      if (!found) continue;
      const before = history.asked.slice(0, history.asked.length - found.days).slice(-28);
      const usual = median(before.filter((value) => value !== null));
      const since = history.from + lastAsked(history.asked) + 1;
      const days = { days: String(found.days), usual: countText(usual) };
      const head = { ...fromTallied(unit), data: { ...names, since: dayText(since) } };
      if (mayBeLeftOut(context, unit, since)) yield { ...head, message: 'stoppedInTables', changing: days };
      else yield { ...head, message: 'stopped', changing: { ...days, unusual: String(found.unusual) } };
    }
  },
});

function lastAsked(asked: readonly (number | null)[]): number {
  return asked.findLastIndex((value) => value !== null && value > 0);
}
