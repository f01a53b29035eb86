import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readScenario } from '../../../src/core/rehearsal/scenario/read.js';
import { root } from '../../support/trees.js';

const head = 'scenario: 1\nname: Made\nabout: A made scenario.\n';
const faults = (steps: string) =>
  readScenario(`${head}steps:\n${steps}`).problems.map(({ message, fix, place }) => [
    message,
    place?.line,
    typeof fix,
  ]);

describe('scenarios', () => {
  it.each(readdirSync(join(root, 'scenarios')))('%s can be rehearsed', (name) => {
    const { scenario, problems } = readScenario(readFileSync(join(root, 'scenarios', name), 'utf8'));
    expect(problems).toEqual([]);
    expect(scenario?.steps[0]?.do).toBe('launch');
  });

  it.each([
    ['a tap before the launch', '  - { do: tap }', 'is not running yet'],
    ['a second launch', '  - { do: launch }\n  - { do: launch }', 'is already running'],
    [
      'what follows the end of the app',
      '  - { do: launch }\n  - { do: kill }\n  - { do: answer }',
      'is not running',
    ],
    ['online without having been offline', '  - { do: launch }\n  - { do: online }', 'online already'],
    ['offline twice', '  - { do: offline }\n  - { do: offline }', 'offline already'],
    [
      'a visit that ends offline and is repeated',
      '  - { do: launch }\n  - { do: visit, repeat: 2, each: [{ do: offline }] }',
      'The connection differs',
    ],
    ['more than two days', '  - { do: launch, after: 49h }', '48 hours'],
    [
      'too many actions',
      `  - { do: launch }\n  - { do: visit, repeat: 1000, each: [${'{ do: tap }, '.repeat(40)}] }`,
      '20000 actions',
    ],
    ['a step that is none', '  - { do: dance }', 'steps.0.do'],
    ['a time without a unit', '  - { do: launch, after: 5 }', 'after'],
    ['a time below zero', '  - { do: launch, after: -5s }', 'after'],
    ['no steps', '  []', 'steps'],
  ])('refuses %s, and says where', (_, steps, words) => {
    const { scenario, problems } = readScenario(`${head}steps:\n${steps}\n`);
    expect(scenario).toBeNull();
    const said = problems
      .map(({ field, message, place }) => `${field} ${message} ${place?.line ?? '?'}`)
      .join('\n');
    expect(said).toContain(words);
    expect(problems.every(({ place }) => place !== undefined)).toBe(true);
  });

  it('names every impossible step with its line', () => {
    expect(faults('  - { do: tap }\n  - { do: launch }\n  - { do: launch }')).toEqual([
      [expect.stringContaining('tap'), 5, 'string'],
      [expect.stringContaining('already'), 7, 'string'],
    ]);
  });

  it('refuses documents of any kind without failing', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), fc.boolean(), (text, isBelow) => {
        const { scenario, problems } = readScenario(isBelow ? `${head}steps: ${text}` : text);
        expect(scenario === null).toBe(problems.length > 0);
      }),
      { numRuns: 500 },
    );
  });

  it('does not let aliases grow', () => {
    const bomb = [
      'a: &a [x, x, x, x, x, x, x, x, x]',
      ...'bcdefghi'.split('').map((name, at) => `${name}: &${name} [${`*${'abcdefgh'[at]}, `.repeat(9)}]`),
    ];
    expect(readScenario(bomb.join('\n')).scenario).toBeNull();
  });
});
