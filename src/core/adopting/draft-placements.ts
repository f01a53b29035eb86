import { entryAt, valueAt } from '../text/own-values.js';
import type { Format } from '../words/words.js';
import type { Evidence, OpenPoint } from './model.js';
import type { FoundUnit } from './units.js';
import { type Draft } from './model.js';

/** Placements by name and format, then, for what is left, by being the only ones of a format on each side. */
export function draftPlacements(
  units: readonly FoundUnit[],
  draft: Draft,
  evidence: Evidence[],
  open: OpenPoint[],
): void {
  const take = (unit: FoundUnit, name: string, format: Format, pairing: string) => {
    const placement = entryAt(draft.placements, name, () => ({ format, settings: {}, units: {} }));
    const stage = unit.stage;
    if (stage === null) return `The variants that carry it have no stage.`;
    const stages = (entryAt(placement.units, unit.network, () => ({}))[unit.platform] ??= {});
    if (stages[stage] !== undefined && stages[stage] !== unit.id)
      return `The placement ${name} has ${stages[stage]} already for the same stage.`;
    stages[stage] = unit.id;
    const why = `Named by ${unit.nameFrom}; the format by ${unit.formatFrom}${pairing}.`;
    const confidence = pairing === '' ? unit.confidence : 'guess';
    evidence.push({
      field: `placements.${name}.units.${unit.network}.${unit.platform}.${stage}`,
      value: unit.id,
      confidence,
      why,
      place: unit.fact.place,
    });
    return null;
  };
  const left: FoundUnit[] = [];
  for (const unit of units) {
    const partner = units.find(
      (other) =>
        other !== unit &&
        other.name === unit.name &&
        unit.name !== null &&
        other.format !== null &&
        (unit.format ?? other.format) === other.format,
    );
    const format = unit.format ?? partner?.format ?? null;
    if (unit.name === null || format === null) {
      left.push(unit);
      continue;
    }
    const known = valueAt(draft.placements, unit.name);
    // One name for two formats is two placements.
    const name = known && known.format !== format ? `${unit.name}-${format}` : unit.name;
    const refused = take(unit, name, format, unit.format === null ? ', which the other platform tells' : '');
    if (refused !== null) open.push({ what: unitText(unit), why: refused, place: unit.fact.place });
  }
  for (const unit of left) {
    const single =
      unit.format !== null &&
      left.filter(
        (other) =>
          other.platform === unit.platform && other.network === unit.network && other.format === unit.format,
      ).length === 1;
    const lonely = Object.entries(draft.placements).filter(
      ([, { format, units: held }]) =>
        format === unit.format &&
        valueAt(held, unit.network) !== undefined &&
        valueAt(held, unit.network)?.[unit.platform] === undefined,
    );
    const [only] = lonely;
    if (single && only && lonely.length === 1 && unit.format !== null) {
      const refused = take(
        unit,
        only[0],
        unit.format,
        `; paired with ${only[0]} as the only ${unit.format} without a counterpart`,
      );
      if (refused === null) continue;
    }
    const lacks = [unit.name === null ? 'a name' : '', unit.format === null ? 'a format' : '']
      .filter(Boolean)
      .join(' and ');
    open.push({ what: unitText(unit), why: `Nothing gives it ${lacks}.`, place: unit.fact.place });
  }
  for (const [name, { units: held }] of Object.entries(draft.placements)) {
    const platforms = new Set(Object.values(held).flatMap((perPlatform) => Object.keys(perPlatform)));
    if (platforms.size === 1 && Object.keys(draft.editions).length === 2)
      open.push({
        what: `The placement ${name}`,
        why: `It was found on ${[...platforms][0] ?? ''} only.`,
        place: null,
      });
  }
}

function unitText({ id, network, platform }: FoundUnit): string {
  return `The unit ${id} of ${network} on ${platform}`;
}

export function slug(text: string): string {
  const plain = text
    .replace(/([a-z0-9])([A-Z])/g, '$1-$2')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '');
  return plain === '' ? 'title' : plain.slice(0, 60);
}

export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
