import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  parsePrintable,
  printableLines,
  printableName,
  printableText,
  printableValue,
} from '../../../src/core/text/printable.js';

const unprintable = /[\p{Cc}\p{Cs}\u061c\u200e\u200f\u2028-\u202e\u2066-\u2069\ufeff]/u;

describe('printable text', () => {
  it.each([
    ['plain.kt', 'plain.kt'],
    ['größe Ω 日本 👩‍👧.kt', 'größe Ω 日本 👩‍👧.kt'],
    ['a\u001b[31mb', 'a\\x1b[31mb'],
    ['a\nb\tc\rd\u0000', 'a\\x0ab\\x09c\\x0dd\\x00'],
    ['\u007f\u009b', '\\u007f\\u009b'],
    ['gpj.\u202eexe', 'gpj.\\u202eexe'],
    ['\ud800x', '\\ud800x'],
    ['\u{e0041}', '\\udb40\\udc41'],
  ])('shows %j as %j', (name, shown) => expect(printableName(name)).toBe(shown));

  it('never lets a control through, and is the same again', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (name) => {
        const shown = printableName(name);
        expect(shown).not.toMatch(unprintable);
        expect(printableName(shown)).toBe(shown);
        expect(printableText(name).replace(/[\n\t]/g, '')).not.toMatch(unprintable);
      }),
    );
  });

  it('loses nothing inside JSON', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        expect(JSON.parse(printableText(JSON.stringify(value, null, 2)))).toEqual(
          JSON.parse(JSON.stringify(value)),
        );
      }),
    );
  });

  it('reaches every string of a value, names of fields included', () => {
    const value = { 'a\u001b': ['b\n', { c: '\u202e', d: 1, e: null }] };
    expect(printableValue(value)).toEqual({ 'a\\x1b': ['b\\x0a', { c: '\\u202e', d: 1, e: null }] });
    expect(printableLines(value)).toEqual({ 'a\\x1b': ['b\n', { c: '\\u202e', d: 1, e: null }] });
  });

  it('reads JSON as if each of its strings were made printable afterwards', () => {
    const text = fc.oneof(
      fc.string({ unit: 'binary' }),
      fc.string(),
      fc.constantFrom('\r', '\n\t', '\\r', '\ud800'),
    );
    const value = fc.oneof(fc.dictionary(text, fc.array(text)), text);
    fc.assert(
      fc.property(value, fc.boolean(), (value, escaped) => {
        const json = JSON.stringify(value);
        const sent = escaped
          ? json.replace(/[^ -~]/g, (unit) => `\\u${unit.charCodeAt(0).toString(16).padStart(4, '0')}`)
          : json;
        expect(parsePrintable(sent)).toEqual(printableLines(JSON.parse(json)));
      }),
    );
    expect(() => parsePrintable('{')).toThrow(SyntaxError);
  });
});
