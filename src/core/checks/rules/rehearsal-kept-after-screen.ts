import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedOnNetworks } from '../rehearsed.js';

/** The screen is gone, and its ad or its listener stays. */
export const keptAfterScreen = defineRule({
  meta: {
    id: 'rehearsal/kept-after-screen',
    severity: 'warning',
    ifShipped:
      'Each visit leaves an ad behind, until memory runs out; listeners act on screens that are gone.',
    mend: 'Release the ad when the screen goes away, and take the listener back there.',
    messages: {
      ad: 'The ad of {placement} stays when its screen goes away.',
      listener: 'The listener of {placement} stays when its screen goes away.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { fact } of rehearsedOnNetworks(context)) {
      const data = { placement: nameOf(fact) };
      const has = (event: string) => fact.events.some(({ what }) => what === event);
      if (has('kept')) yield { ...fromRehearsed(fact), message: 'ad', data };
      if (has('listener-kept')) yield { ...fromRehearsed(fact), message: 'listener', data };
    }
  },
});
