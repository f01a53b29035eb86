import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { describe, expect, it } from 'vitest';
import { ReportTable } from '../../../src/core/tally/table.js';
import { profiles } from '../../support/trees.js';

setFlagsFromString('--expose-gc');
const collectGarbage = runInNewContext('gc') as () => void;
const heron = profiles.find(({ id }) => id === 'cobalt-heron')!;

describe('a table of any length', () => {
  it('is not kept by the IDs and faults that are kept of it', () => {
    const table = new ReportTable(heron, { now: new Date('2026-11-15T12:00:00Z') });
    table.push('Day,Unit ID,Impressions,Revenue,Note\n');
    const units = new Set<string>();
    const faults: string[] = [];
    const rest = 'x'.repeat(1_000);
    collectGarbage();
    const before = process.memoryUsage().heapUsed;
    for (let block = 0; block < 60; block++) {
      const unit = `CH-U-310772-${String(block).padStart(8, '0')}`;
      const good = `2026-10-01,${unit},50,2.50,${rest}\n`.repeat(500);
      const { rows, odd } = table.push(`${good}2026-10-01,${unit}-no-unit-at-all,50,2.50,${rest}\n`);
      for (const { row } of rows) units.add(row.unit);
      for (const { id, message } of odd) faults.push(`${id}`, message);
    }
    collectGarbage();
    expect([units.size, faults.length]).toEqual([60, 120]);
    // It was more than 30 MB.
    expect(process.memoryUsage().heapUsed - before).toBeLessThan(8_000_000);
  });
});
