import { isWhereBuildLooks } from './effective.js';
import type { Fact, FactOf } from './model.js';

/** Tells in which variants a unit ID counts as part of the build. */
export type Carrying = (fact: FactOf<'unit-id'>) => readonly string[];

/**
 * The unit IDs in the build of an edition. One that is only in the placebook counts in the variants whose code names
 * its placement, or names any placement if it is not known which: the placebook is generated, so it proves nothing by
 * itself.
 */
export function carryingOf(facts: readonly Fact[]): Carrying {
  const named = new Map<string, Set<string>>();
  for (const fact of facts) {
    if (fact.kind !== 'placement-use' || fact.placement === undefined) continue;
    const variants = named.get(fact.placement) ?? new Set<string>();
    for (const variant of fact.variants) variants.add(variant);
    named.set(fact.placement, variants);
  }
  return (fact) => {
    if (!isWhereBuildLooks(fact)) return [];
    if (fact.carrier !== 'placebook') return fact.variants;
    const names = [fact.placement, fact.name].filter((name) => name !== undefined);
    const uses = names.length > 0 ? names.flatMap((name) => named.get(name) ?? []) : [...named.values()];
    return fact.variants.filter((variant) => uses.some((variants) => variants.has(variant)));
  };
}
