import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedOnNetworks } from '../rehearsed.js';

/** The network refuses a request, with a reason. */
export const refusedRequest = defineRule({
  meta: {
    id: 'rehearsal/refused',
    severity: 'warning',
    ifShipped: 'The placement stays empty on this network.',
    mend: 'Look the unit up on the pages of {network}, and correct it there or in the roster.',
    otherMends: {
      'not-found': 'Make the unit at {network} (syndexa provision {title}), or correct its ID in the roster.',
      'unit-elsewhere': 'Give {placement} the unit of this platform and this application.',
      'format-wrong': 'Give {placement} a unit of its format, or correct the format in the roster.',
      'unit-paused': 'Switch the unit on again at {network}.',
      'unit-too-new': 'Wait, and test with the sample ID in the meantime.',
      'terms-open': 'Accept the terms for the app on the pages of {network}.',
      'app-unlisted': 'Publish the application, or let {network} check it by hand.',
      'audience-refused': 'Take {network} out of titles for children, or do not load it for children.',
      'account-suspended': 'Write to {network}. At the partner: syndexa partner lift {id}.',
    },
    messages: {
      refused: '{network} refuses {placement}: {reason}',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { fact, profile } of rehearsedOnNetworks(context)) {
      const refused = fact.events.find(({ what }) => what === 'refused');
      if (!refused) continue;
      const data = {
        placement: nameOf(fact),
        network: profile.name,
        id: profile.id,
      };
      const { text: reason = '' } = refused;
      yield {
        ...fromRehearsed(fact),
        message: 'refused',
        ...(refused.code === undefined ? {} : { mend: refused.code }),
        data,
        changing: { reason },
      };
    }
  },
});
