import type { Fact, Survey } from './model.js';
import { byKind, identityOf } from './show.js';

/** A value that one reading of a tree has otherwise than an earlier one, in some variants. */
export interface FactChange {
  was: Fact | null;
  is: Fact | null;
  /** The variants in which it changed, as `module variant`. */
  variants: string[];
}

/** What a reading of a tree has otherwise than an earlier one; how the values came about does not count. */
export function compareSurveys(earlier: Pick<Survey, 'facts'>, later: Pick<Survey, 'facts'>): FactChange[] {
  const before = bySpot(earlier.facts);
  const after = bySpot(later.facts);
  const changes = new Map<string, FactChange>();
  for (const spot of new Set([...before.keys(), ...after.keys()])) {
    const [was, is] = [before.get(spot) ?? null, after.get(spot) ?? null];
    if (was?.value === is?.value && JSON.stringify(was?.effective) === JSON.stringify(is?.effective))
      continue;
    const [variant = '', identity = ''] = JSON.parse(spot) as string[];
    const key = JSON.stringify([identity, was?.value, is?.value, was?.effective, is?.effective]);
    const known = changes.get(key) ?? { was, is, variants: [] };
    known.variants.push(variant);
    changes.set(key, known);
  }
  return [...changes.values()].sort((a, b) => byKind(kindOf(a), kindOf(b)));
}

function kindOf({ was, is }: FactChange): Pick<Fact, 'kind'> {
  return is ?? was ?? { kind: 'identifier' };
}

/** Facts by variant and by what they are about; where one thing has several values, each counts by itself. */
function bySpot(facts: readonly Fact[]): Map<string, Fact> {
  const found = new Map<string, Fact>();
  for (const fact of facts)
    for (const variant of fact.variants) {
      const spot = (count: number) =>
        JSON.stringify([`${fact.module} ${variant}`, `${identityOf(fact)}${count > 0 ? ` ${count}` : ''}`]);
      let count = 0;
      while (found.has(spot(count)) && found.get(spot(count))?.value !== fact.value) count++;
      found.set(spot(count), fact);
    }
  return found;
}
