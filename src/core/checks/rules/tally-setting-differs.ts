import { sumOfLast } from '../../tally/signals.js';
import { platforms, type Platform } from '../../words/words.js';
import { defineRule } from '../model.js';
import { platformLabels } from '../../words/platform-labels.js';
import { fromTallied, reportingUnits, type TalliedUnit } from '../tally-scope.js';
import type { UnitHistory } from '../../tally/history.js';
import { groupBy } from '../../text/group-by.js';

type Reporting = TalliedUnit & { history: UnitHistory };

const window = 7;
/** How many times the other platform's share of requests counts as different. */
const times = 3;
/** Fewer requests than this say nothing. */
const enough = 500;

/** A placement with a refresh time or cap on record requests ads far more often on one platform than on the other. */
export const settingInNumbersDiffers = defineRule({
  meta: {
    id: 'tally/setting-differs',
    severity: 'note',
    ifShipped:
      'It is shipped: one platform refreshes or shows more often than the record says, and users or networks mind.',
    mend: 'Compare the settings of {placement} in both builds and at the network: syndexa check DIR --title {title}, and syndexa provision {title} --dry-run.',
    messages: {
      refresh:
        '{placement} makes {times} times as large a share of the requests to {network} on {on} as on {other}. On record, both refresh after {setting}.',
      cap: '{placement} makes {times} times as large a share of the requests to {network} on {on} as on {other}. On record, both are shown {setting} at most.',
    },
    needsTitle: true,
  },
  *run(context) {
    const units = reportingUnits(context).filter(({ history }) => sumOfLast(history.asked, window) > 0);
    for (const [, own] of groupBy(units, ({ name, profile }) => `${profile.id} ${name}`)) {
      const [first] = own;
      if (!first) continue;
      const { refresh, cap } = first.placement.settings;
      const said =
        refresh !== undefined && /^\d/.test(refresh)
          ? refresh
          : cap && `${cap.count} times${cap.per === undefined ? '' : ` in ${cap.per}`}`;
      if (!said) continue;
      const ofNetwork = units.filter(({ profile }) => profile === first.profile);
      const shares = platforms.map((platform) => shareOf(ofNetwork, first.name, platform));
      const [android = null, ios = null] = shares;
      if (android === null || ios === null) continue;
      const high = android > ios ? 'android' : 'ios';
      const ratio = Math.max(android, ios) / Math.min(android, ios);
      const unit = own.find(({ platform }) => platform === high);
      if (ratio < times || !unit) continue;
      yield {
        ...fromTallied(unit),
        message: said === refresh ? 'refresh' : 'cap',
        data: {
          placement: first.name,
          network: first.profile.name,
          on: platformLabels[high],
          other: platformLabels[high === 'ios' ? 'android' : 'ios'],
          setting: said,
        },
        changing: { times: ratio.toFixed(1) },
      };
    }
  },
});

/** The requests of a placement beside those of the others of its network and platform; null where there are too few. */
function shareOf(units: readonly Reporting[], name: string, platform: Platform): number | null {
  const on = units.filter((unit) => unit.platform === platform);
  const sum = (some: readonly Reporting[]) =>
    some.reduce((total, { history }) => total + sumOfLast(history.asked, window), 0);
  const [own, others] = [
    sum(on.filter((unit) => unit.name === name)),
    sum(on.filter((unit) => unit.name !== name)),
  ];
  return own < enough || others < enough ? null : own / others;
}
