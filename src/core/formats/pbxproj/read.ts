import { valueAt } from '../../text/own-values.js';
import type { ReadProblem, Span } from '../../text/problem.js';

export interface PbxEntry extends Span {
  key: string;
  keySpan: Span;
  value: PbxValue;
}

/** A value of the old property-list syntax. The `inner` span of lists and dictionaries leaves the brackets out. */
export type PbxValue = Span &
  (
    | { type: 'string'; value: string; quoted: boolean }
    | { type: 'list'; items: PbxValue[]; inner: Span }
    | { type: 'dict'; entries: PbxEntry[]; inner: Span }
  );

export type PbxDict = PbxValue & { type: 'dict' };

/** Values nested deeper than this are reported and not read. */
export const maxPbxDepth = 64;

const plain = /[A-Za-z0-9_$/:.+*@~-]/;
const escapes: Record<string, string> = { n: '\n', t: '\t', r: '\r', a: '\x07', b: '\b', f: '\f', v: '\v' };

/**
 * Reads the old property-list syntax of Xcode project files (`{ key = value; }`, `( a, b )`) with the place
 * of everything. The first fault ends the reading: what was read before it is returned with the problem.
 */
export function readPbxproj(text: string): { root: PbxDict | null; problems: ReadProblem[] } {
  const problems: ReadProblem[] = [];
  const reader = new PbxReader(text);
  try {
    const root = reader.document();
    return { root, problems };
  } catch (error) {
    if (!(error instanceof PbxFault)) throw error;
    problems.push({ message: error.message, start: error.at, end: Math.min(text.length, error.at + 1) });
    return { root: null, problems };
  }
}

class PbxFault extends Error {
  constructor(
    message: string,
    readonly at: number,
  ) {
    super(message);
  }
}

class PbxReader {
  private at = 0;

  constructor(private readonly text: string) {}

  document(): PbxDict {
    this.blanks();
    const value = this.value(0);
    if (value.type !== 'dict')
      throw new PbxFault('A project file must be one dictionary in braces.', value.start);
    this.blanks();
    if (this.at < this.text.length) throw new PbxFault('There is text after the closing brace.', this.at);
    return value;
  }

  private value(depth: number): PbxValue {
    if (depth > maxPbxDepth) throw new PbxFault(`Values are nested more than ${maxPbxDepth} deep.`, this.at);
    const char = this.text[this.at];
    if (char === '{') return this.dict(depth);
    if (char === '(') return this.list(depth);
    return this.string();
  }

  private dict(depth: number): PbxValue {
    const start = this.at++;
    const entries: PbxEntry[] = [];
    for (;;) {
      this.blanks();
      if (this.text[this.at] === '}') break;
      const key = this.string();
      this.expect('=', `after the key ${key.value}`);
      const value = this.value(depth + 1);
      this.expect(';', `after the value of ${key.value}`, false);
      entries.push({
        key: key.value,
        keySpan: { start: key.start, end: key.end },
        value,
        start: key.start,
        end: this.at,
      });
    }
    const inner = { start: start + 1, end: this.at++ };
    return { type: 'dict', entries, inner, start, end: this.at };
  }

  private list(depth: number): PbxValue {
    const start = this.at++;
    const items: PbxValue[] = [];
    for (;;) {
      this.blanks();
      if (this.text[this.at] === ')') break;
      items.push(this.value(depth + 1));
      this.blanks();
      if (this.text[this.at] === ',') this.at++;
      else if (this.text[this.at] !== ')')
        throw new PbxFault('A "," or ")" is missing in this list.', this.at);
    }
    const inner = { start: start + 1, end: this.at++ };
    return { type: 'list', items, inner, start, end: this.at };
  }

  private string(): PbxValue & { type: 'string' } {
    const start = this.at;
    const quote = this.text[start];
    if (quote === '"' || quote === "'") {
      let value = '';
      for (this.at++; this.text[this.at] !== quote; this.at++) {
        if (this.at >= this.text.length) throw new PbxFault('This string is never closed.', start);
        if (this.text[this.at] === '\\') {
          const next = this.text[++this.at] ?? '';
          value += valueAt(escapes, next) ?? next;
        } else value += this.text[this.at] ?? '';
      }
      this.at++;
      return { type: 'string', value, quoted: true, start, end: this.at };
    }
    while (this.at < this.text.length && plain.test(this.text[this.at] ?? '')) {
      if (this.text.startsWith('/*', this.at) || this.text.startsWith('//', this.at)) break;
      this.at++;
    }
    if (this.at === start) {
      const found = this.text[start];
      throw new PbxFault(
        found === undefined
          ? 'The file ends in the middle of a value.'
          : `A value is expected here, not ${JSON.stringify(found)}.`,
        start,
      );
    }
    return { type: 'string', value: this.text.slice(start, this.at), quoted: false, start, end: this.at };
  }

  private expect(char: string, where: string, blanksAfter = true): void {
    this.blanks();
    if (this.text[this.at] !== char) throw new PbxFault(`A "${char}" is missing ${where}.`, this.at);
    this.at++;
    if (blanksAfter) this.blanks();
  }

  private blanks(): void {
    for (;;) {
      while (/\s/.test(this.text[this.at] ?? '')) this.at++;
      if (this.text.startsWith('/*', this.at)) {
        const close = this.text.indexOf('*/', this.at + 2);
        if (close < 0) throw new PbxFault('This comment is never closed.', this.at);
        this.at = close + 2;
      } else if (this.text.startsWith('//', this.at)) {
        const end = this.text.indexOf('\n', this.at);
        this.at = end < 0 ? this.text.length : end;
      } else return;
    }
  }
}

const indexes = new WeakMap<PbxEntry[], Map<string, PbxEntry>>();

/** The value of a key in a dictionary. Large dictionaries are indexed once, so that following references stays quick. */
export function entryOf(value: PbxValue | undefined, key: string): PbxEntry | undefined {
  if (value?.type !== 'dict') return undefined;
  if (value.entries.length < 16) return value.entries.find((entry) => entry.key === key);
  let index = indexes.get(value.entries);
  if (!index)
    indexes.set(
      value.entries,
      (index = new Map([...value.entries].reverse().map((entry) => [entry.key, entry]))),
    );
  return index.get(key);
}

/** The string under a key; undefined when there is none or it is no string. */
export function stringOf(value: PbxValue | undefined, key: string): string | undefined {
  const found = entryOf(value, key)?.value;
  return found?.type === 'string' ? found.value : undefined;
}

/** The strings of a list under a key, in order. */
export function stringsOf(value: PbxValue | undefined, key: string): string[] {
  const found = entryOf(value, key)?.value;
  if (found?.type !== 'list') return [];
  return found.items.flatMap((item) => (item.type === 'string' ? [item.value] : []));
}
