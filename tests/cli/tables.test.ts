import fc from 'fast-check';
import stringWidth from 'string-width';
import { describe, expect, it } from 'vitest';
import { paintFor } from '../../src/cli/io.js';
import { foldLines } from '../../src/cli/render/fold.js';
import { wrap } from '../../src/cli/render/places.js';
import { plainTable, ruledTable } from '../../src/cli/render/table.js';

const text = fc.string({
  unit: fc.constantFrom('a', 'b', 'ü', '漢', ' ', ' ', '-', '.', '/'),
  maxLength: 60,
});

describe('tables', () => {
  it('fit where their words allow it, and lose nothing', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(text, text, fc.stringMatching(/^[A-Z0-9-]{0,20}$/)), {
          minLength: 1,
          maxLength: 5,
        }),
        fc.integer({ min: 20, max: 90 }),
        fc.boolean(),
        (rows, width, colours) => {
          const tinted = paintFor(colours);
          const painted = rows.map(([a, b, id]) => [tinted.red(a), `${b}\n${tinted.dim(a)}`, id]);
          for (const table of [plainTable, ruledTable]) {
            const shown = table({ head: ['one', 'two', 'ID'], rows: painted, whole: [2] }, width).replace(
              /\u001b\[[\d;]*m/g,
              '',
            );
            const bare = shown.replace(/[\s┌┐└┘─│┬┴├┤┼]/g, '');
            for (const letter of new Set(bare))
              expect([...bare].filter((each) => each === letter).length).toBe(
                [...`onetwoID${rows.map(([a, b, id]) => a + b + a + id).join('')}`].filter(
                  (each) => each === letter,
                ).length,
              );
            for (const [, , id] of rows) expect(shown).toContain(id);
            const longestWords = ['a', 'b', 'id'].map((_, at) =>
              Math.max(
                3,
                ...rows.flatMap(([a, b, id]) =>
                  at === 2
                    ? [id.length]
                    : (at === 0 ? a : `${a} ${b}`).split(/(?<=[\s\-./])/).map((word) => stringWidth(word)),
                ),
              ),
            );
            const least = longestWords.reduce((sum, one) => sum + one) + (table === plainTable ? 4 : 10);
            if (least <= width)
              for (const line of shown.split('\n'))
                expect(stringWidth(line.trimEnd())).toBeLessThanOrEqual(width);
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  it('are folded no more than they must be', () => {
    const content = {
      head: ['name', 'ID'],
      rows: [['tide-list-footer', 'CH-U-204418-P4N7C2VJ']],
      whole: [1],
    };
    expect(plainTable(content, 80)).toContain('tide-list-footer  CH-U-204418-P4N7C2VJ');
    expect(plainTable(content, 34)).toMatch(/tide-list- {2}CH-U-204418-P4N7C2VJ\s*\nfooter/);
    // As wide as the words: nothing is folded; one character less folds.
    expect(plainTable(content, 38).trimEnd().split('\n')).toHaveLength(2);
    expect(plainTable(content, 37).trimEnd().split('\n')).toHaveLength(3);
    expect(ruledTable(content, 43).trimEnd().split('\n')).toHaveLength(4);
    expect(ruledTable(content, 42).trimEnd().split('\n')).toHaveLength(5);
  });

  it('keep the colour of a line in all that it is folded into', () => {
    const { red, dim } = paintFor(true);
    const content = { head: ['name'], rows: [[`${red(dim('one two'))}\nplain words`]] };
    const shown = plainTable(content, 6);
    for (const word of ['one', 'two']) expect(shown).toContain(red(dim(word)));
    expect(shown.replace(/\u001b\[[\d;]*m/g, '').split(/\s+/)).toEqual([
      'name',
      'one',
      'two',
      'plain',
      'words',
    ]);
    expect(plainTable({ head: ['', ''], rows: [['', 'x']] }, 20).trim()).toBe('x');
  });
});

it('lines of prose are folded at blanks, keep their words, and go on further in', () => {
  fc.assert(
    fc.property(fc.array(text), fc.integer({ min: 24, max: 90 }), (lines, width) => {
      const whole = lines.join('\n');
      const folded = foldLines(whole, width);
      expect(folded.split(/\s+/)).toEqual(whole.split(/\s+/));
      for (const line of folded.split('\n'))
        if (stringWidth(line) > width) expect(line.trim()).not.toMatch(/\S\s+\S.*\s\S/);
    }),
  );
  expect(foldLines('  ● one two three four five six', 20)).toBe('  ● one two three\n      four five six');
});

it('a text is wrapped at its width, and every line is indented', () => {
  expect(wrap('one two  three', 9, '  ')).toBe('  one two\n  three');
  expect(wrap('one two three', 8, '  ')).toBe('  one\n  two\n  three');
  expect(wrap('enormously long', 4, ' ')).toBe(' enormously\n long');
  expect(wrap('', 10, '  ')).toBe('');
});

it('a line of prose goes up to its width', () => {
  expect(foldLines('one two three', 13)).toBe('one two three');
  expect(foldLines('one two three', 12)).toBe('one two\n    three');
  expect(foldLines('one two three four', 9)).toBe('one two\n    three\n    four');
  expect(foldLines('\ta  b c', 5)).toBe('\ta  b\n\t    c');
  expect(foldLines('one\n\ntwo', 2)).toBe('one\n\ntwo');
});
