import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import {
  appendReference,
  insertEnclosed,
  insertLine,
  labelled,
  pbxString,
} from '../../../formats/pbxproj/edit.js';
import { entryOf, stringOf, type PbxDict, type PbxEntry } from '../../../formats/pbxproj/read.js';
import { baseOf } from '../../../text/paths.js';
import type { Edit } from '../../../text/edit.js';
import type { GroupReference } from './references.js';

/** An object ID of 24 hexadecimal digits, the same whenever the same thing is added to the same target. */
export function objectId(text: string): string {
  return bytesToHex(sha256(utf8ToBytes(text)))
    .slice(0, 24)
    .toUpperCase();
}

/**
 * Adds an object as one line: in the section of its kind, in the order of IDs. A section that is not there yet is made
 * where the alphabet puts it, in files that have sections.
 */
export function addObject(text: string, objects: PbxDict, isa: string, line: string, eol: string): Edit[] {
  const ofKind = objects.entries.filter((entry) => stringOf(entry.value, 'isa') === isa);
  const last = ofKind.at(-1);
  if (last) {
    const id = line.slice(0, line.indexOf(' '));
    const after = ofKind.find(({ key }) => key > id);
    return [after ? insertLine(text, after.start, line, eol) : lineAfter(text, last, line, eol)];
  }
  const sections = sectionsIn(text, objects);
  const [first] = sections;
  if (!first) return [insertLine(text, objects.entries[0]?.start ?? objects.inner.start, line, eol)];
  const before = sections.filter(({ name }) => name < isa).at(-1);
  // Before the blank line in front of the first section, or behind the line that ends another one.
  const at = before ? nextLine(text, before.end) : nextLine(text, objects.start);
  const open = `${eol}/* Begin ${isa} section */`;
  return [insertEnclosed(at, { open, line: `\t\t${line}`, close: `/* End ${isa} section */` }, eol)];
}

/** The sections that comments divide the objects of a file into, in their order. */
function sectionsIn(text: string, { inner }: PbxDict): { name: string; end: number }[] {
  return [...text.slice(inner.start, inner.end).matchAll(/^\/\* End (\w+) section \*\//gm)].map((found) => ({
    name: found[1] ?? '',
    end: inner.start + found.index,
  }));
}

function nextLine(text: string, offset: number): number {
  const lineEnd = /\r\n|\n|\r/.exec(text.slice(offset));
  return lineEnd ? offset + lineEnd.index + lineEnd[0].length : text.length;
}

/** Adds a line below the one that an entry ends on. */
function lineAfter(text: string, { start, end }: PbxEntry, line: string, eol: string): Edit {
  const lineStart = Math.max(text.lastIndexOf('\n', start - 1), text.lastIndexOf('\r', start - 1)) + 1;
  const indent = /^[ \t]*/.exec(text.slice(lineStart, start))?.[0] ?? '';
  return { start: end, end, text: `${eol}${indent}${line}` };
}

/** The line of a file reference. */
export function fileReference(id: string, { path, sourceTree }: GroupReference, type: string): string {
  const name = baseOf(path);
  const named = path === name ? '' : `name = ${pbxString(name)}; `;
  return (
    `${labelled(id, name)} = {isa = PBXFileReference; fileEncoding = 4; lastKnownFileType = ${type}; ` +
    `${named}path = ${pbxString(path)}; sourceTree = ${pbxString(sourceTree)}; };`
  );
}

/** The line of a file in a build phase. */
export function buildFile(id: string, file: string, name: string, phase: string): string {
  return `${labelled(id, `${name} in ${phase}`)} = {isa = PBXBuildFile; fileRef = ${labelled(file, name)}; };`;
}

/** Adds a reference (see `labelled`) to a list of an object, when it has that list. */
export function addToList(
  text: string,
  object: PbxEntry | undefined,
  key: string,
  reference: string,
  eol: string,
): Edit | undefined {
  const list = entryOf(object?.value, key)?.value;
  return list?.type === 'list' ? appendReference(text, list, reference, eol) : undefined;
}

/**
 * Adds a reference to a list of an object; a list that is not there yet is made, where the alphabet puts it. None
 * where the object has something else by that name.
 */
export function addToOrMakeList(
  text: string,
  object: PbxEntry,
  key: string,
  reference: string,
  eol: string,
): Edit[] | undefined {
  const there = addToList(text, object, key, reference, eol);
  if (there) return [there];
  if (object.value.type !== 'dict' || entryOf(object.value, key)) return undefined;
  const [isa, ...others] = object.value.entries;
  const after = others.find((entry) => entry.key > key) ?? isa;
  if (!after) return undefined;
  const lineStart =
    Math.max(text.lastIndexOf('\n', after.start - 1), text.lastIndexOf('\r', after.start - 1)) + 1;
  const indent = text.slice(lineStart, after.start);
  // An object in one line gets its list in that line.
  if (indent.trim() !== '') return [insertLine(text, after.start, `${key} = (${reference}, );`, eol)];
  const enclosed = { open: `${indent}${key} = (`, line: `${indent}\t${reference},`, close: `${indent});` };
  return [insertEnclosed(lineStart, enclosed, eol)];
}
