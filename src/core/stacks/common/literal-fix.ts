import type { ChainStep } from '../../facts/evidence.js';
import type { Change } from '../../edits/model.js';
import { appIdRules } from './by-hand-steps.js';
import type { Edit } from '../../text/edit.js';
import type { Tree } from '../../tree/tree.js';

/** A value as it is literally written at the end of a chain of evidence. */
interface WrittenValue {
  path: string;
  start: number;
  end: number;
}

/** Where the last link of a chain is literally written; undefined where that cannot be determined for sure. */
export function writtenValue(
  tree: Tree,
  chain: readonly ChainStep[],
  value: string,
): WrittenValue | undefined {
  const last = chain.at(-1);
  const place = last?.place;
  const document = place && tree.text(place.path);
  if (!document || place.endLine === undefined || place.endColumn === undefined || value === '')
    return undefined;
  const from = document.lines.lineStart(place.line) + place.column - 1;
  const to = document.lines.lineStart(place.endLine) + place.endColumn - 1;
  const at = document.text.slice(from, to).indexOf(value);
  if (at < 0 || document.text.slice(from, to).indexOf(value, at + 1) >= 0) return undefined;
  return { path: place.path, start: from + at, end: from + at + value.length };
}

/** A value that a variant carries, and the one that it should. */
interface WrongValue {
  variant: string;
  chain: readonly ChainStep[];
  value: string;
  wanted: string;
}

/** Literal fixes of app IDs as changes; undefined where `literalFixes` is. */
export function appIdFixes(
  tree: Tree,
  values: readonly (WrongValue | undefined)[],
  { platform, network }: Pick<Change, 'platform' | 'network'>,
): Change[] | undefined {
  const known = values.flatMap((value) => value ?? []);
  if (known.length < values.length) return undefined;
  return literalFixes(tree, known)?.map(({ path, variants, ...edit }) => ({
    path,
    platform,
    network,
    topic: 'app-id',
    rules: appIdRules,
    variants,
    kind: 'edit',
    edits: [edit],
  }));
}

/**
 * Puts right values where the wrong ones are written. Nothing is done unless it can be done for all of them:
 * undefined when a place cannot be determined, or serves variants that want different values.
 */
export function literalFixes(
  tree: Tree,
  values: readonly WrongValue[],
): (Edit & { path: string; variants: string[] })[] | undefined {
  const places = new Map<string, WrittenValue & { wanted: string; value: string; variants: string[] }>();
  for (const { variant, chain, value, wanted } of values) {
    const written = writtenValue(tree, chain, value);
    if (!written) {
      if (value === wanted) continue;
      return undefined;
    }
    const key = `${written.path} ${written.start}`;
    const known = places.get(key);
    if (known && known.wanted !== wanted) return undefined;
    if (known) known.variants.push(variant);
    else places.set(key, { ...written, wanted, value, variants: [variant] });
  }
  return [...places.values()]
    .filter(({ value, wanted }) => value !== wanted)
    .map(({ path, start, end, wanted, variants }) => ({ path, start, end, text: wanted, variants }));
}
