import type { Span } from '../text/problem.js';
import type { Tree } from '../tree/tree.js';
import { codeOf, readingOf, type CodeFile } from './source-files.js';
import type { SourceHolder } from './source-reading.js';

/** Up to how many uses of a name are kept; where there are more, nobody can say that all of them are left out. */
export const maxUses = 300;

/** A place where code uses a name. */
export interface NameUse extends Span {
  file: CodeFile;
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
    const declared = declaredAt(code, readingOf(tree, file.path).holders);
    for (const { 0: name, index: start } of code.matchAll(/[A-Za-z_$][\w$]*/g)) {
      const end = start + name.length;
      if (!names.has(name) || declared.has(start) || isDeclared(code, start, end)) continue;
      const uses = found.get(name) ?? [];
      found.set(name, uses);
      if (uses.length <= maxUses) uses.push({ file, start, end });
    }
  }
  return found;
}

/** How far before a body the name of its owner may be. */
const maxHead = 200;

/** Where names are declared: before what they hold, its parameters and type, or else where they first are within it. */
function declaredAt(code: string, holders: readonly SourceHolder[]): Set<number> {
  const found = new Set<number>();
  for (const { is, name, start, end } of holders) {
    if (is === 'key' || name === '') continue;
    const isWord = (at: number) => !isPart(code[at - 1]) && !isPart(code[at + name.length]);
    const from = Math.max(0, start - maxHead);
    const before = from + code.slice(from, start).lastIndexOf(name);
    const isHead = /^\s*(?:\([^()]*\))?[\s\w:<>?]*$/.test(code.slice(before + name.length, start));
    if (before >= from && isHead && isWord(before)) {
      found.add(before);
      continue;
    }
    const last = Math.min(end, start + maxHead);
    let at = code.indexOf(name, start);
    while (at >= 0 && at < last && !isWord(at)) at = code.indexOf(name, at + name.length);
    if (at >= 0 && at < last) found.add(at);
  }
  return found;
}

const isPart = (character: string | undefined): boolean => character !== undefined && /[\w$]/.test(character);

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
