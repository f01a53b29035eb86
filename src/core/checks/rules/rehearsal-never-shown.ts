import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedPlacements } from '../rehearsed.js';

/** An ad is loaded, and nothing shows it. */
export const neverShown = defineRule({
  meta: {
    id: 'rehearsal/never-shown',
    severity: 'warning',
    ifShipped: 'Ads are loaded and never seen: the network counts the requests, and sends fewer ads.',
    mend: 'Show the ad where the user takes the step that it belongs to.',
    messages: {
      unseen: 'An ad of {placement} is loaded, and nothing shows it in this session.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { facts } of rehearsedPlacements(context)) {
      const loaded = facts.find(({ verdict }) => verdict.is === 'never-shown');
      if (!loaded || facts.some(({ verdict }) => verdict.is === 'shown')) continue;
      yield { ...fromRehearsed(loaded), message: 'unseen', data: { placement: nameOf(loaded) } };
    }
  },
});
