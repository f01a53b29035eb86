import { amountText } from '../../tally/money.js';
import { sumOfLast } from '../../tally/signals.js';
import { defineRule } from '../model.js';
import { networkOf } from '../tally-scope.js';

const window = 28;

/** A unit for testing reports money. */
export const testUnitEarns = defineRule({
  meta: {
    id: 'tally/test-unit-earns',
    severity: 'warning',
    ifShipped:
      'It is shipped: a test ID in a released build earns for nobody, and a network may take it for fraud.',
    mend: 'Find the build that uses it: syndexa id trace {unit}. If it is a production unit, put it on record as one.',
    messages: {
      earns: '{unit} is a unit for testing, and {network} reports {amount} for it in the last four weeks.',
    },
    needsTitle: false,
  },
  *run(context) {
    for (const history of context.tally?.units ?? []) {
      const { network, unit, owner, revenue, currency } = history;
      const earned = sumOfLast(revenue, window);
      if (owner?.stage !== 'test' || earned === 0) continue;
      yield {
        network,
        platform: owner.platform,
        placement: owner.placement,
        message: 'earns',
        data: { unit, network: networkOf(context, history) },
        changing: { amount: `${amountText(earned)} ${currency}` },
      };
    }
  },
});
