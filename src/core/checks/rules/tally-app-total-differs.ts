import type { AppHistory, UnitHistory } from '../../tally/history.js';
import { defineRule } from '../model.js';
import { countText, networkOf } from '../tally-scope.js';

const window = 28;
/** Totals are corrected separately, so they may differ by this much for a while. */
const usual = 0.02;

/** The total that a network reports for an app is not the sum of its units. */
export const appTotalDiffers = defineRule({
  meta: {
    id: 'tally/app-total-differs',
    severity: 'warning',
    ifShipped:
      'It is shipped: some unit of the app is in no report, or rows are missing from what was imported.',
    mend: 'Fetch the days again: syndexa tally fetch --network {id} --from DAY. If it stays so, look for units of {app} that the table leaves out.',
    messages: {
      differs:
        '{network} counts {total} impressions for {app} in the last four weeks, and {sum} for its units together.',
    },
    needsTitle: false,
  },
  *run(context) {
    for (const app of context.tally?.apps ?? []) {
      const own = (context.tally?.units ?? []).filter(
        (unit) => unit.network === app.network && unit.app === app.app,
      );
      const { total, sum } = compared(app, own);
      if (total === 0 || Math.abs(total - sum) <= Math.max(total, sum) * usual) continue;
      yield {
        network: app.network,
        message: 'differs',
        data: { network: networkOf(context, app), app: app.app, id: app.network },
        changing: { total: countText(total), sum: countText(sum) },
      };
    }
  },
});

/** Sums the impressions of the app and of its units over the last four weeks. Days without a total are skipped. */
function compared(
  { from, impressions }: AppHistory,
  units: readonly UnitHistory[],
): { total: number; sum: number } {
  const end = from + impressions.length;
  let [total, sum] = [0, 0];
  for (let day = Math.max(from, end - window); day < end; day++) {
    const whole = impressions[day - from] ?? null;
    if (whole === null) continue;
    total += whole;
    for (const unit of units) sum += unit.impressions[day - unit.from] ?? 0;
  }
  return { total, sum };
}
