import { sumOfLast } from '../../tally/signals.js';
import { defineRule } from '../model.js';
import { platformLabels } from '../../words/platform-labels.js';
import { countText, networkOf } from '../tally-scope.js';

const window = 7;
/** A unit that was replaced dies out slowly: it counts while it still makes this part of the requests. */
const alive = 0.05;

/** A placement has two units on one network that both ask. */
export const twoUnitsAlive = defineRule({
  meta: {
    id: 'tally/two-units',
    severity: 'note',
    ifShipped:
      'It is shipped: a live build still uses the old ID; pausing the old unit would silence these users.',
    mend: 'See which versions are still in use, and leave {was} serving until its requests end.',
    messages: {
      two: 'On {on}, {placement} asks {network} by two units: {unit} on record, and {was}, which was on record before and makes {share} of the {requests} requests of the last week.',
    },
    needsTitle: true,
  },
  *run(context) {
    const units = context.tally?.units ?? [];
    for (const { network, unit: was, placement, platform } of context.tally?.former ?? []) {
      const old = units.find((one) => one.network === network && one.unit === was);
      const now = units.find(
        ({ owner, ...one }) =>
          one.network === network &&
          owner?.placement === placement &&
          owner.platform === platform &&
          owner.stage === 'production',
      );
      if (!old || !now || old.owner?.placement === placement) continue;
      const [before, after] = [old, now].map(({ asked }) => sumOfLast(asked, window));
      const all = (before ?? 0) + (after ?? 0);
      if (!before || !after || before < all * alive) continue;
      yield {
        network,
        platform,
        placement,
        message: 'two',
        data: {
          placement,
          on: platformLabels[platform],
          network: networkOf(context, now),
          unit: now.unit,
          was,
        },
        changing: { share: `${Math.round((before / all) * 100)} %`, requests: countText(all) },
      };
    }
  },
});
