import type { Fact, FactOf } from '../facts/model.js';
import type { Profile } from '../network/model.js';
import { groupBy } from '../text/group-by.js';
import { valueAt } from '../text/own-values.js';
import type { Platform } from '../words/words.js';
import { namedOtherwise, placementsByType } from './carrier-names.js';
import type { Title } from './model.js';

/** What loads, or shows, the unit that it is given. */
const loading = new Set<string>(['load', 'view', 'identify']);

/**
 * Tells whether a unit ID in the code of an edition is where another belongs: a call of another format loads it, or the
 * code names it otherwise. A reference to its placement would hide that mistake.
 */
export function misplacedUnits(
  facts: readonly Fact[],
  title: Title,
  platform: Platform,
): (fact: Fact, profile: Profile) => boolean {
  let loads: ReadonlyMap<string, readonly FactOf<'call'>[]> | undefined;
  const types = new Map<string, ReturnType<typeof placementsByType>>();
  const byType = (network: string) => {
    const found = types.get(network) ?? placementsByType(facts, network);
    types.set(network, found);
    return found;
  };
  return (fact, profile) => {
    if (fact.kind !== 'unit-id' || fact.placement === undefined) return false;
    loads ??= loadsOf(facts, platform);
    const placement = valueAt(title.placements, fact.placement);
    const calls = (loads.get(fact.value) ?? []).filter(
      (call) =>
        call.network === profile.id &&
        (!call.code?.argument?.written.includes(fact.value) || isIn(fact, call)),
    );
    // One call may load several formats: it is a fact for each.
    const places = groupBy(calls, ({ place: { path, line, column } }) => `${path} ${line} ${column}`);
    return (
      (placement !== undefined &&
        [...places.values()].some((one) => !one.some(({ format }) => format === placement.format))) ||
      namedOtherwise(fact, byType(profile.id), title, profile) !== undefined
    );
  };
}

/** The calls of a format that are given an ID, by ID. */
function loadsOf(facts: readonly Fact[], platform: Platform): Map<string, FactOf<'call'>[]> {
  const loads = new Map<string, FactOf<'call'>[]>();
  for (const fact of facts) {
    if (fact.kind !== 'call' || fact.platform !== platform || !loading.has(fact.action)) continue;
    for (const id of new Set(fact.code?.argument?.ids)) {
      const known = loads.get(id) ?? [];
      known.push(fact);
      loads.set(id, known);
    }
  }
  return loads;
}

/** Whether a literal is among the lines of a call. */
function isIn({ place }: Fact, { place: { path, line, endLine = line } }: Fact): boolean {
  return place.path === path && line <= place.line && place.line <= endLine;
}
