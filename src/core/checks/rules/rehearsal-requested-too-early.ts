import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedOnNetworks } from '../rehearsed.js';

/** An ad is requested before the SDK has started, or before the user has answered for consent. */
export const requestedTooEarly = defineRule({
  meta: {
    id: 'rehearsal/requested-too-early',
    severity: 'warning',
    ifShipped: 'The request fails on every launch, or goes out without the consent that the law asks for.',
    mend: 'Load once the SDK of {network} reports that it has started.',
    otherMends: { consent: 'Ask for consent first, and load once the user has answered.' },
    messages: {
      start: 'An ad of {placement} is requested before the SDK of {network} has started.',
      consent: 'An ad of {placement} is requested from {network} before the user has answered for consent.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { fact, profile } of rehearsedOnNetworks(context)) {
      const data = { placement: nameOf(fact), network: profile.name };
      for (const gate of ['start', 'consent'] as const) {
        if (!fact.events.some(({ before }) => before?.includes(gate))) continue;
        yield {
          ...fromRehearsed(fact),
          message: gate,
          ...(gate === 'consent' ? { mend: 'consent' } : {}),
          data,
        };
      }
    }
  },
});
