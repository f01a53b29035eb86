import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { appendItem, insertLine, pbxString } from '../../../formats/pbxproj/edit.js';
import { entryOf, stringOf, type PbxDict, type PbxEntry } from '../../../formats/pbxproj/read.js';
import { baseOf } from '../../../text/paths.js';
import type { Edit } from '../../../text/edit.js';

/** An object ID of 24 hexadecimal digits, the same whenever the same thing is added to the same target. */
export function objectId(text: string): string {
  return bytesToHex(sha256(utf8ToBytes(text)))
    .slice(0, 24)
    .toUpperCase();
}

/** Adds an object beside the others of its kind, as one line; where there are none, before the last object. */
export function addObject(text: string, objects: PbxDict, isa: string, line: string, eol: string): Edit {
  const first = objects.entries.find((entry) => stringOf(entry.value, 'isa') === isa) ?? objects.entries[0];
  return insertLine(text, first?.start ?? objects.inner.start, line, eol);
}

/** The line of a file reference; the path is relative to the group that holds it. */
export function fileReference(id: string, path: string, type: string): string {
  const name = baseOf(path);
  const named = path === name ? '' : `name = ${pbxString(name)}; `;
  return (
    `${id} /* ${name} */ = {isa = PBXFileReference; fileEncoding = 4; lastKnownFileType = ${type}; ` +
    `${named}path = ${pbxString(path)}; sourceTree = "<group>"; };`
  );
}

/** The line of a file in a build phase. */
export function buildFile(id: string, file: string, name: string, phase: string): string {
  return `${id} /* ${name} in ${phase} */ = {isa = PBXBuildFile; fileRef = ${file} /* ${name} */; };`;
}

/** Adds an item to a list of an object, when it has that list. */
export function addToList(
  text: string,
  object: PbxEntry | undefined,
  key: string,
  item: string,
  eol: string,
): Edit | undefined {
  const list = entryOf(object?.value, key)?.value;
  return list?.type === 'list' ? appendItem(text, list, item, eol) : undefined;
}

/** Adds an item to a list of an object; a list that is not there yet is made, where the alphabet puts it. */
export function addToOrMakeList(
  text: string,
  object: PbxEntry,
  key: string,
  item: string,
  eol: string,
): Edit | undefined {
  const there = addToList(text, object, key, item, eol);
  if (there || object.value.type !== 'dict' || entryOf(object.value, key)) return there;
  const [isa, ...others] = object.value.entries;
  const after = others.find((entry) => entry.key > key) ?? undefined;
  const at = after ?? isa;
  if (!at) return undefined;
  const lineStart = Math.max(text.lastIndexOf('\n', at.start - 1), text.lastIndexOf('\r', at.start - 1)) + 1;
  const indent = /^[ \t]*/.exec(text.slice(lineStart, at.start))?.[0] ?? '';
  return insertLine(text, at.start, `${key} = (${eol}${indent}\t${item},${eol}${indent});`, eol);
}
