import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { dayText, readDay } from '../../../src/core/tally/days.js';
import { tallyFindings } from '../../../src/core/tallying.js';
import { plantEvents, rowsOf, simulatedTitle, upTo, wholeHistory } from '../../support/simulated.js';
import { profiles, root } from '../../support/trees.js';

const from = readDay('2024-06-01')!;
const days = 730;
const titles = 24;

/** What rules find of a title, day by day: each alarm once, with the day on which it came. */
function alarmsOf(number: number, first: number, last: number) {
  const title = simulatedTitle(number, from, days);
  const planted = plantEvents(title, from);
  const whole = wholeHistory(title, rowsOf(title, from, from + days), { profiles, from, to: from + days });
  const alarms = new Map<string, number>();
  for (let day = first; day < last; day++)
    for (const { rule, placement, platform } of tallyFindings({
      title: { id: title.id, title: title.title },
      profiles,
      tally: upTo(whole, day),
      now: '',
    })) {
      const name = `${rule} ${placement} ${platform}`;
      if (!alarms.has(name)) alarms.set(name, day);
    }
  return { planted, alarms };
}

describe('simulated titles of two years', () => {
  it('have the events that demo/FAULTS.md lists', () => {
    const lines = Array.from({ length: titles }, (_, at) => {
      const title = simulatedTitle(at + 1, from, days);
      return plantEvents(title, from).map(
        ({ rule, placement, platform, day }) =>
          `| ${title.id} | \`${placement}\`, ${platform === 'ios' ? 'iOS' : 'Android'} | ${dayText(day)} | \`${rule}\` |`,
      );
    }).flat();
    const listed = readFileSync(join(root, 'demo/FAULTS.md'), 'utf8')
      .split('\n')
      .filter((line) => line.startsWith('| title-'))
      .map((line) => line.replace(/ +\|/g, ' |'));
    expect(listed).toEqual(lines);
  });

  it.each([1, 2, 3])('number %d: each event is found within three days, and nothing else is', (number) => {
    const { planted, alarms } = alarmsOf(number, from + 190, from + days);
    const names = planted.map(({ rule, placement, platform }) => `${rule} ${placement} ${platform}`);
    expect([...alarms.keys()].sort()).toEqual([...names].sort());
    for (const [at, { day }] of planted.entries()) {
      const after = (alarms.get(names[at] ?? '') ?? Infinity) - day + 1;
      expect(after).toBeGreaterThanOrEqual(1);
      expect(after).toBeLessThanOrEqual(3);
    }
  });
});
