import fc from 'fast-check';
import { applyPatch, parsePatch } from 'diff';
import { describe, expect, it } from 'vitest';
import { decodeText, encodeText, NotTextError, textDocument } from '../../../src/core/text/document.js';
import { applyEdits, editBetween, EditOverlapError, sortEdits } from '../../../src/core/text/edit.js';
import { lineMap } from '../../../src/core/text/line-map.js';
import { unifiedPatch } from '../../../src/core/text/patch.js';

const lines = fc
  .array(
    fc.tuple(
      fc.string({ maxLength: 12 }).map((text) => text.replace(/[\r\n]/g, '')),
      fc.constantFrom('\n', '\r\n'),
    ),
    { maxLength: 30 },
  )
  .map((rows) => rows.map(([text, end]) => text + end).join(''));

describe('text documents', () => {
  it('go back to the very same bytes', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', maxLength: 60 }).map((text) => text.replace(/\0/g, '')),
        fc.boolean(),
        (text, mark) => {
          if (text.startsWith('\ufeff')) return;
          const bytes = new TextEncoder().encode((mark ? '\ufeff' : '') + text);
          const document = decodeText(bytes);
          expect(document.mark).toBe(mark);
          expect(encodeText(document.text, document)).toEqual(bytes);
        },
      ),
    );
  });

  it.each(['utf-16le', 'utf-16be'] as const)('reads and writes %s behind its mark', (encoding) => {
    const bytes = encodeText('<a>ä</a>\r\n', { encoding, mark: true });
    const document = decodeText(bytes);
    expect(document).toMatchObject({ text: '<a>ä</a>\r\n', encoding, mark: true, lineEnd: '\r\n' });
    expect(encodeText(document.text, document)).toEqual(bytes);
  });

  it('says where bytes stop being text', () => {
    expect(() => decodeText(new Uint8Array([65, 66, 0, 67]))).toThrow(
      expect.objectContaining({ name: 'NotTextError', offset: 2 }),
    );
    expect(() => decodeText(new Uint8Array([65, 0xc3, 0x28, 66]))).toThrow(NotTextError);
    expect(() => decodeText(new Uint8Array([0xff, 0xfe, 65]))).toThrow(/odd number/);
  });

  it.each([
    ['a\nb\n', '\n'],
    ['a\r\nb\r\nc\n', '\r\n'],
    ['a\rb\r', '\r'],
    ['', '\n'],
  ])('tells the line end of %j', (text, lineEnd) => {
    expect(textDocument(text).lineEnd).toBe(lineEnd);
  });
});

describe('line maps', () => {
  it('count as people do', () => {
    const map = lineMap('ab\ncd\r\nef\rgh');
    expect([0, 2, 3, 5, 7, 10].map((offset) => map.at(offset))).toEqual([
      { line: 1, column: 1 },
      { line: 1, column: 3 },
      { line: 2, column: 1 },
      { line: 2, column: 3 },
      { line: 3, column: 1 },
      { line: 4, column: 1 },
    ]);
    expect(map.lineCount).toBe(4);
    expect(map.lineEnd(2)).toBe(5);
  });

  it('lead from a place back to its offset', () => {
    fc.assert(
      fc.property(lines, fc.nat(), (text, seed) => {
        const offset = text.length === 0 ? 0 : seed % text.length;
        const map = lineMap(text);
        const { line, column } = map.at(offset);
        expect(map.lineStart(line) + column - 1).toBe(offset);
      }),
    );
  });
});

describe('edits', () => {
  it('leave every byte outside them alone', () => {
    fc.assert(
      fc.property(
        lines,
        fc.array(fc.tuple(fc.nat(200), fc.nat(5), fc.string({ maxLength: 5 })), { maxLength: 6 }),
        (text, raw) => {
          let at = 0;
          const edits = raw
            .map(([start, length, replacement]) => ({
              start: Math.min(start, text.length),
              length,
              text: replacement,
            }))
            .sort((a, b) => a.start - b.start)
            .flatMap(({ start, length, text: replacement }) => {
              if (start < at) return [];
              const end = Math.min(text.length, start + length);
              at = end + 1;
              return [{ start, end, text: replacement }];
            });
          const result = applyEdits(text, edits);
          const kept = sortEdits(edits).reduce<{ rest: string[]; from: number }>(
            (state, edit) => ({ rest: [...state.rest, text.slice(state.from, edit.start)], from: edit.end }),
            { rest: [], from: 0 },
          );
          let position = 0;
          for (const [index, piece] of [...kept.rest, text.slice(kept.from)].entries()) {
            expect(result.slice(position, position + piece.length)).toBe(piece);
            position += piece.length + (sortEdits(edits)[index]?.text.length ?? 0);
          }
        },
      ),
    );
  });

  it('name both when two overlap', () => {
    expect(() =>
      applyEdits('abcdef', [
        { start: 1, end: 4, text: 'x' },
        { start: 3, end: 5, text: 'y' },
      ]),
    ).toThrow(EditOverlapError);
    expect(() => applyEdits('abc', [{ start: 2, end: 9, text: '' }])).toThrow(RangeError);
  });

  it('at one offset keep their order', () => {
    expect(
      applyEdits('ab', [
        { start: 1, end: 1, text: '1' },
        { start: 1, end: 1, text: '2' },
      ]),
    ).toBe('a12b');
  });

  it('between two texts are one, and lead from the first to the second', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 20 }), fc.string({ maxLength: 20 }), (before, after) => {
        const edit = editBetween(before, after);
        expect(applyEdits(before, edit ? [edit] : [])).toBe(after);
      }),
    );
  });
});

describe('patches', () => {
  it('lead from the old text to the new one', () => {
    fc.assert(
      fc.property(lines, lines, (before, after) => {
        const patch = unifiedPatch([{ path: 'a.txt', before, after }]);
        if (before === after) expect(patch).toBe('');
        else expect(applyPatch(before, parsePatch(patch)[0]!, { autoConvertLineEndings: false })).toBe(after);
      }),
    );
  });

  it('mark new files, removed files and names with blanks', () => {
    const patch = unifiedPatch([
      { path: 'new file.txt', before: null, after: 'x\n' },
      { path: 'gone.txt', before: 'x\n', after: null },
      { path: 'ü.txt', before: 'a\n', after: 'b\n' },
    ]);
    expect(patch).toContain('new file mode 100644\n--- /dev/null\n+++ b/new file.txt\t\n@@ -0,0 +1 @@\n+x\n');
    expect(patch).toContain('deleted file mode 100644\n--- a/gone.txt\n+++ /dev/null\n@@ -1 +0,0 @@\n-x\n');
    expect(patch).toContain('diff --git "a/\\303\\274.txt" "b/\\303\\274.txt"');
  });
});
