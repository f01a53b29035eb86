import { placementsOf } from '../../checks/code.js';
import { isWhereBuildLooks } from '../../facts/effective.js';
import type { EditionScope } from '../../checks/scope.js';
import type { FactOf } from '../../facts/model.js';
import { valueAt } from '../../text/own-values.js';
import type { Format } from '../../words/words.js';

export type Call = FactOf<'call'>;
export type LayoutView = FactOf<'banner-view'>;

/** Which placement code is about, and what had to be assumed to say so. */
export interface Attributed {
  placement: string;
  assumed?: string;
}

/** The call requests an ad, but the code does not show for which placement. */
export const open = 'open';

/**
 * The placement that a call or a view of a network is about, for one format: by its unit ID or the placebook's name in
 * its arguments, in this variant or in another; else by a name that its arguments have; else by what else its file
 * names; else as the only one there is. Null where it is about none of this format; `open` where several are possible.
 */
export function placementOf(
  scope: EditionScope,
  fact: Call | LayoutView,
  format: Format,
): Attributed | typeof open | null {
  const { title } = scope;
  const fitting = Object.entries(title.placements)
    .filter(([, one]) => one.format === format && valueAt(one.units, fact.network ?? ''))
    .map(([name]) => name);
  const among = (names: Iterable<string>) => {
    const found = new Set([...names].filter((name) => fitting.includes(name)));
    return found.size === 1 ? [...found][0] : undefined;
  };
  // What a call names itself settles it: one that names a placement of another format is about none of this one.
  for (const own of [placementsOf(fact, title), heldByName(scope, fact), elsewhereNamed(scope, fact)]) {
    if (own.length === 0) continue;
    const placement = among(own);
    if (placement !== undefined) return { placement };
    if (!own.some((name) => fitting.includes(name))) return null;
  }
  const { written = '' } = fact.code?.argument ?? {};
  const alike = among(namedLike(written, fitting));
  if (alike !== undefined)
    return { placement: alike, assumed: `It is for ${alike}, which ${written} names.` };
  const named = among(namedInFile(scope, fact));
  if (named !== undefined) return { placement: named };
  const [only, ...others] = fitting;
  if (only === undefined) return null;
  if (others.length > 0) return open;
  return { placement: only, assumed: `It is for ${only}, the only ${format} placement of this network.` };
}

/** What the same call names in other variants. */
function elsewhereNamed({ facts, title }: EditionScope, fact: Call | LayoutView): string[] {
  const { path, line, column } = fact.place;
  return facts.flatMap((other) => {
    const isSame =
      other.kind === fact.kind &&
      other !== fact &&
      other.network === fact.network &&
      other.place.path === path &&
      other.place.line === line &&
      other.place.column === column;
    return isSame ? placementsOf(other, title) : [];
  });
}

/** The words of a name in code or of a placement: `PoolUnits.Current` has `pool`, `units` and `current`. */
const wordsOf = (text: string): string[] =>
  text
    .replace(/([a-z0-9])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter((word) => word !== '');

/** The placements whose names occur in an expression. A name that is part of a longer match is left out. */
function namedLike(written: string, names: readonly string[]): string[] {
  const text = ` ${wordsOf(written.slice(0, 300)).join(' ')} `;
  const found = names.filter((name) => text.includes(` ${wordsOf(name).join(' ')} `));
  return found.filter((name) => !found.some((other) => other !== name && other.includes(name)));
}

/** The placement that an argument refers to by the name of a variable: `prepare(chart)`. */
function heldByName({ facts }: EditionScope, { place, code }: Call | LayoutView): string[] {
  const written = code?.argument?.written.replace(/^(?:this|self|widget)[.?!]+/, '') ?? '';
  if (!/^[\w$]+$/.test(written)) return [];
  return facts.flatMap((fact) => {
    const isHeld =
      fact.kind === 'placement-use' &&
      fact.place.path === place.path &&
      fact.code?.flow?.into === 'constant' &&
      fact.code.flow.name === written;
    return isHeld ? (fact.placement ?? []) : [];
  });
}

/** The placements that a file names through the placebook, or by unit IDs. */
function namedInFile({ facts }: EditionScope, { place, network }: Call | LayoutView): string[] {
  return facts.flatMap((fact) => {
    if (fact.place.path !== place.path || fact.placement === undefined) return [];
    const isNamed = fact.kind === 'placement-use' || (fact.kind === 'unit-id' && fact.network === network);
    return isNamed ? [fact.placement] : [];
  });
}

/** The unit ID that a build hands over, or why it has none. */
export interface HandedUnit {
  unit: string | null;
  why: string | null;
  /** What is assumed where code chooses between several as it runs. */
  assumed?: string;
}

/** The unit ID that a variant hands to a call for a placement. */
export function unitFor(
  { facts, expected }: EditionScope,
  {
    network,
    placement,
    variant,
    stage,
  }: { network: string; placement: string; variant: string; stage: string },
  call: Call | LayoutView | null,
): HandedUnit {
  const { ids = [] } = call?.code?.argument ?? {};
  const carried = facts.filter(
    (fact): fact is FactOf<'unit-id'> =>
      fact.kind === 'unit-id' &&
      fact.network === network &&
      isWhereBuildLooks(fact) &&
      fact.variants.includes(variant),
  );
  const own = ids.filter((id) => ids.length === 1 || carried.some(({ value }) => value === id));
  const wanted = expected.find(
    (one) => one.placement === placement && one.network === network && one.stage === stage,
  )?.id;
  const inFile = carried.filter(({ place }) => place.path === call?.place.path);
  const byPlacebook = carried.filter(({ carrier, name }) => carrier === 'placebook' && name === placement);
  const choices = [
    own,
    inFile.map(({ value }) => value),
    byPlacebook.map(({ value }) => value),
    carried.filter((fact) => fact.placement === placement).map(({ value }) => value),
    carried.filter(({ value }) => value === wanted).map(({ value }) => value),
  ];
  for (const values of choices) {
    const different = [...new Set(values)];
    if (different.length === 1) return { unit: different[0] ?? null, why: null };
    if (wanted !== undefined && different.includes(wanted))
      return {
        unit: wanted,
        why: null,
        assumed: `It passes ${wanted}, one of ${different.length} that the code chooses from.`,
      };
    if (different.length > 1)
      return {
        unit: null,
        why: `${variant} has several unit IDs for it: ${different.slice(0, 4).join(', ')}.`,
      };
  }
  return { unit: null, why: `${variant} has no unit ID for it.` };
}
