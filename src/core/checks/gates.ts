import type { FactOf } from '../facts/model.js';
import type { Profile } from '../network/model.js';
import { languageOf } from '../languages/index.js';
import { callsOf, firstInMethods, isBelow, methodOf, oncePerPlace, sitesOf } from './code.js';
import type { EditionScope } from './scope.js';

type Call = FactOf<'call'>;

/** What has to be done before anything is loaded: the start-up, or the question for consent. */
export type Gate = 'start' | 'consent';

/** A load that does not wait for a call, and that call. */
export interface EarlyLoad {
  load: Call;
  gate: Call;
  /** When it is done; null where the code has to wait for the call. */
  completed: string | null;
  /** Why the network wants it so. */
  why: string;
}

/**
 * The loads that run in the same method after a gate's call, and not once it is done: outside of its closure, or
 * without waiting for it. Where a network reports by a callback, a load beside the call is early.
 */
export function earlyLoads(scope: EditionScope, profile: Profile, gate: Gate): EarlyLoad[] {
  const gates = new Map(
    firstInMethods(callsOf(scope, profile.id, gate)).flatMap((one) => {
      const { methods = [] } = one.code ?? {};
      return methods.length > 0 ? [[methodOf(one, methods), one] as const] : [];
    }),
  );
  if (gates.size === 0) return [];
  return oncePerPlace(callsOf(scope, profile.id, 'load')).flatMap((load): EarlyLoad[] => {
    for (const site of sitesOf(load)) {
      const beside = gates.get(methodOf(load, site.methods));
      const [own] = beside ? sitesOf(beside) : [];
      if (!beside || !own || site.follows.includes(gate) || !isBelow(site, own)) continue;
      return reports(profile, beside, gate).map((report) => ({ load, gate: beside, ...report }));
    }
    return [];
  });
}

/** How a call reports that it is done, in the language that it is written in; nothing where that is no matter here. */
function reports(
  profile: Profile,
  { place, awaited }: Call,
  gate: Gate,
): Pick<EarlyLoad, 'completed' | 'why'>[] {
  const language = languageOf(place.path)?.id;
  const calls = language === undefined ? undefined : profile.code[language];
  const said = gate === 'start' ? calls?.start : calls?.consent;
  if (!said) return [];
  const { completed, completes, why } = said;
  if (completed !== undefined) return [{ completed: `${completed} is called`, why }];
  if (completes === 'closure') return [{ completed: 'the closure that it is given runs', why }];
  // A suspending call of Kotlin needs no word for it: what comes after it waits.
  const isOpen = completes === 'await' && !awaited && language !== 'kotlin';
  return isOpen ? [{ completed: null, why }] : [];
}
