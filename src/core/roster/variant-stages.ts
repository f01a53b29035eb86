import { valueAt } from '../text/own-values.js';
import { stageOf, type VariantNames } from './stage.js';
import type { Title } from './model.js';
import type { Fact, Variant } from '../facts/model.js';

/** A variant with the stage that a title gives it; without a title its stage stays open. */
export function staged(variant: VariantNames, title: Title | null): Variant {
  const base = { name: variant.name, type: variant.type, flavours: [...variant.flavours] };
  if (!title) return { ...base, stage: null, stageWhy: 'no title was given, so its stage is not known' };
  const match = stageOf(variant, title.stages);
  return match.stage
    ? { ...base, stage: match.stage, stageWhy: match.by }
    : { ...base, stage: null, stageWhy: match.reason };
}

/** The identifier of the variant that ships: one of the production stage, else the last that is known. */
export function shippingIdentifier(
  variants: readonly Variant[],
  identifiers: Readonly<Record<string, string>>,
): string | null {
  const production = variants.find(
    ({ name, stage }) => stage === 'production' && valueAt(identifiers, name) !== undefined,
  );
  const last = variants.findLast(({ name }) => valueAt(identifiers, name) !== undefined);
  const chosen = production ?? last;
  return chosen ? (valueAt(identifiers, chosen.name) ?? null) : null;
}

/** Gives unit-ID facts the names that the roster has for their placements. */
export function withPlacements(facts: readonly Fact[], title: Title | null): Fact[] {
  const holders = holdersIn(title);
  return facts.map((fact) => {
    const placement =
      fact.kind === 'unit-id' && fact.network ? holders.get(`${fact.network} ${fact.value}`) : undefined;
    return placement ? { ...fact, placement } : fact;
  });
}

/** The names of the placements that hold unit IDs, by network and ID; the first one where several hold the same. */
function holdersIn(title: Title | null): Map<string, string> {
  const holders = new Map<string, string>();
  for (const [name, { units }] of Object.entries(title?.placements ?? {}))
    for (const [network, platforms] of Object.entries(units))
      for (const id of Object.values(platforms).flatMap((stages) => Object.values(stages))) {
        const key = `${network} ${id}`;
        if (!holders.has(key)) holders.set(key, name);
      }
  return holders;
}
