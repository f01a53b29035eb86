import * as z from 'zod';
import type { Profile } from '../network/model.js';
import { usesNetwork } from './expected.js';
import type { Roster } from './model.js';
import type { Fact } from '../facts/model.js';
import { mergedIds, normalId } from '../standards/skadnetwork.js';

export const NeededIds = z
  .object({
    network: z.string(),
    networkName: z.string(),
    ids: z.array(z.string()),
    why: z.string(),
    list: z.string().nullable().meta({ description: 'Where the network publishes its list.' }),
  })
  .meta({ description: 'The SKAdNetwork identifiers that a network requires.' });
export type NeededIds = z.infer<typeof NeededIds>;

/** What the networks of all titles ask for, in the order of the profiles. */
export function neededIds(roster: Roster, profiles: readonly Profile[]): NeededIds[] {
  const titles = Object.values(roster.titles).filter(({ editions }) => editions.ios);
  return profiles.flatMap(({ id, name, ios }) => {
    if (!ios?.attribution || !titles.some((title) => usesNetwork(title, id))) return [];
    const { ids, why, list } = ios.attribution;
    return [{ network: id, networkName: name, ids, why, list: list ?? null }];
  });
}

export const AttributionComparison = z
  .object({
    needed: z.array(NeededIds),
    missing: z.array(
      z.object({ id: z.string(), networks: z.array(z.string()), variants: z.array(z.string()) }),
    ),
    more: z.array(z.string()).meta({ description: 'Identifiers in the tree that no network requires.' }),
    odd: z.array(z.string()).meta({ description: 'Entries that are not identifiers in standard form.' }),
    there: z.number(),
  })
  .meta({
    title: 'Attribution',
    description: 'The attribution list of a tree, compared with the identifiers that networks require.',
  });
export type AttributionComparison = z.infer<typeof AttributionComparison>;

/** Holds the attribution lists of a tree against what networks, and further published lists, ask for. */
export function compareAttribution(
  facts: readonly Fact[],
  variants: readonly string[],
  needed: readonly NeededIds[],
  lists: readonly (readonly string[])[],
): AttributionComparison {
  const mine = facts.filter(({ kind }) => kind === 'attribution-id');
  const wanted = mergedIds([...needed.map(({ ids }) => ids), ...lists]);
  const missing = wanted.flatMap((id) => {
    const has = mine.filter(({ value }) => normalId(value) === id).flatMap((fact) => fact.variants);
    const lacking = variants.filter((name) => !has.includes(name));
    if (lacking.length === 0) return [];
    const networks = needed.filter(({ ids }) => ids.includes(id)).map(({ network }) => network);
    return [{ id, networks, variants: lacking }];
  });
  const there = new Set(mine.flatMap(({ value }) => normalId(value) ?? []));
  return {
    needed: [...needed],
    missing,
    more: [...there].filter((id) => !wanted.includes(id)).sort(),
    odd: [...new Set(mine.map(({ value }) => value).filter((value) => normalId(value) !== value))],
    there: there.size,
  };
}
