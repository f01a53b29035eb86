import { putAt } from '../../text/own-values.js';
import { Slug } from '../../words/words.js';
import type { Title } from '../model.js';

/** A placement, and the name that a pattern gives it. */
export interface Renaming {
  from: string;
  to: string;
}

/** A name that a pattern cannot give, and why. */
export interface RenamingFault extends Renaming {
  message: string;
}

/**
 * The new names of placements that match a pattern. Each `*` matches any text and keeps it: `home-*` as `start-*`
 * makes `start-footer` of `home-footer`.
 */
export function renamings(
  { placements }: Pick<Title, 'placements'>,
  pattern: string,
  replacement: string,
): { names: Renaming[]; faults: RenamingFault[] } {
  const stars = [...pattern].filter((one) => one === '*').length;
  const kept = [...replacement].filter((one) => one === '*').length;
  const fitting = Object.keys(placements).flatMap((from) => {
    const parts = partsOf(from, pattern.split('*'));
    if (!parts) return [];
    let at = 0;
    return [{ from, to: replacement.replace(/\*/g, () => parts[at++] ?? '') }];
  });
  const faults = new Map<string, RenamingFault>();
  // A placement that cannot be renamed keeps its name, which another one can then not have.
  for (let known = -1; known < faults.size;) {
    known = faults.size;
    const moving = fitting.filter(({ from }) => !faults.has(from));
    const leaving = new Set(moving.map(({ from }) => from));
    const staying = new Set(Object.keys(placements).filter((name) => !leaving.has(name)));
    const taken = new Map<string, string>();
    for (const one of moving) {
      const message =
        kept > stars ? 'The new name has more stars than the pattern.' : faultOf(one, staying, taken);
      if (message !== undefined) faults.set(one.from, { ...one, message });
      taken.set(one.to, one.from);
    }
  }
  const names = fitting.filter(({ from, to }) => !faults.has(from) && from !== to);
  return { names, faults: [...faults.values()] };
}

/** The shortest text that each star of a pattern matches in a name; undefined if the name does not match. */
function partsOf(name: string, texts: readonly string[]): string[] | undefined {
  const [first = '', ...others] = texts;
  const last = others.pop();
  if (last === undefined) return name === first ? [] : undefined;
  if (!name.startsWith(first)) return undefined;
  const parts: string[] = [];
  let at = first.length;
  for (const text of others) {
    const next = name.indexOf(text, at);
    if (next < 0) return undefined;
    parts.push(name.slice(at, next));
    at = next + text.length;
  }
  if (!name.endsWith(last) || name.length - last.length < at) return undefined;
  return [...parts, name.slice(at, name.length - last.length)];
}

function faultOf(
  { from, to }: Renaming,
  staying: ReadonlySet<string>,
  taken: ReadonlyMap<string, string>,
): string | undefined {
  if (!Slug.safeParse(to).success)
    return 'A name has only small letters, digits and single dashes, and starts with a letter.';
  const twin = taken.get(to);
  if (twin !== undefined && twin !== from) return `${twin} would have the same name.`;
  return staying.has(to) ? 'Another placement already has this name.' : undefined;
}

/** A title with placements of other names, in the same order. */
export function withNames(title: Title, names: readonly Renaming[]): Title {
  const to = new Map(names.map((one) => [one.from, one.to]));
  const placements: Title['placements'] = {};
  for (const [name, placement] of Object.entries(title.placements))
    putAt(placements, to.get(name) ?? name, placement);
  return { ...title, placements };
}
