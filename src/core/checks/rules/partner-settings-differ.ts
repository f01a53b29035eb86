import { valueAt } from '../../text/own-values.js';
import { defineRule } from '../model.js';
import { fromView, partnerUnits } from '../partner-scope.js';
import { settingDifferences } from '../../provision/settings.js';

/** The network has a setting of a unit otherwise than the roster. */
export const partnerSettingsDiffer = defineRule({
  meta: {
    id: 'partner/settings-differ',
    severity: 'warning',
    ifShipped:
      'Ads behave differently than planned: another refresh rate, another kind of ad, another reward.',
    mend: 'Settle it with syndexa provision {title} --settle roster (or partner).',
    messages: {
      differs:
        '{setting} of {placement} is {roster} in the roster and {partner} at {network}, on {platform.label}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const view of partnerUnits(context)) {
      const { placement = '', platform } = view.expected;
      const settings = valueAt(view.scope.title.placements, placement)?.settings;
      if (!view.item || !settings) continue;
      for (const { setting, roster, partner } of settingDifferences(
        view.profile,
        settings,
        view.item.settings,
      )) {
        const [ours, theirs] = [JSON.stringify(roster), JSON.stringify(partner)];
        const data = {
          setting,
          placement,
          platform,
          roster: ours,
          partner: theirs,
          network: view.profile.name,
        };
        yield { ...fromView(view), message: 'differs', data };
      }
    }
  },
});
