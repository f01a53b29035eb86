import { platformLabels, withPlatformLabels } from '../words/platform-labels.js';
import { entryAt, valueAt } from '../text/own-values.js';
import type { Format } from '../words/words.js';
import type { Evidence, OpenPoint, Draft } from './model.js';
import type { FoundUnit } from './units.js';

/** A draft in the making, with its evidence and the points that are left open. */
interface Drafting {
  draft: Draft;
  evidence: Evidence[];
  open: OpenPoint[];
}

/** Placements by name and format, then, for what is left, by being the only ones of a format on each side. */
export function draftPlacements(units: readonly FoundUnit[], drafting: Drafting): void {
  const left = units.filter((unit) => !takeByName(unit, units, drafting));
  for (const unit of left) takeAsOnlyOne(unit, left, drafting);
  const { draft, open } = drafting;
  if (Object.keys(draft.editions).length < 2) return;
  for (const [name, { units: held }] of Object.entries(draft.placements)) {
    const platforms = new Set(Object.values(held).flatMap((perPlatform) => Object.keys(perPlatform)));
    if (platforms.size === 1)
      open.push({
        what: `The placement ${name}`,
        why: `It was found only on ${withPlatformLabels([...platforms].join(''))}.`,
        place: null,
      });
  }
}

/** Whether a unit has a name and a format to go by, of its own or of its counterpart. */
function takeByName(unit: FoundUnit, units: readonly FoundUnit[], drafting: Drafting): boolean {
  const { draft, open } = drafting;
  const partner = units.find(
    (other) =>
      other !== unit &&
      other.name === unit.name &&
      unit.name !== null &&
      other.format !== null &&
      (unit.format ?? other.format) === other.format,
  );
  const format = unit.format ?? partner?.format ?? null;
  if (unit.name === null || format === null) return false;
  const known = valueAt(draft.placements, unit.name);
  // One name for two formats is two placements.
  const name = known && known.format !== format ? `${unit.name}-${format}` : unit.name;
  const pairing = unit.format === null ? ', which the other platform tells' : '';
  const refused = take(unit, { name, format, pairing }, drafting);
  if (refused !== null) open.push({ what: unitText(unit), why: refused, place: unit.fact.place });
  return true;
}

/** Pairs a unit with the only placement of its format that lacks one. What cannot be paired is left open. */
function takeAsOnlyOne(unit: FoundUnit, left: readonly FoundUnit[], drafting: Drafting): void {
  const { draft, open } = drafting;
  const { format, platform, network } = unit;
  const alike = left.filter(
    (other) => other.platform === platform && other.network === network && other.format === format,
  );
  const lonely = Object.entries(draft.placements).filter(
    ([, { format: wanted, units: held }]) =>
      wanted === format &&
      valueAt(held, network) !== undefined &&
      valueAt(held, network)?.[platform] === undefined,
  );
  const [only] = lonely;
  if (format !== null && alike.length === 1 && only && lonely.length === 1) {
    const [name] = only;
    const pairing = `; paired with ${name} as the only ${format} without a counterpart`;
    if (take(unit, { name, format, pairing }, drafting) === null) return;
  }
  const lacks = [unit.name === null ? 'a name' : '', format === null ? 'a format' : ''];
  const why = `Nothing shows its ${lacks.filter(Boolean).join(' and ')}.`;
  open.push({ what: unitText(unit), why, place: unit.fact.place });
}

/** Puts a unit into a placement. Returns why that cannot be done; null when it was. */
function take(
  unit: FoundUnit,
  { name, format, pairing }: { name: string; format: Format; pairing: string },
  { draft, evidence }: Drafting,
): string | null {
  const placement = entryAt(draft.placements, name, () => ({ format, settings: {}, units: {} }));
  const { stage } = unit;
  if (stage === null) return `The variants that contain it have no stage.`;
  const stages = (entryAt(placement.units, unit.network, () => ({}))[unit.platform] ??= {});
  if (stages[stage] !== undefined && stages[stage] !== unit.id)
    return `The placement ${name} has ${stages[stage]} already for the same stage.`;
  stages[stage] = unit.id;
  evidence.push({
    field: `placements.${name}.units.${unit.network}.${unit.platform}.${stage}`,
    value: unit.id,
    confidence: pairing === '' ? unit.confidence : 'guess',
    why:
      unit.nameFrom === unit.formatFrom
        ? `The name and the format are from ${unit.nameFrom}${pairing}.`
        : `The name is from ${unit.nameFrom}; the format is from ${unit.formatFrom}${pairing}.`,
    place: unit.fact.place,
  });
  return null;
}

function unitText({ id, network, platform }: FoundUnit): string {
  return `The unit ${id} of ${network} on ${platformLabels[platform]}`;
}

/** A short name in small letters, digits and dashes; `title` when nothing is left. */
export function slug(text: string): string {
  const plain = text
    .replace(/([a-z0-9])([A-Z])/g, '$1-$2')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '');
  return plain === '' ? 'title' : plain.slice(0, 60);
}

/** The text with a capital first letter. */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
