import type { Draw } from '../text/seeded.js';
import { readPattern } from '../text/patterns.js';
import { valueAt } from '../text/own-values.js';

/** Parts of a pattern with a given text, by the name of their group. */
export type SettledGroups = Readonly<Record<string, string>>;

interface Reader {
  text: string;
  at: number;
}

/**
 * A text that matches an ID pattern. Of regular expressions it knows what ID patterns are made of: literals,
 * escapes, classes, groups, alternatives and counts; an open count repeats at most eight times.
 * @throws Error for anything else
 */
export function makeMatching(pattern: string, draw: Draw, settled: SettledGroups = {}): string {
  const reader = { text: pattern, at: 0 };
  const made = alternatives(reader, draw, settled);
  if (reader.at < pattern.length) throw unknown(reader);
  if (!readPattern(pattern).matches(made))
    throw new Error(`The pattern ${pattern} is too complex to make an ID from it: ${made} does not match.`);
  return made;
}

function alternatives(reader: Reader, draw: Draw, settled: SettledGroups): string {
  const made = [sequence(reader, draw, settled)];
  while (reader.text[reader.at] === '|') {
    reader.at++;
    made.push(sequence(reader, draw, settled));
  }
  return made[made.length > 1 ? draw(made.length) : 0] ?? '';
}

function sequence(reader: Reader, draw: Draw, settled: SettledGroups): string {
  let made = '';
  while (reader.at < reader.text.length && !'|)'.includes(reader.text[reader.at] ?? '')) {
    const start = reader.at;
    let piece = atom(reader, draw, settled);
    const end = reader.at;
    const { least, most } = count(reader);
    const times = least + (most > least ? draw(most - least + 1) : 0);
    const after = reader.at;
    if (times === 0) piece = '';
    for (let more = 1; more < times; more++) {
      reader.at = start;
      piece += atom(reader, draw, settled);
      if (reader.at !== end) throw unknown(reader);
    }
    reader.at = after;
    made += piece;
  }
  return made;
}

function atom(reader: Reader, draw: Draw, settled: SettledGroups): string {
  const { text } = reader;
  const char = text[reader.at] ?? '';
  if (char === '(') {
    const head = /^\((?:\?:|\?<(\w+)>)?/.exec(text.slice(reader.at));
    if (!head || text.startsWith('(?', reader.at) !== head[0].length > 1) throw unknown(reader);
    reader.at += head[0].length;
    const made = alternatives(reader, draw, settled);
    if (text[reader.at] !== ')') throw unknown(reader);
    reader.at++;
    return valueAt(settled, head[1]) ?? made;
  }
  if (char === '[') return pick(klass(reader), draw);
  if (char === '\\') {
    const name = text[reader.at + 1] ?? '';
    reader.at += 2;
    return pick(escaped(name, reader), draw);
  }
  if ('.^$*+?{'.includes(char)) throw unknown(reader);
  reader.at++;
  return char;
}

function klass(reader: Reader): string {
  const end = reader.text.indexOf(']', reader.at + 1);
  if (end < 0 || reader.text[reader.at + 1] === '^') throw unknown(reader);
  const body = reader.text.slice(reader.at + 1, end);
  let chars = '';
  for (let at = 0; at < body.length; at++) {
    const from = body[at] ?? '';
    if (from === '\\') chars += escaped(body[++at] ?? '', reader);
    else if (body[at + 1] === '-' && at + 2 < body.length) {
      for (let code = from.charCodeAt(0); code <= (body.charCodeAt(at + 2) || 0); code++)
        chars += String.fromCharCode(code);
      at += 2;
    } else chars += from;
  }
  reader.at = end + 1;
  return chars;
}

function escaped(name: string, reader: Reader): string {
  if (name === 'd') return '0123456789';
  if (name === 'w') return 'abcdefghijklmnopqrstuvwxyz0123456789';
  if (/[A-Za-z]/.test(name)) throw unknown(reader);
  return name;
}

function count(reader: Reader): { least: number; most: number } {
  const found = /^(?:\{(\d{1,3})(,(\d{1,3})?)?\}|([*+?]))/.exec(reader.text.slice(reader.at));
  if (!found) return { least: 1, most: 1 };
  reader.at += found[0].length;
  if (found[4] === '?') return { least: 0, most: 1 };
  if (found[4] !== undefined) return { least: found[4] === '+' ? 1 : 0, most: 8 };
  const least = Number(found[1]);
  return { least, most: found[2] === undefined ? least : Number(found[3] ?? least + 8) };
}

function pick(chars: string, draw: Draw): string {
  return chars[chars.length > 1 ? draw(chars.length) : 0] ?? '';
}

function unknown({ text, at }: Reader): Error {
  return new Error(
    `No ID can be made from the pattern ${text}: the character at ${at + 1} is not supported.`,
  );
}
