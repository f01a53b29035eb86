import type { FactOf } from '../../facts/model.js';
import { callsOf, firstInMethods, isBelow, oncePerPlace, sitesOf, type CallSite } from '../code.js';
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
        const starts = firstInMethods(callsOf(scope, profile.id, 'start'));
        for (const load of oncePerPlace(callsOf(scope, profile.id, 'load', 'view'))) {
          const [start] = starts;
          const sites = sitesOf(load);
          const siteBefore = (one: FactOf<'call'>) => sites.find((site) => isAfter(one, load, site));
          const site = start && siteBefore(start);
          // Any start that may come first is enough.
          if (!start || !site || !starts.every(siteBefore)) continue;
          const [method = '', other = ''] = [site.methods, start.code?.methods ?? []].map((one) =>
            one.at(-1),
          );
          const data = { call: load.value, network: profile.name };
          yield method === other
            ? { ...fromFact(load), message: 'below', data, changing: { line: String(start.place.line) } }
            : { ...fromFact(load), message: 'later', data: { ...data, method, other } };
        }
      }
    }
  },
});

/** Whether a start surely runs after a load: below it in one method, or in a method that is called later. */
function isAfter(start: FactOf<'call'>, load: FactOf<'call'>, site: CallSite): boolean {
  const [own] = sitesOf(start);
  if (!own || start.place.path !== load.place.path || start.code?.type !== load.code?.type) return false;
  if (own.methods.length === 0 && start.code?.type != null) return false;
  if (isBelow(own, site)) return true;
  const [mine, others] = [own.methods[0] ?? '', site.methods[0] ?? ''];
  return own.methods.length === 1 && site.methods.length === 1 && isCalledLater(mine, others);
}
