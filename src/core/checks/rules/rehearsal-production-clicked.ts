import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedOnNetworks } from '../rehearsed.js';

/** An ad that earns money is clicked in a build for testing. */
export const productionClicked = defineRule({
  meta: {
    id: 'rehearsal/production-clicked',
    severity: 'blocker',
    ifShipped: 'The network counts the clicks of the team as fraud, and suspends the account.',
    mend: 'Use the test unit in builds for testing, and register the devices of the team.',
    messages: {
      clicked: 'In a build for testing, a click on {placement} counts as a real one at {network}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { fact, profile } of rehearsedOnNetworks(context)) {
      const isClicked = fact.events.some(({ what, test }) => what === 'click' && test === false);
      if (fact.stage !== 'test' || !isClicked) continue;
      const data = {
        placement: nameOf(fact),
        network: profile.name,
      };
      yield { ...fromRehearsed(fact), message: 'clicked', data };
    }
  },
});
