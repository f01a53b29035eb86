import { defineRule } from '../model.js';
import { fromFact, networkName } from '../scope.js';

/** A string resource that holds an ID is defined twice. */
export const stringTwice = defineRule({
  meta: {
    id: 'build/string-twice',
    severity: 'blocker',
    ifShipped: 'The build stops: one resource may be defined only once in a source set.',
    mend: 'Keep one definition, and delete the other.',
    messages: { twice: 'The string {name} with an ID of {network} is defined at {first} already.' },
    needsTitle: false,
  },
  *run(context) {
    for (const fact of context.survey.facts) {
      if (fact.kind !== 'string-twice') continue;
      const place = fact.chain[0]?.place;
      const first = place ? `${place.path}:${place.line}` : 'another place';
      const data = { name: fact.name ?? '', network: networkName(context, fact.network) };
      yield { ...fromFact(fact), message: 'twice', data, changing: { first } };
    }
  },
});
