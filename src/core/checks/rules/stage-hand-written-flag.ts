import { oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A constant that somebody sets by hand decides which IDs a build carries. */
export const handWrittenFlag = defineRule({
  meta: {
    id: 'stage/hand-written-flag',
    severity: 'warning',
    ifShipped:
      'One forgotten edit before a release sends samples to the store, or real ads to every desk that develops.',
    mend: 'Let the build say it: name the placement through the placebook, or ask for the mode of the build.',
    messages: { flag: '{name} is {value} by hand, and decides which ID is used.' },
    needsTitle: true,
  },
  *run(context) {
    const flags = editionScopes(context).flatMap(({ facts }) =>
      facts.filter(({ kind }) => kind === 'hand-flag'),
    );
    for (const fact of oncePerPlace(flags)) {
      const data = { name: fact.name ?? '', value: fact.value };
      yield { ...fromFact(fact), platform: null, module: null, variants: [], message: 'flag', data };
    }
  },
});
