import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { CsvError, CsvReader, readCsv } from '../../../src/core/formats/csv/read.js';
import { writeCsv } from '../../../src/core/formats/csv/write.js';

/** Cells that a table may hold: anything, but without blanks around it and not blank. */
const cell = fc.string({ minLength: 1, maxLength: 12 }).map((text) => `x${text.replace(/[\r\0]/g, '')}x`);
const table = fc
  .integer({ min: 2, max: 5 })
  .chain((width) =>
    fc.array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: 1, maxLength: 8 }),
  );
/** Written by another hand than ours. */
const text = (rows: string[][], separator: string) =>
  Papa.unparse(rows, { delimiter: separator, quotes: true });

function inBlocks(whole: string, cuts: readonly number[], separator?: string) {
  const reader = new CsvReader(separator);
  const places = [0, ...cuts.map((cut) => cut % (whole.length + 1)).sort((a, b) => a - b), whole.length];
  const rows = places.slice(1).flatMap((to, at) => reader.push(whole.slice(places[at], to)));
  return [...rows, ...reader.end()];
}

describe('tables of separated values', () => {
  it('say the same however they are cut into blocks', () => {
    fc.assert(
      fc.property(
        table,
        fc.constantFrom(',', ';', '\t'),
        fc.array(fc.nat(), { maxLength: 6 }),
        (rows, separator, cuts) => {
          const whole = text(rows, separator);
          const read = inBlocks(whole, cuts, separator);
          expect(read.map(({ cells }) => cells)).toEqual(rows);
          expect(read).toEqual(readCsv(whole, separator));
        },
      ),
      { numRuns: 500 },
    );
  });

  it('number their rows by the line on which each begins', () => {
    fc.assert(
      fc.property(table, (rows) => {
        const lines = rows.map((_, at) => {
          const before = rows.slice(0, at);
          return 1 + at + before.flat().join('').split('\n').length - 1;
        });
        expect(
          readCsv(Papa.unparse(rows, { quotes: true, newline: '\n' }), ',').map(({ line }) => line),
        ).toEqual(lines);
      }),
      { numRuns: 300 },
    );
  });

  it('of any text give rows or a fault with its line', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 200, unit: fc.constantFrom('a', '"', ',', '\n', '\r', ' ', ';') }),
        (noise) => {
          try {
            for (const { line } of readCsv(noise)) expect(line).toBeGreaterThan(0);
          } catch (error) {
            expect(error).toBeInstanceOf(CsvError);
            expect((error as CsvError).fault.fix).not.toBe('');
          }
        },
      ),
      { numRuns: 1_000 },
    );
  });

  it('with a quote that is never closed end after a bounded length', () => {
    const reader = new CsvReader();
    const push = () => {
      reader.push('a,b\n1,2\n3,"4\n');
      for (let block = 0; block < 100; block++) reader.push('x'.repeat(100_000));
    };
    expect(push).toThrow(/line 3, a quote is opened and never closed/);
  });

  it('with old line ends are read', () => {
    expect(readCsv('a,b\r1,2\r3,4\r')).toEqual([
      { line: 1, cells: ['a', 'b'] },
      { line: 2, cells: ['1', '2'] },
      { line: 3, cells: ['3', '4'] },
    ]);
  });
});

describe('a table that is written', () => {
  it('is read back, and has no formulas in it', () => {
    fc.assert(
      fc.property(table, (rows) => {
        expect(readCsv(writeCsv(rows), ',').map(({ cells }) => cells)).toEqual(rows);
      }),
      { numRuns: 300 },
    );
    for (const formula of ['=1+1', '+1', '-1', '@now', '\t=1', '\r=1'])
      expect(writeCsv([[formula, 'x']]).replaceAll('"', '')).toMatch(/^'/);
    expect(writeCsv([[-1.5, null]])).toBe('-1.5,\r\n');
  });
});
