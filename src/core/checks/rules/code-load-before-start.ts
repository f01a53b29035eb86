import { defineRule } from '../model.js';
import { callsOf, languagesFor, oncePerPlace } from '../code.js';
import { editionScopes, fromFact } from '../scope.js';

/** Something is loaded right after the start-up, which is not done by then. */
export const loadBeforeStart = defineRule({
  meta: {
    id: 'code/load-before-start',
    severity: 'warning',
    ifShipped: 'The first request of every launch fails, and the placement stays empty until the next.',
    mend: 'Load in the callback that reports that the SDK has started.',
    messages: {
      early:
        '{call} runs right after the start-up call of {network}, which has finished only when {completed} is called.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        const completed = languagesFor(profile, scope.platform).flatMap(
          ({ start }) => start.completed ?? [],
        )[0];
        if (completed === undefined) continue;
        const starts = callsOf(scope, profile.id, 'start');
        for (const load of oncePerPlace(callsOf(scope, profile.id, 'load'))) {
          const beside = starts.find(
            (start) =>
              start.place.path === load.place.path &&
              start.place.line <= load.place.line &&
              start.code?.type === load.code?.type &&
              sameMethods(start.code?.methods ?? [], load.code?.methods ?? []),
          );
          if (!beside) continue;
          yield {
            ...fromFact(load),
            message: 'early',
            data: { call: load.value, network: profile.name, completed },
          };
        }
      }
    }
  },
});

function sameMethods(a: readonly string[], b: readonly string[]): boolean {
  return a.length > 0 && a.length === b.length && a.every((name, index) => name === b[index]);
}
