import { normalId } from '../../standards/skadnetwork.js';
import { defineRule } from '../model.js';
import { fromFact } from '../scope.js';

/** An identifier that the attribution list names more than once. */
export const attributionIdTwice = defineRule({
  meta: {
    id: 'attribution/id-twice',
    severity: 'note',
    ifShipped: 'Nothing breaks; the list grows until nobody can say what belongs in it.',
    mend: 'Remove the second entry.',
    messages: { twice: '{id} is in the list twice.' },
    needsTitle: false,
  },
  *run({ survey }) {
    const seen = new Set<string>();
    for (const fact of survey.facts) {
      const id = fact.kind === 'attribution-id' ? normalId(fact.value) : null;
      if (id === null) continue;
      const keys = fact.variants.map((variant) => `${fact.module} ${variant} ${fact.place.path} ${id}`);
      if (keys.some((key) => seen.has(key))) yield { ...fromFact(fact), message: 'twice', data: { id } };
      for (const key of keys) seen.add(key);
    }
  },
});
