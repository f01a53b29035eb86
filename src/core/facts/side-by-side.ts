import type { Fact, Unresolved } from './model.js';
import { byKind, factSubject, identityOf, labelOf } from './show.js';

/** Something that may be otherwise in every variant of an edition: a permission, a unit ID, an SDK level. */
export interface SideRow {
  /** Tells it from the others. */
  key: string;
  kind: Fact['kind'];
  label: string;
  /** What of its kind it is, such as a placement; undefined where there is but one. */
  subject: string | undefined;
  network: string | null;
  /** What the variants carry, each different thing once, with the variants that carry it in their order. */
  sides: Side[];
  /** The variants without any value for it. */
  without: string[];
}

/** What some variants carry: a value, or a value that cannot be told. */
export type Side = { variants: string[] } & ({ facts: Fact[] } | { unresolved: Unresolved });

/** The facts of an edition: what all variants have in common, and what they differ in. */
export interface SideBySide {
  shared: SideRow[];
  differing: SideRow[];
}

/**
 * Puts the variants of one module side by side. What every variant carries, with the same values in the same way, is
 * shared.
 * @param variants the variants of the module, in the order of its columns
 */
export function sideBySide(
  { facts, unresolved }: { facts: readonly Fact[]; unresolved: readonly Unresolved[] },
  variants: readonly string[],
): SideBySide {
  const rows = new Map<string, SideRow>();
  const rowOf = (key: string, make: () => Omit<SideRow, 'key' | 'sides' | 'without'>): SideRow => {
    const found = rows.get(key) ?? { key, ...make(), sides: [], without: [] };
    rows.set(key, found);
    return found;
  };
  for (const fact of [...facts].sort(byKind)) {
    const row = rowOf(keyOf(fact), () => ({
      kind: fact.kind,
      label: labelOf(fact.kind),
      subject: factSubject(fact),
      network: fact.network,
    }));
    addSide(row, { facts: [fact], variants: fact.variants });
  }
  for (const one of unresolved) {
    const { kind, network, what } = one;
    const row = rowOf(JSON.stringify(['unresolved', kind, network, what]), () => ({
      kind,
      label: labelOf(kind),
      subject: what,
      network,
    }));
    addSide(row, { unresolved: one, variants: one.variants });
  }
  const all = [...rows.values()];
  for (const row of all) {
    const order = (names: readonly string[]) => variants.filter((name) => names.includes(name));
    for (const side of row.sides) side.variants = order(side.variants);
    row.without = variants.filter((name) => !row.sides.some((side) => side.variants.includes(name)));
  }
  const isShared = ({ sides }: SideRow) => sides.every((side) => side.variants.length === variants.length);
  return { shared: all.filter(isShared), differing: all.filter((row) => !isShared(row)) };
}

/** The key of a fact’s row. Unit IDs of one placement share a row, so that variants can be compared. */
function keyOf(fact: Fact): string {
  const { kind, network, placement } = fact;
  return placement === null ? identityOf(fact) : JSON.stringify([kind, network, placement]);
}

/** Adds what some variants carry; the same thing in further variants, or written once more, joins its side. */
function addSide(row: SideRow, side: Side): void {
  const same = row.sides.find((other) => contentOf(other) === contentOf(side));
  if (!same) {
    row.sides.push({ ...side, variants: [...side.variants] });
    return;
  }
  same.variants = [...new Set([...same.variants, ...side.variants])];
  if ('facts' in same && 'facts' in side) same.facts = [...same.facts, ...side.facts];
}

/** What makes two sides the same, wherever they are written. */
function contentOf(side: Side): string {
  if ('unresolved' in side) return JSON.stringify([side.unresolved.reason, side.unresolved.place]);
  const [fact] = side.facts;
  return JSON.stringify([fact?.value, fact?.effective]);
}
