import type { Edit } from '../../text/edit.js';
import { removeStatement } from '../../text/lines.js';
import type { PubDependency, Pubspec } from './read.js';

/** Adds a package as the last of the dependencies; none where the block is written in a form that is not extended. */
export function addPubDependency(
  text: string,
  { block }: Pubspec,
  { name, range, lineEnd }: { name: string; range: string; lineEnd: string },
): Edit[] {
  if (!block) {
    if (/^dependencies[ \t]*:/m.test(text)) return [];
    const ends = text === '' || /[\r\n]$/.test(text);
    const line = `${ends ? '' : lineEnd}${lineEnd}dependencies:${lineEnd}  ${name}: ${range}${lineEnd}`;
    return [{ start: text.length, end: text.length, text: line }];
  }
  // A comment behind the last entry stays with it.
  const from = block.entriesEnd ?? block.keyEnd;
  const rest = /^[^\r\n]*/.exec(text.slice(from, from + 2000))?.[0].length ?? 0;
  const at = from + rest;
  return [{ start: at, end: at, text: `${lineEnd}${block.indent}${name}: ${range}` }];
}

/** Gives a package another version range; none where it comes from elsewhere than a registry. */
export function setPubVersion(dependency: PubDependency, range: string): Edit[] {
  const { versionSpan, version, end } = dependency;
  if (version === null) return [];
  return versionSpan ? [{ ...versionSpan, text: range }] : [{ start: end, end, text: ` ${range}` }];
}

/** Takes a package out, with its line. */
export function removePubDependency(text: string, { start, end }: PubDependency): Edit {
  const trimmed = start + text.slice(start, end).trimEnd().length;
  const comment = /^[ \t]+#[^\r\n]*/.exec(text.slice(trimmed, trimmed + 500))?.[0].length ?? 0;
  return removeStatement(text, { start, end: trimmed + comment });
}
