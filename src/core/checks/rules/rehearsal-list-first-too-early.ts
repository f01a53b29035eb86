import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedPlacements } from '../rehearsed.js';

/** A list begins with an ad. */
export const listFirstTooEarly = defineRule({
  meta: {
    id: 'rehearsal/list-first-too-early',
    severity: 'note',
    ifShipped: 'The first thing that users see is an ad, and many go no further.',
    mend: 'Put some items before it: syndexa placement set {title} {placement} --first N.',
    messages: { early: 'The list of {placement} begins with an ad.' },
    needsTitle: true,
  },
  *run(context) {
    for (const {
      facts: [fact],
    } of rehearsedPlacements(context)) {
      if (fact.format !== 'native' || fact.settings.first !== 0) continue;
      yield { ...fromRehearsed(fact), message: 'early', data: { placement: nameOf(fact) } };
    }
  },
});
