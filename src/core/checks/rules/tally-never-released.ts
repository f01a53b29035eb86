import { sumOfLast } from '../../tally/signals.js';
import { defineRule } from '../model.js';
import { platformLabels } from '../../words/platform-labels.js';
import { countText, reportingUnits, sisterOf } from '../tally-scope.js';
import { platforms } from '../../words/words.js';

const window = 14;

/** Production units are asked on a platform on which nothing was released. */
export const askedBeforeRelease = defineRule({
  meta: {
    id: 'tally/never-released',
    severity: 'warning',
    ifShipped: 'Somebody develops with production IDs: clicks of their own people can cost the account.',
    mend: 'If a version is out on {on}, note it: syndexa tally release {title} VERSION --platform {platform} --on DAY. If none is, find the build that uses production IDs: syndexa check DIR --title {title}.',
    messages: {
      asked:
        'Production units made {requests} requests on {on} in the last two weeks, and no version is noted as released there; on {other}, {version} is.',
    },
    needsTitle: true,
  },
  *run(context) {
    const releases = context.tally?.releases ?? [];
    const units = reportingUnits(context);
    for (const platform of platforms) {
      const [elsewhere] = releases.filter((release) => release.platform === sisterOf(platform));
      if (!elsewhere || releases.some((release) => release.platform === platform)) continue;
      const requests = units
        .filter((unit) => unit.platform === platform)
        .reduce((sum, { history }) => sum + sumOfLast(history.asked, window), 0);
      if (requests === 0) continue;
      const data = {
        on: platformLabels[platform],
        other: platformLabels[sisterOf(platform)],
        version: elsewhere.version,
      };
      yield { platform, message: 'asked', data, changing: { requests: countText(requests) } };
    }
  },
});
