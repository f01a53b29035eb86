import { rateChange, sumOfLast } from '../../tally/signals.js';
import { defineRule } from '../model.js';
import {
  fromTallied,
  namesOf,
  percentText,
  releaseBefore,
  reportingUnits,
  sisterOf,
  type TalliedUnit,
} from '../tally-scope.js';
import { platformLabels } from '../../words/platform-labels.js';

/** What is left of the usual share of loaded ads that are shown. */
const dropped = 0.4;
const farBelow = 0.25;
/** Fewer loaded ads than this say nothing. */
const enough = { drop: 100, sister: 500 };
const window = 14;
/** How many days later a release may show in the numbers. */
const within = 4;

/** Ads are loaded and hardly ever shown. */
export const hardlyShown = defineRule({
  meta: {
    id: 'tally/hardly-shown',
    severity: 'warning',
    ifShipped:
      'It is shipped: ads are loaded for nothing, and networks lower their price for apps that waste them.',
    mend: 'Look at where {placement} is shown: a condition that is never true, a screen that is gone, or a listener that is not called. Rehearse it: syndexa rehearse DIR --title {title} --placement {placement}.',
    messages: {
      dropped:
        'On {on}, {now} of the ads that {placement} loads from {network} were shown in the last two days; {before} were usual.',
      release:
        'On {on}, {now} of the ads that {placement} loads from {network} were shown in the last two days; {before} were usual before {version} of {day}.',
      sister:
        'On {on}, {now} of the ads that {placement} loads from {network} are shown; on {other}, {before} are.',
    },
    needsTitle: true,
  },
  *run(context) {
    const units = reportingUnits(context);
    for (const unit of units) {
      const { history } = unit;
      const names = namesOf(unit);
      const change = rateChange(history.impressions, history.matched, { days: 2, least: enough.drop });
      if (change && change.now < change.before * dropped) {
        const changing = { now: percentText(change.now), before: percentText(change.before) };
        const release = releaseBefore(context, unit.platform, history.from + change.since, within);
        const data = { ...names, ...(release ? { version: release.version, day: release.text } : {}) };
        yield { ...fromTallied(unit), message: release ? 'release' : 'dropped', data, changing };
        continue;
      }
      const sister = units.find(
        ({ name, profile, platform }) =>
          name === unit.name && profile === unit.profile && platform === sisterOf(unit.platform),
      );
      const [own, other] = [rateOf(unit), sister && rateOf(sister)];
      if (own === null || other === undefined || other === null || own >= other * farBelow) continue;
      yield {
        ...fromTallied(unit),
        message: 'sister',
        data: { ...names, other: platformLabels[sisterOf(unit.platform)] },
        changing: { now: percentText(own), before: percentText(other) },
      };
    }
  },
});

/** The share of loaded ads that are shown, of the last two weeks; null where too few were loaded. */
function rateOf({ history }: TalliedUnit): number | null {
  if (!history) return null;
  const matched = sumOfLast(history.matched, window);
  return matched < enough.sister ? null : sumOfLast(history.impressions, window) / matched;
}
