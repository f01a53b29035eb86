import { normalId } from '../../standards/skadnetwork.js';
import { defineRule } from '../model.js';
import { fromFact } from '../scope.js';

/** An entry of the attribution list that is not an identifier, or not in its standard form. */
export const attributionIdMalformed = defineRule({
  meta: {
    id: 'attribution/id-malformed',
    severity: 'warning',
    ifShipped: 'The system ignores the entry, so installs through that network are attributed to nobody.',
    mend: 'Write it in lower case with its suffix, as in ch7k2m9td4.skadnetwork.',
    messages: { odd: '“{value}” is not a valid SKAdNetwork identifier.' },
    needsTitle: false,
  },
  *run({ survey }) {
    for (const fact of survey.facts) {
      if (fact.kind !== 'attribution-id' || normalId(fact.value) === fact.value) continue;
      yield { ...fromFact(fact), message: 'odd', data: { value: fact.value } };
    }
  },
});
