import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeText, knownEncoding } from '../../../src/core/text/decode.js';

const western = 'Äpfel, Übergröße, café, naïve, Ænima, señor, “quoted” – €5 … it’s 20 °C ©';
/** Text in Windows-1252, by the table of the Encoding standard. */
const as1252 = (text: string) => {
  const high = new Map([
    ['€', 0x80],
    ['…', 0x85],
    ['’', 0x92],
    ['“', 0x93],
    ['”', 0x94],
    ['–', 0x96],
  ]);
  return Uint8Array.from([...text], (sign) => high.get(sign) ?? sign.charCodeAt(0));
};
const utf16 = (text: string, big: boolean) => {
  const bytes = Buffer.from(text, 'utf16le');
  return new Uint8Array(big ? bytes.swap16() : bytes);
};

describe('text that somebody saved', () => {
  it('in UTF-8 is read as that, with and without a mark', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', minLength: 1 }), fc.boolean(), (text, mark) => {
        fc.pre(!text.includes('\u0000') && !text.startsWith('\uFEFF'));
        const bytes = new TextEncoder().encode((mark ? '\uFEFF' : '') + text);
        expect(decodeText(bytes)).toEqual({ text, encoding: 'utf-8' });
      }),
    );
  });

  it.each([
    ['little-endian', false],
    ['big-endian', true],
  ])('in UTF-16, %s, is read as that, with and without a mark', (_, big) => {
    const table = `id;name\r\n${western.repeat(3)}\r\nCH-U-1;Banner below\r\n`.repeat(4);
    for (const mark of ['\uFEFF', ''])
      expect(decodeText(utf16(mark + table, big))).toMatchObject({ text: table });
  });

  it('in Windows-1252 is told from UTF-8', () => {
    expect(decodeText(as1252(western))).toEqual({ text: western, encoding: 'windows-1252' });
    expect(decodeText(new TextEncoder().encode(western))).toEqual({ text: western, encoding: 'utf-8' });
  });

  it.each([
    ['Cyrillic', 'windows-1251', [0xcf, 0xf0, 0xe8, 0xe2, 0xe5, 0xf2]],
    ['Japanese', 'shift_jis', [0x93, 0xfa, 0x96, 0x7b, 0x8c, 0xea]],
    ['letters of a Macintosh', 'macintosh', [0x63, 0x61, 0x66, 0x8e]],
    ['UTF-8 with a broken end', 'utf-8', [0x43, 0xc3, 0xa9, 0x20, 0xc3]],
    ['bytes that mean nothing', 'windows-1250', [0x81, 0x8d, 0x41]],
  ])('in %s is not guessed: what it may say is shown', (_, encoding, bytes) => {
    const row = [...new TextEncoder().encode('id,name\nCH-U-1,'), ...bytes, 0x0a];
    const { text, candidates } = decodeText(Uint8Array.from(row)) as any;
    expect(text).toBe(null);
    const right = new TextDecoder(encoding).decode(Uint8Array.from(bytes));
    expect(candidates.find((each: any) => each.encoding === encoding).sample).toBe(`CH-U-1,${right}`.trim());
    expect(decodeText(Uint8Array.from(row), encoding).text).toContain(right);
  });

  it('of any bytes comes back without an error', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => {
        const { text } = decodeText(bytes);
        expect(text === null || typeof text === 'string').toBe(true);
      }),
    );
  });

  it('knows encodings by their names', () => {
    expect([knownEncoding('latin1'), knownEncoding('Macintosh'), knownEncoding('klingon')]).toEqual([
      'windows-1252',
      'macintosh',
      null,
    ]);
  });
});
