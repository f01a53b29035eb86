import { amountText } from '../../tally/money.js';
import { sumOf, sumOfLast } from '../../tally/signals.js';
import { defineRule } from '../model.js';
import { platformLabels } from '../../words/platform-labels.js';
import { fromTallied, mayBeLeftOut, namesOf, sisterOf, talliedUnits } from '../tally-scope.js';

/** How many days a placement must have reported on the side that earns nothing. */
const patience = 14;

/** A placement earns on one platform, and never did on the other. */
export const oneSided = defineRule({
  meta: {
    id: 'tally/one-sided',
    severity: 'warning',
    ifShipped: 'It is shipped: half of what the placement could earn is missing, and no number falls.',
    mend: 'Check {placement} on {on}: syndexa check DIR --title {title}, then rehearse it.',
    messages: {
      nothing:
        'On {on}, {placement} has never earned anything from {network}; on {other}, it earned {amount} in the last four weeks.',
      nothingInTables:
        'On {on}, {placement} has never earned anything from {network}; on {other}, it earned {amount} in the last four weeks. No table has a row of {on}: if they are of another app, import those of {on}, too.',
    },
    needsTitle: true,
  },
  *run(context) {
    const units = talliedUnits(context);
    for (const unit of units) {
      const sister = units.find(
        ({ name, profile, platform }) =>
          name === unit.name && profile === unit.profile && platform === sisterOf(unit.platform),
      );
      const earned = sister?.history ? sumOfLast(sister.history.revenue, 28) : 0;
      const { history } = unit;
      if (earned === 0 || (history && sumOf(history.revenue) > 0)) continue;
      // A unit without any match, or one that was just made, is another matter.
      if (history && (history.asked.length < patience || sumOf(history.matched) === 0)) continue;
      yield {
        ...fromTallied(unit),
        message: mayBeLeftOut(context, unit, 0) ? 'nothingInTables' : 'nothing',
        data: { ...namesOf(unit), other: platformLabels[sisterOf(unit.platform)] },
        changing: { amount: `${amountText(earned)} ${sister?.history?.currency ?? ''}` },
      };
    }
  },
});
