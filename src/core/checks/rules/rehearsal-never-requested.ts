import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedPlacements } from '../rehearsed.js';

/** No code asks for an ad of a placement on any of its networks. */
export const neverRequested = defineRule({
  meta: {
    id: 'rehearsal/never-requested',
    severity: 'warning',
    ifShipped: 'The placement earns nothing, and nobody notices, because nothing fails.',
    mend: 'Load an ad of {placement} where it is shown, by its name in the placebook.',
    otherMends: {
      reach: 'Load it where the screen is opened, or see what keeps the code at that place from running.',
    },
    messages: {
      code: 'No code asks for an ad of {placement}.',
      reach: 'The code that asks for an ad of {placement} did not run in this session.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { facts } of rehearsedPlacements(context)) {
      if (!facts.every(({ verdict }) => verdict.is === 'never-requested')) continue;
      const asked = facts.find(({ place }) => place.path !== '');
      const [first] = facts;
      const data = { placement: nameOf(first) };
      const network = facts.length === 1 ? first.network : null;
      yield asked
        ? { ...fromRehearsed(asked), network, message: 'reach', mend: 'reach', data }
        : { ...fromRehearsed(first), network, message: 'code', data };
    }
  },
});
