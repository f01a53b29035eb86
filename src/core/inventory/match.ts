import { valueAt } from '../text/own-values.js';
import * as z from 'zod';
import type { Profile } from '../network/model.js';
import { Format, Platform, platforms } from '../words/words.js';
import { offers } from '../network/recognise.js';
import type { Title } from '../roster/model.js';
import { heldIds } from '../roster/validate.js';
import { type InventoryApp, InventoryUnit } from './model.js';
import { readPattern } from '../text/patterns.js';
import { nameWords, unitName, usualPattern, type UnitSpot } from './names.js';
import { groupBy } from '../text/group-by.js';

export const Confidence = z.enum(['certain', 'high', 'low']).meta({
  description:
    'certain: the roster has this ID there; high: the name matches; low: only format and platform match.',
});
export type Confidence = z.infer<typeof Confidence>;

export const UnitMatch = z
  .object({
    unit: InventoryUnit,
    placement: z.string(),
    platform: Platform,
    confidence: Confidence,
    why: z.string(),
    isNew: z.boolean().meta({ description: 'Whether the roster does not have the ID yet.' }),
  })
  .meta({ description: 'A row of an inventory and the placement that it belongs to.' });
export type UnitMatch = z.infer<typeof UnitMatch>;

export const Unmatched = z.object({
  unit: InventoryUnit,
  why: z.string(),
  candidates: z.array(z.object({ placement: z.string(), format: Format, platform: Platform })),
});
export type Unmatched = z.infer<typeof Unmatched>;

export const HeldElsewhere = z
  .object({ unit: InventoryUnit, title: z.string(), placement: z.string(), platform: Platform })
  .meta({ description: 'A row of an inventory whose ID belongs to another title, and where.' });
export type HeldElsewhere = z.infer<typeof HeldElsewhere>;

/** Where the units of one network are in other titles, by their ID. */
export type OtherUnits = ReadonlyMap<string, Omit<HeldElsewhere, 'unit'>>;

/** Where the units of a network are in titles. */
export function unitsOf(network: string, titles: Iterable<readonly [id: string, title: Title]>): OtherUnits {
  const units = new Map<string, Omit<HeldElsewhere, 'unit'>>();
  for (const [id, title] of titles)
    for (const held of heldIds(title))
      if (held.network === network && held.placement !== undefined)
        units.set(held.id, { title: id, placement: held.placement, platform: held.platform });
  return units;
}

/** A place of the roster that wants a production ID and has none. */
interface Slot extends UnitSpot {
  key: string;
}

/**
 * Matches the units of an inventory to placements: by ID, then by name, then by format and platform where just
 * one row and one placement are left. Each row and each placement is matched once; what is open stays listed.
 * A row that another title holds is never matched, whatever it is called, and neither is one of another app.
 */
export function matchUnits(
  titleId: string,
  title: Title,
  profile: Profile,
  units: readonly InventoryUnit[],
  { others = new Map(), apps = [] }: { others?: OtherUnits; apps?: readonly InventoryApp[] } = {},
): { matches: UnitMatch[]; unmatched: Unmatched[]; elsewhere: HeldElsewhere[] } {
  const held = new Map(
    heldIds(title)
      .filter(({ network, kind }) => network === profile.id && kind === 'unit')
      .map((id) => [id.id, id]),
  );
  const matches: UnitMatch[] = [];
  const open: InventoryUnit[] = [];
  const elsewhere: HeldElsewhere[] = [];
  const foreign: Unmatched[] = [];
  const isForeign = foreignApp(title, profile, apps);
  for (const unit of units) {
    const at = held.get(unit.id);
    const other = others.get(unit.id);
    if (at?.placement !== undefined)
      matches.push({
        unit,
        placement: at.placement,
        platform: at.platform,
        confidence: 'certain',
        why: 'the roster has this ID there',
        isNew: false,
      });
    else if (other) elsewhere.push({ unit, ...other });
    else if (unit.app !== null && isForeign(unit.app))
      foreign.push({
        unit,
        why: `it belongs to the app ${unit.app}, which is not of this title`,
        candidates: [],
      });
    else open.push(unit);
  }
  const slots = new Map(openSlots(titleId, title, profile).map((slot) => [slot.key, slot]));
  const gone = open.filter(({ status }) => status === 'removed');
  const rest = byName(
    titleId,
    open.filter(({ status }) => status !== 'removed'),
    slots,
    matches,
  );
  const unmatched = byShape(rest, slots, matches);
  const removed = gone.map((unit) => ({ unit, why: 'the network has removed it', candidates: [] }));
  return { matches, unmatched: [...unmatched, ...removed, ...foreign], elsewhere };
}

/**
 * Whether an app of a network is surely not one of a title: by the IDs on record, and by the network's list of apps.
 */
function foreignApp(
  { networks, editions }: Title,
  { id, ids }: Profile,
  apps: readonly InventoryApp[],
): (app: string) => boolean {
  const enrolment = valueAt(networks, id) ?? {};
  const own = new Set(
    platforms.flatMap((platform) =>
      [enrolment[platform]?.production?.app, enrolment[platform]?.test?.app].flatMap((app) => app ?? []),
    ),
  );
  const identifiers = new Set(platforms.flatMap((platform) => editions[platform]?.identifier ?? []));
  const listed = new Map(apps.map((app) => [app.id, app.identifier]));
  // A table may have the name of an app where its ID is expected.
  const pattern = ids.app && readPattern(ids.app.pattern);
  return (app) => {
    if (own.has(app)) return false;
    const identifier = listed.get(app);
    if (identifier !== undefined) return !identifiers.has(identifier);
    return own.size > 0 && pattern?.matches(app) === true;
  };
}

function openSlots(titleId: string, title: Title, profile: Profile): Slot[] {
  return Object.entries(title.placements).flatMap(([placement, { format, units }]) =>
    valueAt(units, profile.id)
      ? platforms
          .filter(
            (platform) =>
              title.editions[platform] &&
              offers(profile, format, platform) &&
              !valueAt(units, profile.id)?.[platform]?.production,
          )
          .map((platform) => ({
            key: `${placement} ${platform}`,
            title: titleId,
            placement,
            format,
            platform,
          }))
      : [],
  );
}

function fits(unit: InventoryUnit, slot: Slot): boolean {
  return (
    (unit.format === null || unit.format === slot.format) &&
    (unit.platform === null || unit.platform === slot.platform)
  );
}

/** Rows whose name shows the place: the full name by the usual pattern, or all words of the placement. */
function byName(
  titleId: string,
  units: readonly InventoryUnit[],
  slots: Map<string, Slot>,
  matches: UnitMatch[],
): { unit: InventoryUnit; named: Slot[] }[] {
  const exact = new Map(
    [...slots.values()].map((slot) => [nameWords(unitName(usualPattern, slot)).join(' '), slot]),
  );
  const wanted = [...slots.values()].map((slot) => ({ slot, words: nameWords(slot.placement) }));
  const byWord = groupBy(wanted, ({ words: [word = ''] }) => word);
  const firsts = [...byWord.keys()].slice(0, 64);
  const isShort = byWord.size <= firsts.length;
  const nobody = { named: [] as Slot[], whole: false };
  const read = units.map((unit) => {
    // Most rows of a long list belong to other titles: they hold the first word of no placement of this one.
    const lower = unit.name.toLowerCase();
    if (isShort && !firsts.some((word) => lower.includes(word))) return { unit, ...nobody };
    const words = nameWords(unit.name);
    const whole = exact.get(words.join(' '));
    if (whole && fits(unit, whole)) return { unit, named: [whole], whole: true };
    const has = new Set(words);
    const named = [...has]
      .flatMap((word) => byWord.get(word) ?? [])
      .filter((entry) => entry.words.every((word) => has.has(word)) && fits(unit, entry.slot));
    const longest = Math.max(0, ...named.map((entry) => entry.words.length));
    return {
      unit,
      named: named.filter((entry) => entry.words.length === longest).map(({ slot }) => slot),
      whole: false,
    };
  });
  const claims = new Map<string, number>();
  for (const { named } of read)
    if (named.length === 1 && named[0]) claims.set(named[0].key, (claims.get(named[0].key) ?? 0) + 1);
  const rest: { unit: InventoryUnit; named: Slot[] }[] = [];
  for (const { unit, named, whole } of read.sort((a, b) => Number(b.whole) - Number(a.whole))) {
    const [slot] = named;
    const only = named.length === 1 && slot && slots.has(slot.key);
    const sure = only && claims.get(slot.key) === 1 && unit.platform !== null;
    if (!sure) {
      rest.push({ unit, named });
      continue;
    }
    slots.delete(slot.key);
    const why = whole
      ? `its name is the one that ${titleId} uses for this place`
      : `its name “${unit.name}” contains every word of ${slot.placement}`;
    matches.push({
      unit,
      placement: slot.placement,
      platform: slot.platform,
      confidence: 'high',
      why,
      isNew: true,
    });
  }
  return rest;
}

/** One row and one placement that are alone with their format and platform: worth showing, never taken unasked. */
function byShape(
  rest: readonly { unit: InventoryUnit; named: Slot[] }[],
  slots: Map<string, Slot>,
  matches: UnitMatch[],
): Unmatched[] {
  const count = new Map<string, number>();
  const shape = (format: string | null, platform: string | null) => `${format} ${platform}`;
  for (const { unit } of rest)
    if (unit.format && unit.platform)
      count.set(shape(unit.format, unit.platform), (count.get(shape(unit.format, unit.platform)) ?? 0) + 1);
  const byShapeOf = groupBy(slots.values(), ({ format, platform }) => shape(format, platform));
  return rest.flatMap(({ unit, named }): Unmatched[] => {
    const key = shape(unit.format, unit.platform);
    const places =
      unit.format && unit.platform
        ? (byShapeOf.get(key) ?? [])
        : [...slots.values()].filter((slot) => fits(unit, slot));
    const [slot] = places;
    if (slot && places.length === 1 && count.get(key) === 1 && named.length === 0) {
      matches.push({
        unit,
        placement: slot.placement,
        platform: slot.platform,
        confidence: 'low',
        why: `it is the only ${slot.format} on ${slot.platform} that is left, and so is this placement`,
        isNew: true,
      });
      return [];
    }
    const likely = (named.length > 0 ? named : places).slice(0, 8);
    const why =
      unit.platform === null && likely.length > 0
        ? 'the row does not name its platform'
        : named.length > 1
          ? 'its name fits several placements'
          : named.length === 1
            ? 'several rows have this name'
            : likely.length > 0
              ? 'several placements have its format and platform'
              : 'no placement of the title needs such a unit';
    return [
      {
        unit,
        why,
        candidates: likely.map(({ placement, format, platform }) => ({ placement, format, platform })),
      },
    ];
  });
}
