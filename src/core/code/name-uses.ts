import { coveringAt } from '../text/covering.js';
import type { Tree } from '../tree/tree.js';
import { codeOf, readingOf, type CodeFile } from './source-files.js';
import type { Condition, SourceHolder } from './source-reading.js';

/** Up to how many uses of a name are kept; where there are more, nobody can say that all of them are left out. */
export const maxUses = 300;

/** A place where code uses a name, with what must hold there, and the names that the place itself belongs to. */
export interface NameUse {
  file: CodeFile;
  start: number;
  end: number;
  conditions: readonly Condition[];
  holders: readonly SourceHolder[];
}

const known = new WeakMap<readonly CodeFile[], ReadonlyMap<string, readonly NameUse[]>>();

/** The uses of the names under which the files of a module hold something. Declarations, imports and bases are none. */
export function nameUses(tree: Tree, files: readonly CodeFile[]): ReadonlyMap<string, readonly NameUse[]> {
  let uses = known.get(files);
  if (!uses) {
    uses = readUses(tree, files);
    known.set(files, uses);
  }
  return uses;
}

function readUses(tree: Tree, files: readonly CodeFile[]): ReadonlyMap<string, readonly NameUse[]> {
  const names = new Set(
    files.flatMap(({ path }) =>
      readingOf(tree, path).holders.flatMap(({ is, name }) => (is === 'name' ? [name] : [])),
    ),
  );
  const found = new Map<string, NameUse[]>();
  for (const file of files) {
    const code = codeOf(tree, file.path);
    const { holders, stretches } = readingOf(tree, file.path);
    const declared = declaredAt(code, holders);
    const places: { name: string; start: number }[] = [];
    for (const { 0: name, index: start } of code.matchAll(/[A-Za-z_$][\w$]*/g)) {
      if (!names.has(name) || declared.has(start) || isDeclared(code, start, start + name.length)) continue;
      const before = found.get(name)?.length ?? 0;
      if (before + places.length > maxUses && before > maxUses) continue;
      places.push({ name, start });
    }
    const offsets = places.map(({ start }) => start);
    const around = coveringAt(holders, offsets);
    const under = coveringAt(stretches, offsets);
    for (const [at, { name, start }] of places.entries()) {
      const uses = found.get(name) ?? [];
      found.set(name, uses);
      if (uses.length > maxUses) continue;
      const conditions = (under[at] ?? []).map(({ condition }) => condition);
      uses.push({ file, start, end: start + name.length, conditions, holders: around[at] ?? [] });
    }
  }
  return found;
}

/** How far before a body the name of what it belongs to may stand. */
const maxHead = 200;

/** Where names are declared: at the beginning of what they hold, or before its parameters and type. */
function declaredAt(code: string, holders: readonly SourceHolder[]): Set<number> {
  const found = new Set<number>();
  for (const { is, name, start, end } of holders) {
    if (is === 'key' || name === '') continue;
    const inside = code.slice(start, Math.min(end, start + maxHead)).indexOf(name);
    if (inside >= 0) found.add(start + inside);
    const from = Math.max(0, start - maxHead);
    const before = code.slice(from, start);
    const at = before.lastIndexOf(name);
    if (at >= 0 && /^\s*(?:\([^()]*\))?[\s\w:<>?]*$/.test(before.slice(at + name.length)))
      found.add(from + at);
  }
  return found;
}

/** Whether a name is declared, imported or made the base of a type at a place, as far as the words around it say. */
function isDeclared(code: string, start: number, end: number): boolean {
  const before = code.slice(Math.max(code.lastIndexOf('\n', start - 1) + 1, start - 60), start);
  return (
    /\b(?:class|struct|interface|protocol|enum|object|extension|func|fun|function|get|import|implements|extends|typealias|type)\s+(?:[\w$]+\s*,\s*)*$/.test(
      before,
    ) ||
    (/\bpartial\s+[\w<>?]+\s+$/.test(before) && /^\s*\(\s*\)\s*;/.test(code.slice(end, end + 20))) ||
    /^\s*import\b/.test(before)
  );
}
