import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { amountText, apportion, countReader, moneyReader } from '../../../src/core/tally/money.js';
import { Exchange, readRates } from '../../../src/core/tally/rates.js';

const point = { decimal: '.', group: undefined, revenue: 'units' } as const;
const comma = { decimal: ',', group: '.', revenue: 'units' } as const;

describe('amounts', () => {
  it('are read to the micro, in units, thousandths and micros', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10_000_000_000_000 }), (micros) => {
        const text = (digits: number) => {
          const padded = String(micros).padStart(digits + 1, '0');
          return digits === 0 ? padded : `${padded.slice(0, -digits)}.${padded.slice(-digits)}`;
        };
        expect(moneyReader(point)(text(6))).toBe(micros);
        expect(moneyReader({ ...point, revenue: 'thousandths' })(text(3))).toBe(micros);
        expect(moneyReader({ ...point, revenue: 'micros' })(text(0))).toBe(micros);
        expect(moneyReader({ ...comma, group: undefined })(text(6).replace('.', ','))).toBe(micros);
      }),
    );
  });

  it.each([
    ['0.0000005', 1],
    ['0.0000004', 0],
    ['1.9999999', 2_000_000],
    ['12', 12_000_000],
  ])('of %s are %d micros', (text, micros) => {
    expect(moneyReader(point)(text)).toBe(micros);
  });

  it('with groups of three digits are read where the profile says so, and refused elsewhere', () => {
    expect(moneyReader(comma)('1.234.567,5')).toBe(1_234_567_500_000);
    expect(moneyReader({ ...point, group: ',' })('1,234.5')).toBe(1_234_500_000);
    for (const text of ['1,234.5', '1.234,5', '1,5', "1'234.5", '1 234.5', '1\u00a0234.5'])
      expect(moneyReader(point)(text)).toEqual({ problem: expect.stringContaining('another decimal mark') });
    // Groups of other than three digits are no groups.
    for (const text of ['12.34,5', '1.2345']) expect(moneyReader(comma)(text)).toHaveProperty('problem');
  });

  it.each([
    ['-1.50', 'is negative'],
    ['−1.50', 'is negative'],
    ['(1.50)', 'is negative'],
    ['1.5 EUR', 'is not a number'],
    ['€1.5', 'is not a number'],
    ['', 'is not a number'],
    ['NaN', 'is not a number'],
    ['1e3', 'is not a number'],
    ['10000001', 'more than ten million'],
    ['9'.repeat(400), 'is'],
  ])('such as %j are refused: it %s', (text, why) => {
    expect(moneyReader(point)(text)).toEqual({ problem: expect.stringContaining(why) });
  });

  it('are shown with two digits', () => {
    expect([0, 1_234_567_890, -5_000_000, -1, 999_995_000].map(amountText)).toEqual([
      '0.00',
      '1,234.57',
      '−5.00',
      '0.00',
      '1,000.00',
    ]);
  });
});

describe('counts', () => {
  it('are whole and not negative', () => {
    const read = countReader({ ...point, group: ',' });
    expect([read('12'), read('1,234'), read('12.0')]).toEqual([12, 1_234, 12]);
    for (const text of ['-1', '1.5', '', 'x', '1e3', '9999999999999'])
      expect(read(text)).toHaveProperty('problem');
  });
});

describe('parts that are rounded', () => {
  it('add up to the rounded whole, each next to its exact value', () => {
    fc.assert(
      fc.property(
        fc.array(fc.bigInt({ min: -(10n ** 15n), max: 10n ** 15n }), { maxLength: 12 }),
        fc.constantFrom(1n, 7n, 10n ** 9n),
        (parts, scale) => {
          const rounded = apportion(parts, scale);
          const total = parts.reduce((sum, part) => sum + part, 0n);
          const whole = (total >= 0n ? total + scale / 2n : total - scale / 2n) / scale;
          expect(rounded.reduce((sum, part) => sum + BigInt(part), 0n)).toBe(whole);
          for (const [at, part] of parts.entries()) {
            const off = BigInt(rounded[at]!) * scale - part;
            expect(off < scale && off > -scale).toBe(true);
          }
        },
      ),
    );
  });
});

describe('rates', () => {
  const table = ['day,currency,base,rate', '2026-10-01,USD,EUR,0.9', '2026-10-05,USD,EUR,0.8'].join('\n');
  const { rates } = readRates(table) as { rates: { day: number }[] };
  const [first, second] = rates.map(({ day }) => day) as [number, number];
  const exchange = new Exchange('EUR', rates as never);

  it('hold until the next one, for ten days at most', () => {
    const at = (day: number) => exchange.convert(10, 'USD', day);
    expect([at(first - 1), at(first), at(second - 1), at(second), at(second + 9), at(second + 10)]).toEqual([
      null,
      9_000_000_000n,
      9_000_000_000n,
      8_000_000_000n,
      8_000_000_000n,
      null,
    ]);
    expect(exchange.convert(10, 'EUR', 0)).toBe(10_000_000_000n);
    expect(exchange.convert(10, 'GBP', first)).toBeNull();
  });

  it('that make no sense are listed with their line', () => {
    const text = `${table}\n2026-13-01,USD,EUR,1\n2026-10-01,usd,EUR,1\n2026-10-01,EUR,EUR,1\n2026-10-01,USD,EUR,0\n2026-10-01,USD,EUR,"0,9"\n`;
    expect(readRates(text)).toMatchObject({
      rates: [{}, {}],
      odd: [4, 5, 6, 7, 8].map((row) => ({ row })),
    });
    expect(readRates('a,b\n1,2\n')).toMatchObject({
      fault: { fix: expect.stringContaining('day, currency, base and rate') },
    });
  });
});
