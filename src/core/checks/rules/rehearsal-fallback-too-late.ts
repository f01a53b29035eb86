import { durationMs } from '../../words/durations.js';
import { defineRule } from '../model.js';
import { networkName } from '../scope.js';
import { fromRehearsed, nameOf, rehearsedPlacements, timeIn } from '../rehearsed.js';

/** The first network has no ad, and the next one of the placement is not asked in time. */
export const fallbackTooLate = defineRule({
  meta: {
    id: 'rehearsal/fallback-too-late',
    severity: 'warning',
    ifShipped: 'The second network earns nothing: its ad comes when the user is gone.',
    mend: 'Load from {next} where {first} reports that it failed, within the timeout of the placement.',
    messages: {
      never: '{first} has no ad for {placement}, and {next} is never asked.',
      late: '{first} has no ad for {placement}, and {next} is asked after {time}; the timeout is {timeout}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { facts } of rehearsedPlacements(context)) {
      const [first, next] = facts;
      if (!next || (first.settings.fallback?.length ?? 0) < 2) continue;
      const failed = first.events.find(({ what }) => noAd.has(what));
      const isShown = facts.some(({ verdict }) => verdict.is === 'shown');
      if (!failed || first.verdict.is === 'shown') continue;
      const asked = next.events.find(({ what }) => what === 'request');
      const data = {
        placement: nameOf(first),
        first: networkName(context, first.network),
        next: networkName(context, next.network),
      };
      if (!asked) yield { ...fromRehearsed(first), message: 'never', data };
      const { timeout } = first.settings;
      const begun = first.events.find(({ what }) => what === 'request') ?? failed;
      if (!asked || isShown || timeout === undefined || asked.at - begun.at <= durationMs(timeout)) continue;
      yield {
        ...fromRehearsed(first),
        message: 'late',
        data: { ...data, timeout },
        changing: { time: timeIn(asked.at - begun.at) },
      };
    }
  },
});

/** What says that a network has no ad. */
const noAd = new Set(['no-fill', 'refused', 'failed', 'timed-out', 'capped']);
