import type { Fact } from '../../facts/model.js';
import { callsOf, oncePerPlace } from '../code.js';
import { isCalledLater } from '../lifecycles.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** Something is loaded before its SDK is started. */
export const startAfterLoad = defineRule({
  meta: {
    id: 'code/start-after-load',
    severity: 'blocker',
    ifShipped:
      'The first request of every launch reaches an SDK that was not started: it fails, or the app stops.',
    mend: 'Start the SDK first, in the application class or the entry point, and load when it has started.',
    messages: {
      below: '{call} runs before {network} is started, which is done below it, in line {line}.',
      later: '{call} runs in {method}, but {network} is started only in {other}, which is called later.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        const starts = callsOf(scope, profile.id, 'start');
        for (const load of oncePerPlace(callsOf(scope, profile.id, 'load', 'view'))) {
          // Any start that may come first is enough.
          const later = starts.filter((start) => isAfter(start, load));
          const [start] = later;
          if (!start || later.length < starts.length) continue;
          const [method = '', other = ''] = [load, start].map((call) => call.code?.methods.at(-1) ?? '');
          const data = { call: load.value, network: profile.name };
          yield method === other
            ? { ...fromFact(load), message: 'below', data, changing: { line: String(start.place.line) } }
            : { ...fromFact(load), message: 'later', data: { ...data, method, other } };
        }
      }
    }
  },
});

/** Whether a call surely runs after another one: below it in one method, or in a method that is called later. */
function isAfter(call: Fact, other: Fact): boolean {
  const [mine, others] = [call.code?.methods ?? [], other.code?.methods ?? []];
  if (call.place.path !== other.place.path || call.code?.type !== other.code?.type || mine.length === 0)
    return false;
  if (mine.length === others.length && mine.every((name, index) => name === others[index]))
    return (
      call.place.line > other.place.line ||
      (call.place.line === other.place.line && call.place.column > other.place.column)
    );
  const [own, before] = [mine[0] ?? '', others[0] ?? ''];
  return mine.length === 1 && others.length === 1 && isCalledLater(own, before);
}
