import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { matchUnits, unitsOf } from '../../../src/core/inventory/match.js';
import { nameWords, patternFault, unitName, usualPattern } from '../../../src/core/inventory/names.js';
import type { InventoryApp, InventoryUnit } from '../../../src/core/inventory/model.js';
import { unit } from '../../support/inventories.js';
import { kelp, profileOf } from '../../support/trees.js';

const heron = profileOf('cobalt-heron');
const open = { format: 'banner', settings: {}, units: { 'cobalt-heron': {} } } as const;
const title = (placements: Record<string, unknown>) => kelp({ placements: placements as never });
const match = (placements: Record<string, unknown>, units: InventoryUnit[]) =>
  matchUnits('kelp', title(placements), heron, units);
const shown = (placements: Record<string, unknown>, units: InventoryUnit[]) => {
  const { matches, unmatched } = match(placements, units);
  return [
    ...matches.map(
      (one) =>
        `${one.confidence} ${one.unit.id} ${one.placement} ${one.platform} ${one.isNew ? 'new' : 'held'}`,
    ),
    ...unmatched.map(
      (one) =>
        `open ${one.unit.id}: ${one.why} [${one.candidates.map(({ placement, platform }) => `${placement} ${platform}`).join(', ')}]`,
    ),
  ];
};

describe('matching rows to placements', () => {
  it('leaves a row to the title that holds it, whatever it is called', () => {
    const held = { ...open, units: { 'cobalt-heron': { ios: { production: 'CH-U-1', test: 'CH-U-9' } } } };
    const others = unitsOf('cobalt-heron', [['limpet', title({ footer: held })]]);
    const rows = [
      unit('CH-U-1', { name: 'kelp_tide-footer_banner_ios', platform: 'ios' }),
      unit('CH-U-2', { name: 'kelp_tide-footer_banner_android', platform: 'android' }),
    ];
    const { matches, unmatched, elsewhere } = matchUnits(
      'kelp',
      title({ 'tide-footer': open }),
      heron,
      rows,
      { others },
    );
    expect(matches.map((one) => one.unit.id)).toEqual(['CH-U-2']);
    expect(unmatched).toEqual([]);
    expect(elsewhere).toEqual([{ unit: rows[0], title: 'limpet', placement: 'footer', platform: 'ios' }]);
    expect(unitsOf('marlstone', [['limpet', title({ footer: held })]]).size).toBe(0);
  });

  it('never takes a row of another app', () => {
    const named = (app: string | null) =>
      unit('CH-U-1', { name: 'kelp_footer_banner_android', platform: 'android', app });
    const found = (app: string | null, apps: InventoryApp[] = []) => {
      const { matches, unmatched } = matchUnits('kelp', title({ footer: open }), heron, [named(app)], {
        apps,
      });
      return matches.length > 0 ? 'taken' : unmatched[0]?.why;
    };
    const listed = (identifier: string): InventoryApp => ({
      id: 'CH-A-310772-OTHER000',
      platform: 'android',
      identifier,
      name: 'Kelp',
      status: null,
      audience: null,
      terms: null,
    });
    const other = 'it belongs to the app CH-A-310772-OTHER000, which is not of this title';
    expect(found('CH-A-310772-QK4T8W2N')).toBe('taken');
    expect(found('CH-A-310772-OTHER000')).toBe(other);
    expect(found('CH-A-310772-OTHER000', [listed('example.other.app')])).toBe(other);
    expect(found('CH-A-310772-OTHER000', [listed('example.brine.kelp')])).toBe('taken');
    // A name says nothing of which app it is.
    expect(found('Kelp')).toBe('taken');
    expect(found(null)).toBe('taken');
  });

  it('goes by ID first, whatever the row is called', () => {
    const held = { ...open, units: { 'cobalt-heron': { android: { production: 'CH-U-1' } } } };
    expect(
      shown({ footer: held, other: open }, [unit('CH-U-1', { name: 'kelp_other_banner_android' })]),
    ).toEqual(['certain CH-U-1 footer android held']);
  });

  it.each<[string, Partial<InventoryUnit>, string[]]>([
    [
      'the whole name',
      { name: 'kelp_tide-footer_banner_ios', platform: 'ios' },
      ['high CH-U-1 tide-footer ios new'],
    ],
    [
      'all words of the placement',
      { name: 'Footer of the TIDE list (2024)' },
      ['high CH-U-1 tide-footer android new'],
    ],
    ['words run together', { name: 'newTideFooter' }, ['high CH-U-1 tide-footer android new']],
    [
      'a name that fits, of the wrong format',
      { name: 'kelp_tide-footer_banner_android', format: 'native' },
      ['open CH-U-1: no placement of the title needs such a unit []'],
    ],
    [
      'a row without its platform',
      { name: 'kelp tide footer', platform: null },
      ['open CH-U-1: the row does not name its platform [tide-footer android, tide-footer ios]'],
    ],
    ['only format and platform', { name: 'x' }, ['low CH-U-1 tide-footer android new']],
    [
      'a removed row',
      { name: 'kelp_tide-footer_banner_android', status: 'removed' },
      ['open CH-U-1: the network has removed it []'],
    ],
  ])('%s', (_, changes, expected) => {
    expect(shown({ 'tide-footer': open }, [unit('CH-U-1', changes)])).toEqual(expected);
  });

  it('never guesses between two rows, or two placements', () => {
    const twins = [unit('CH-U-1', { name: 'tide footer' }), unit('CH-U-2', { name: 'tide footer' })];
    expect(shown({ 'tide-footer': open }, twins)).toEqual([
      'open CH-U-1: several rows have this name [tide-footer android]',
      'open CH-U-2: several rows have this name [tide-footer android]',
    ]);
    expect(shown({ footer: open, header: open }, [unit('CH-U-1', { name: 'x' })])).toEqual([
      'open CH-U-1: several placements have its format and platform [footer android, header android]',
    ]);
    expect(shown({ footer: open, header: open }, [unit('CH-U-1', { name: 'footer or header' })])).toEqual([
      'open CH-U-1: its name fits several placements [footer android, header android]',
    ]);
  });

  it('takes the longer of two names that fit', () => {
    expect(
      shown({ footer: open, 'tide-footer': open }, [unit('CH-U-1', { name: 'the tide footer' })]),
    ).toEqual(['high CH-U-1 tide-footer android new']);
  });

  it('leaves placements alone that the network does not fill', () => {
    expect(
      shown({ footer: { ...open, units: { marlstone: {} } } }, [unit('CH-U-1', { name: 'footer' })]),
    ).toEqual(['open CH-U-1: no placement of the title needs such a unit []']);
  });

  it('uses every row once and every place once, whatever the list is', () => {
    const names = fc.constantFrom('tide footer', 'kelp_tide-footer_banner_android', 'header', 'x', '');
    const row = fc.record({
      name: names,
      platform: fc.constantFrom('android', 'ios', null),
      format: fc.constantFrom('banner', 'native', null),
      status: fc.constantFrom('active', 'paused', 'removed', null),
    });
    fc.assert(
      fc.property(fc.array(row, { maxLength: 12 }), (rows) => {
        const units = rows.map((changes, at) => unit(`CH-U-${at}`, changes as Partial<InventoryUnit>));
        const { matches, unmatched } = match({ 'tide-footer': open, header: open }, units);
        expect([...matches, ...unmatched].map((one) => one.unit.id).sort()).toEqual(
          units.map(({ id }) => id).sort(),
        );
        const places = matches.map(({ placement, platform }) => `${placement} ${platform}`);
        expect(new Set(places).size).toBe(places.length);
        for (const { unit: one, platform } of matches) {
          expect(one.platform).toBe(platform);
          expect(one.status).not.toBe('removed');
        }
      }),
      { numRuns: 200 },
    );
  });

  it('stays in proportion for a long list', () => {
    const placements = Object.fromEntries(Array.from({ length: 500 }, (_, at) => [`spot-${at}`, open]));
    const units = Array.from({ length: 20_000 }, (_, at) =>
      unit(`CH-U-${at}`, {
        name:
          at < 500
            ? unitName(usualPattern, {
                title: 'kelp',
                placement: `spot-${at}`,
                format: 'banner',
                platform: 'android',
              })
            : `other ${at}`,
      }),
    );
    const { matches, unmatched } = match(placements, units);
    expect(matches.filter(({ confidence }) => confidence === 'high')).toHaveLength(500);
    expect(matches.length + unmatched.length).toBe(20_000);
  });
});

describe('names of units', () => {
  it('tell title, place, format and platform', () => {
    expect(
      unitName(usualPattern, { title: 'kelp', placement: 'tide-footer', format: 'banner', platform: 'ios' }),
    ).toBe('kelp_tide-footer_banner_ios');
    expect(nameWords('kelp_tideFooter-banner (iOS)')).toEqual([
      'kelp',
      'tide',
      'footer',
      'banner',
      'i',
      'os',
    ]);
  });
  it.each([
    [usualPattern, null],
    ['{title} {placement} {format}', 'It lacks {platform}.'],
    ['{title}{placement}{format}{platform}{year}', 'There is no placeholder {year}'],
    [`${'x'.repeat(80)}{title}{placement}{format}{platform}`, 'longer than 80'],
  ])('%s', (pattern, fault) => {
    if (fault === null) expect(patternFault(pattern)).toBeNull();
    else expect(patternFault(pattern)).toContain(fault);
  });
});
