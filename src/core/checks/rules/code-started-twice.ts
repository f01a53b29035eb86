import { defineRule } from '../model.js';
import type { Fact } from '../../facts/model.js';
import { callsOf, oncePerPlace } from '../code.js';
import { editionScopes, fromFact } from '../scope.js';

/** A network's SDK is started at two places. */
export const startedTwice = defineRule({
  meta: {
    id: 'code/started-twice',
    severity: 'warning',
    ifShipped: 'The second start-up throws away what the first has loaded, and requests are counted twice.',
    mend: 'Keep the start-up call that is where the network requires it, and remove the other.',
    messages: {
      twice: '{network} is started here and at {other}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        const starts = oncePerPlace(callsOf(scope, profile.id, 'start'));
        for (const [index, call] of starts.entries()) {
          const earlier = starts.slice(0, index).find((other) => bothRun(other, call));
          if (!earlier) continue;
          const other = `${earlier.place.path}:${earlier.place.line}`;
          yield { ...fromFact(call), message: 'twice', data: { network: profile.name, other } };
        }
      }
    }
  },
});

/** Whether one run may pass through both calls: a variant has both, and no condition is asked both ways. */
function bothRun(a: Fact, b: Fact): boolean {
  if (!a.variants.some((name) => b.variants.includes(name))) return false;
  const apart = (a.code?.conditions ?? []).some((one) =>
    (b.code?.conditions ?? []).some((other) => other.text === one.text && other.holds !== one.holds),
  );
  return !apart;
}
