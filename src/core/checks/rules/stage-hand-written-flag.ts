import { oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A constant that somebody sets by hand decides which IDs a build carries. */
export const handWrittenFlag = defineRule({
  meta: {
    id: 'stage/hand-written-flag',
    severity: 'warning',
    ifShipped: 'One forgotten edit before a release ships sample IDs, or shows real ads to developers.',
    mend: 'Let the build decide: name the placement through the placebook, or check the build mode.',
    messages: { flag: '{name} is set to {value} by hand, and decides which ID is used.' },
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
