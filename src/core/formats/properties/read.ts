import type { ReadProblem, Span } from '../../text/problem.js';

/** A property with the place of its line, continuation lines included. */
export interface Property extends Span {
  value: string;
}

export interface Properties {
  /** The last value of each key, as a build tool sees it. */
  entries: ReadonlyMap<string, Property>;
  problems: ReadProblem[];
}

/**
 * Reads a `.properties` file: comments, the three separators, lines that go on behind a backslash, escapes.
 *
 * Source: the format that `java.util.Properties.load(Reader)` documents.
 */
export function readProperties(text: string): Properties {
  const entries = new Map<string, Property>();
  let at = text.startsWith('\ufeff') ? 1 : 0;
  while (at < text.length) {
    const start = at;
    let line = '';
    for (let goesOn = true; goesOn && at < text.length;) {
      const end = lineEnd(text, at);
      const piece = text.slice(at, end).replace(/^[ \t\f]+/, '');
      at = end + (text.startsWith('\r\n', end) ? 2 : 1);
      const isComment = line === '' && /^[#!]/.test(piece);
      goesOn = !isComment && endsInBackslash(piece);
      line += isComment ? '' : goesOn ? piece.slice(0, -1) : piece;
    }
    if (line !== '') {
      const [key, value] = split(line);
      entries.set(key, { value, start, end: trimmedEnd(text, start, at) });
    }
  }
  return { entries, problems: [] };
}

function lineEnd(text: string, from: number): number {
  let at = from;
  while (at < text.length && text[at] !== '\n' && text[at] !== '\r') at++;
  return at;
}

function endsInBackslash(line: string): boolean {
  let slashes = 0;
  while (line[line.length - 1 - slashes] === '\\') slashes++;
  return slashes % 2 === 1;
}

function trimmedEnd(text: string, start: number, end: number): number {
  let at = Math.min(end, text.length);
  while (at > start && /\s/.test(text[at - 1] ?? '')) at--;
  return at;
}

function split(line: string): [string, string] {
  let end = 0;
  while (end < line.length && !/[=: \t\f]/.test(line[end] ?? '')) end += line[end] === '\\' ? 2 : 1;
  let from = end;
  while (/[ \t\f]/.test(line[from] ?? '')) from++;
  if (/[=:]/.test(line[from] ?? '')) from++;
  while (/[ \t\f]/.test(line[from] ?? '')) from++;
  return [unescape(line.slice(0, end)), unescape(line.slice(from))];
}

const escapes = new Map([
  ['t', '\t'],
  ['n', '\n'],
  ['r', '\r'],
  ['f', '\f'],
]);

function unescape(text: string): string {
  return text.replace(
    /\\(?:u([\da-fA-F]{4})|([^]))/g,
    (_, code: string | undefined, char: string | undefined) =>
      code === undefined ? (escapes.get(char ?? '') ?? char ?? '') : String.fromCharCode(parseInt(code, 16)),
  );
}
