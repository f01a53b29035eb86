import { normalId } from '../../standards/skadnetwork.js';
import { defineRule } from '../model.js';
import { fromFact } from '../scope.js';

/** An entry of the attribution list that is no identifier, or not in its right form. */
export const attributionIdMalformed = defineRule({
  meta: {
    id: 'attribution/id-malformed',
    severity: 'warning',
    ifShipped:
      'The system passes the entry over, and installs through that network are attributed to nobody.',
    mend: 'Write it in small letters with its ending, as in ch7k2m9td4.skadnetwork.',
    messages: { odd: '“{value}” is no SKAdNetwork identifier in its right form.' },
    needsTitle: false,
  },
  *run({ survey }) {
    for (const fact of survey.facts) {
      if (fact.kind !== 'attribution-id' || normalId(fact.value) === fact.value) continue;
      yield { ...fromFact(fact), message: 'odd', data: { value: fact.value } };
    }
  },
});
