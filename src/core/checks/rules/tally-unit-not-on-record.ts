import { sumOfLast } from '../../tally/signals.js';
import { defineRule } from '../model.js';
import { countText, networkOf } from '../tally-scope.js';

const window = 14;

/** A unit reports numbers and is in no record, or in that of another title. */
export const reportedUnitNotOnRecord = defineRule({
  meta: {
    id: 'tally/unit-not-on-record',
    severity: 'warning',
    ifShipped:
      'It is shipped: a build out there uses an ID that nobody keeps, or that of another title, and its money is counted elsewhere.',
    mend: 'Find where it is: syndexa id trace {unit}. Then put it on record, or take it out of the build: syndexa id collect {title} --network {id}.',
    messages: {
      unknown: '{unit} made {requests} requests to {network} in the last two weeks, and no title uses it.',
      elsewhere:
        '{unit} made {requests} requests to {network} in the last two weeks as a unit of {app}; on record it belongs to {other}.',
    },
    needsTitle: false,
  },
  *run(context) {
    for (const history of context.tally?.units ?? []) {
      const { network, unit, owner, app, appTitle } = history;
      const requests = sumOfLast(history.asked, window);
      if (requests === 0) continue;
      const data = { unit, network: networkOf(context, history), id: network };
      const changing = { requests: countText(requests) };
      if (!owner) yield { network, message: 'unknown', data, changing };
      else if (appTitle !== null && owner.title !== null && owner.title !== appTitle)
        yield { network, message: 'elsewhere', data: { ...data, app, other: owner.title }, changing };
    }
  },
});
