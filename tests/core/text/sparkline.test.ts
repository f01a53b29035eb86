import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sparkline } from '../../../src/core/text/sparkline.js';

describe('a sparkline', () => {
  it('has a bar for each value, the highest for the largest, and no more bars than there is room for', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat({ max: 1_000 }), { minLength: 1, maxLength: 200 }),
        fc.integer({ min: 1, max: 80 }),
        (values, most) => {
          const line = sparkline(values, most);
          expect(line.length).toBeLessThanOrEqual(most);
          if (values.length <= most) {
            expect(line).toHaveLength(values.length);
            if (Math.max(...values) > 0) expect(line[values.indexOf(Math.max(...values))]).toBe('█');
          }
        },
      ),
    );
    expect(sparkline([0, 0], 10)).toBe('▁▁');
    expect(sparkline([], 10)).toBe('');
    expect(sparkline([0, 4, 8, -3], 10)).toBe('▁▅█▁');
  });
});
