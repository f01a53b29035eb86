import type { Edit } from '../../text/edit.js';
import type { Span } from '../../text/problem.js';
import type { PackageDependency, PackageJson } from './read.js';

/**
 * Adds a package to the dependencies, at its place in the alphabet where the others are in order, else as the
 * last. None where the file is no object.
 */
export function addPackage(
  text: string,
  { block, whole, dependencies }: PackageJson,
  { name, range, lineEnd }: { name: string; range: string; lineEnd: string },
): Edit[] {
  const entry = `${JSON.stringify(name)}: ${JSON.stringify(range)}`;
  if (!block) return whole ? addBlock(text, whole, entry, lineEnd) : [];
  const own = dependencies.filter(({ section }) => section === 'dependencies');
  const [first] = own;
  if (!first) {
    const indent = indentAt(text, block.start);
    const inner = `${indent}${indent || '  '}`;
    const between = `{${lineEnd}${inner}${entry}${lineEnd}${indent}}`;
    return [{ ...block, text: between }];
  }
  const names = own.map((one) => one.name);
  const sorted = names.every((one, at) => at === 0 || (names[at - 1] ?? '') < one);
  const before = sorted ? own.findLast((one) => one.name < name) : own.at(-1);
  const space = spaceBefore(text, first.start, block.start);
  if (!before) return [{ start: first.start, end: first.start, text: `${entry},${space || ' '}` }];
  return [{ start: before.end, end: before.end, text: `,${space || ' '}${entry}` }];
}

/** Gives a package another version range. */
export function setPackageVersion({ versionSpan }: PackageDependency, range: string): Edit[] {
  return [{ ...versionSpan, text: JSON.stringify(range) }];
}

/** Takes a package out, with the comma and the line that it stood on. */
export function removePackage({ block, dependencies }: PackageJson, { name }: PackageDependency): Edit[] {
  const own = dependencies.filter(({ section }) => section === 'dependencies');
  const at = own.findIndex((one) => one.name === name);
  const [before, mine, after] = [own[at - 1], own[at], own[at + 1]];
  if (!block || !mine) return [];
  if (before) return [{ start: before.end, end: mine.end, text: '' }];
  if (after) return [{ start: mine.start, end: after.start, text: '' }];
  return [{ start: block.start + 1, end: block.end - 1, text: '' }];
}

function addBlock(text: string, whole: Span, entry: string, lineEnd: string): Edit[] {
  const inner = text.slice(whole.start + 1, whole.end - 1);
  const last = whole.start + 1 + inner.trimEnd().length;
  const indent = /[\r\n]([ \t]+)"/.exec(text)?.[1] ?? '  ';
  const comma = inner.trim() === '' ? '' : ',';
  const block = `${comma}${lineEnd}${indent}"dependencies": {${lineEnd}${indent}${indent}${entry}${lineEnd}${indent}}`;
  const tail = /[\r\n]/.test(inner) && inner.trim() !== '' ? '' : lineEnd;
  return [{ start: last, end: last, text: `${block}${tail}` }];
}

/** What is between an entry and what is before it: a line end and its indentation, or a space. */
function spaceBefore(text: string, at: number, from: number): string {
  return /\s*$/.exec(text.slice(from, at))?.[0] ?? '';
}

function indentAt(text: string, at: number): string {
  const line = text.slice(Math.max(text.lastIndexOf('\n', at), text.lastIndexOf('\r', at)) + 1, at);
  return /^[ \t]*/.exec(line)?.[0] ?? '';
}
