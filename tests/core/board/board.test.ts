import { describe, expect, it } from 'vitest';
import { makeBoard, type BoardSources } from '../../../src/core/board/board.js';
import type { BoardCell, Reading } from '../../../src/core/board/model.js';
import type { Fact, FactOf } from '../../../src/core/facts/model.js';
import type { InventoryReading } from '../../../src/core/inventory/model.js';
import type { LastRehearsal } from '../../../src/core/rehearsal/report.js';
import type { Platform, Stage } from '../../../src/core/words/words.js';
import { kelp, placement, profileOf, profiles } from '../../support/titles.js';

const now = '2026-06-01T12:00:00Z';
const place = { path: 'app/src/main/AndroidManifest.xml', line: 1, column: 1, endLine: 1, endColumn: 2 };
const sampleApp = 'CH-A-100001-SAMPLE0A';
const app = 'CH-A-310772-QK4T8W2N';
const sampleBanner = 'CH-U-100001-BANNER0A';
const banner = 'CH-U-310772-BBBB1111';
const other = 'CH-U-310772-DDDD1111';
const title = kelp({
  placements: {
    footer: placement('banner', banner, 'CH-U-310772-CCCC2222'),
    header: placement('banner', other, 'CH-U-310772-DDDD2222'),
  },
});

const common = {
  network: 'cobalt-heron',
  platform: 'android' as const,
  module: 'app',
  effective: true as const,
  place,
  chain: [],
};
const appFact = (value: string, variants: string[], more: Partial<FactOf<'app-id'>> = {}): Fact => ({
  ...common,
  kind: 'app-id',
  carrier: 'manifest',
  value,
  variants,
  ...more,
});
const unitFact = (value: string, variants: string[], more: Partial<FactOf<'unit-id'>> = {}): Fact => ({
  ...common,
  kind: 'unit-id',
  carrier: 'code',
  value,
  variants,
  ...more,
});
const unread = (kind: 'app-id' | 'unit-id', more: Partial<Reading['unresolved'][number]> = {}) => ({
  what: 'it',
  reason: 'a script decides',
  kind,
  network: 'cobalt-heron',
  platform: 'android' as const,
  module: 'app',
  variants: ['release'],
  place,
  chain: [],
  ...more,
});

/** A reading of the Android tree of Kelp, which has one variant for each stage. */
function reading(facts: Fact[], more: Partial<Reading> = {}): Reading {
  const variant = (name: string) => ({ name, type: name, flavours: [], stage: null, stageWhy: '' });
  return {
    platform: 'android',
    tree: 'kelp-android',
    snapshot: 's2',
    readAt: now,
    edition: {
      platform: 'android',
      stack: 'android',
      module: 'app',
      identifier: 'example.brine.kelp',
      identifiers: {},
      variants: [variant('debug'), variant('release')],
      home: place,
    },
    facts,
    unresolved: [],
    findings: [],
    summary: { blocker: 0, warning: 0, note: 0 },
    ...more,
  };
}

const board = (sources: Partial<BoardSources> = {}, of = title) =>
  makeBoard('kelp', of, profiles, { readings: [], inventories: [], now, ...sources });

/** One cell of the board, of Android and production unless it says otherwise. */
function cell(
  sources: Partial<BoardSources>,
  row: string | null,
  platform: Platform = 'android',
  stage: Stage = 'production',
  of = title,
): BoardCell {
  const found = board(sources, of)
    .rows.find((one) => one.placement === row)
    ?.cells.find((one) => one.platform === platform && one.stage === stage);
  if (!found) throw new Error(`There is no cell ${row} ${platform} ${stage}.`);
  return found;
}

const everything = [
  appFact(sampleApp, ['debug']),
  appFact(app, ['release']),
  unitFact(sampleBanner, ['debug'], { placement: 'footer' }),
  unitFact(banner, ['release'], { placement: 'footer' }),
  unitFact(other, ['release'], { placement: 'header' }),
];

describe('the rows of a board', () => {
  it('are the app IDs first, then each placement at its networks', () => {
    const two = kelp({
      networks: { ...title.networks, marlstone: {} },
      placements: {
        ...title.placements,
        gift: placement('rewarded', 'mrl-KELP-1234567', 'mrl-KELP-7654321', 'marlstone'),
      },
    });
    expect(
      board({}, two).rows.map(({ placement: name, network, networkName, format, label }) => [
        name,
        network,
        networkName,
        format,
        label,
      ]),
    ).toEqual([
      [null, 'cobalt-heron', 'Cobalt Heron', null, 'app ID'],
      [null, 'marlstone', 'Marlstone', null, profileOf('marlstone').ids.app?.label],
      ['footer', 'cobalt-heron', 'Cobalt Heron', 'banner', 'unit ID'],
      ['header', 'cobalt-heron', 'Cobalt Heron', 'banner', 'unit ID'],
      ['gift', 'marlstone', 'Marlstone', 'rewarded', profileOf('marlstone').ids.unit?.label],
    ]);
  });

  it('have a cell for each platform of the title and each stage', () => {
    const android = kelp({ editions: { android: { identifier: 'example.brine.kelp' } } });
    expect(board({}, android).rows[0]?.cells.map(({ platform, stage }) => [platform, stage])).toEqual([
      ['android', 'test'],
      ['android', 'production'],
    ]);
    expect(board().rows[0]?.cells.map(({ platform, stage }) => [platform, stage])).toEqual([
      ['android', 'test'],
      ['android', 'production'],
      ['ios', 'test'],
      ['ios', 'production'],
    ]);
  });

  it('leave out networks without app IDs, and platforms that the network is not wired into', () => {
    const noApps = profiles.map((profile) => ({ ...profile, ids: { ...profile.ids, app: undefined } }));
    expect(
      makeBoard('kelp', title, noApps, { readings: [], inventories: [], now }).rows.map(
        (row) => row.placement,
      ),
    ).toEqual(['footer', 'header']);
    const androidOnly = kelp({ networks: { 'cobalt-heron': { android: { production: { app } } } } });
    const { cells } = board({}, androidOnly).rows[0]!;
    expect(cells.map(({ record, build }) => [record, build])).toEqual([
      ['sample', 'unread'],
      ['set', 'unread'],
      ['not-used', 'nothing-expected'],
      ['not-used', 'nothing-expected'],
    ]);
    expect(cells[2]).toMatchObject({ id: null, found: [], left: null, rehearsed: null });
    expect(cells[2]?.why).toBe('Cobalt Heron is not wired into this edition.');
  });

  it('say what a network does not offer', () => {
    const heron = profileOf('cobalt-heron');
    const poor = {
      ...heron,
      formats: { interstitial: heron.formats.interstitial },
      android: { ...heron.android!, 'app-id': undefined },
    };
    const { rows } = makeBoard('kelp', title, [poor], { readings: [], inventories: [], now });
    expect(rows.map(({ cells }) => [cells[0]?.record, cells[0]?.why])).toEqual([
      ['not-offered', 'Cobalt Heron has no app ID on Android.'],
      ['not-offered', 'Cobalt Heron has no banner on Android.'],
      ['not-offered', 'Cobalt Heron has no banner on Android.'],
    ]);
    expect(rows[0]?.cells[2]?.record).toBe('sample');
  });
});

describe('the editions of a board', () => {
  it('say what was last read of each', () => {
    const summary = { blocker: 1, warning: 2, note: 3 };
    const { editions, title: id, name } = board({ readings: [reading([], { before: 's1', summary })] });
    expect([id, name]).toEqual(['kelp', 'Kelp']);
    expect(editions).toEqual([
      {
        platform: 'android',
        identifier: 'example.brine.kelp',
        found: 'example.brine.kelp',
        tree: 'kelp-android',
        snapshot: 's2',
        before: 's1',
        readAt: now,
        summary,
      },
      {
        platform: 'ios',
        identifier: 'example.brine.kelp',
        found: null,
        tree: null,
        snapshot: null,
        before: null,
        readAt: null,
        summary: null,
      },
    ]);
  });
});

describe('a cell of the board', () => {
  it('agrees when every variant of its stage carries the ID', () => {
    const sources = { readings: [reading(everything)] };
    const at = (row: string | null, stage: Stage) => cell(sources, row, 'android', stage);
    expect(at(null, 'test')).toMatchObject({
      record: 'sample',
      build: 'agrees',
      id: sampleApp,
      why: 'The network’s sample is used; every variant of this stage contains it.',
    });
    expect(at(null, 'production')).toMatchObject({
      record: 'set',
      build: 'agrees',
      id: app,
      found: [],
      why: 'The roster has it; every variant of this stage contains it.',
    });
    expect(at('footer', 'production')).toMatchObject({ build: 'agrees', id: banner });
    const shared = [appFact(app, ['debug', 'release'])];
    expect(cell({ readings: [reading(shared)] }, null).build).toBe('agrees');
    expect(cell(sources, null, 'ios')).toMatchObject({
      build: 'unread',
      why: 'The roster has it; no tree read yet.',
    });
  });

  it('is absent when no variant carries it, or only some of them', () => {
    expect(cell({ readings: [reading([])] }, null)).toMatchObject({
      build: 'absent',
      found: [],
      why: 'The roster has it; the build does not contain it.',
    });
    const variants = [
      ...reading([]).edition.variants,
      { name: 'paidRelease', type: 'release', flavours: ['paid'], stage: null, stageWhy: '' },
    ];
    const edition = { ...reading([]).edition, variants };
    expect(cell({ readings: [reading(everything, { edition })] }, null).build).toBe('absent');
    const all = [...everything, appFact(app, ['paidRelease'])];
    expect(cell({ readings: [reading(all, { edition })] }, null).build).toBe('agrees');
  });

  it('is absent when the tree has no variant of its stage', () => {
    const edition = { ...reading([]).edition, variants: [] };
    expect(cell({ readings: [reading(everything, { edition })] }, null).build).toBe('absent');
  });

  it('is absent when the roster has no ID', () => {
    const hole = kelp({ networks: { 'cobalt-heron': { android: {} } } });
    expect(cell({ readings: [reading([])] }, null, 'android', 'production', hole)).toMatchObject({
      record: 'missing',
      build: 'absent',
      id: null,
      why: 'The roster has no production ID; the build does not contain it.',
    });
  });

  it('differs when the build contains another app ID, each named once', () => {
    const wrong = [
      ...everything,
      appFact('CH-A-310772-WRONG001', ['release']),
      appFact('CH-A-310772-WRONG001', ['release'], { module: 'lib' }),
    ];
    expect(cell({ readings: [reading(wrong)] }, null)).toMatchObject({
      build: 'differs',
      found: ['CH-A-310772-WRONG001'],
      why: 'The roster has it; the build contains CH-A-310772-WRONG001.',
    });
    expect(cell({ readings: [reading(wrong)] }, null, 'android', 'test').build).toBe('agrees');
    const two = [...wrong, appFact('CH-A-310772-WRONG002', ['release'])];
    expect(cell({ readings: [reading(two)] }, null).why).toContain(
      'the build contains CH-A-310772-WRONG001, CH-A-310772-WRONG002.',
    );
  });

  it('differs when a placement has another ID or that of the other stage, not when another placement has its own', () => {
    const production = (facts: Fact[]) => cell({ readings: [reading(facts)] }, 'footer');
    expect(production([unitFact(sampleBanner, ['release'])])).toMatchObject({
      build: 'differs',
      found: [sampleBanner],
    });
    expect(production([unitFact('CH-U-310772-ELSE0000', ['release'], { placement: 'footer' })]).build).toBe(
      'differs',
    );
    expect(production([unitFact('CH-U-310772-ELSE0000', ['release'])]).build).toBe('absent');
    expect(production([unitFact(other, ['release'], { placement: 'header' })]).build).toBe('absent');
    expect(
      cell({ readings: [reading([unitFact(banner, ['debug'])])] }, 'footer', 'android', 'test'),
    ).toMatchObject({ build: 'differs', found: [banner] });
  });

  it.each([
    ['another kind', unitFact(app, ['release'])],
    ['another network', appFact(app, ['release'], { network: 'marlstone' })],
    ['another platform', appFact(app, ['release'], { platform: 'ios' })],
    ['another stage', appFact(app, ['debug'])],
    [
      'a place where the SDK does not look',
      appFact(app, ['release'], { effective: { reason: 'nested', about: 'activity' } }),
    ],
  ])('counts nothing of %s', (_, fact) => {
    expect(cell({ readings: [reading([fact])] }, null).build).toBe('absent');
  });

  it('counts a unit ID that only the placebook holds where code names its placement', () => {
    const held = unitFact(banner, ['debug', 'release'], { carrier: 'placebook', placement: 'footer' });
    const use = {
      ...common,
      kind: 'placement-use',
      carrier: 'code',
      value: 'footer',
      placement: 'footer',
      variants: ['release'],
    } as unknown as Fact;
    expect(cell({ readings: [reading([held])] }, 'footer').build).toBe('absent');
    expect(cell({ readings: [reading([held, use])] }, 'footer').build).toBe('agrees');
    expect(cell({ readings: [reading([held, { ...use, variants: ['debug'] }])] }, 'footer').build).toBe(
      'absent',
    );
  });

  it.each([
    ['an app ID', unread('app-id'), 'cannot-tell'],
    ['a unit ID', unread('unit-id'), 'absent'],
    ['another network', unread('app-id', { network: 'marlstone' }), 'absent'],
    ['the other stage', unread('app-id', { variants: ['debug'] }), 'absent'],
  ])('cannot tell of an app ID when the tree leaves %s open', (_, open, build) => {
    expect(cell({ readings: [reading([], { unresolved: [open] })] }, null).build).toBe(build);
  });

  it('says so in words', () => {
    expect(cell({ readings: [reading([], { unresolved: [unread('app-id')] })] }, null).why).toBe(
      'The roster has it; reading cannot tell what the build contains.',
    );
  });

  it('shows a clash of production IDs, and none of test IDs', () => {
    const twice = kelp({
      placements: {
        a: placement('banner', banner, 'CH-U-310772-CCCC2222'),
        b: placement('banner', banner, 'CH-U-310772-EEEE2222'),
      },
    });
    expect(cell({}, 'a', 'android', 'production', twice)).toMatchObject({
      record: 'clash',
      why: 'The roster has the same ID in two places; no tree read yet.',
    });
    expect(cell({}, 'b', 'android', 'production', twice).record).toBe('clash');
    expect(cell({}, 'a', 'ios', 'production', twice).record).toBe('set');
    expect(cell({}, 'a', 'android', 'test', twice).record).toBe('sample');
    const sameTest = { 'cobalt-heron': { android: { test: 'CH-U-310772-TEST0000' } } };
    const tests = kelp({
      placements: {
        a: { format: 'banner', settings: {}, units: sameTest },
        b: { format: 'banner', settings: {}, units: sameTest },
      } as never,
    });
    expect(cell({}, 'a', 'android', 'test', tests).record).toBe('set');
  });
});

describe('a board that is good', () => {
  const both = (facts: Fact[], more: Partial<Reading> = {}) => {
    const android = kelp({
      editions: { android: { identifier: 'example.brine.kelp' } },
      placements: { footer: placement('banner', banner, 'CH-U-310772-CCCC2222') },
    });
    return board({ readings: [reading(facts, more)] }, android).good;
  };

  it('has every ID in the roster and in the build, and no blocker', () => {
    expect(both(everything)).toBe(true);
    expect(both(everything, { summary: { blocker: 0, warning: 4, note: 2 } })).toBe(true);
    expect(both(everything, { summary: { blocker: 1, warning: 0, note: 0 } })).toBe(false);
    expect(both(everything.slice(1))).toBe(false);
  });

  it.each([
    [
      'a hole',
      kelp({
        networks: { 'cobalt-heron': { android: {} } },
        editions: { android: { identifier: 'example.brine.kelp' } },
      }),
      {},
    ],
    ['a unit that the network does not know', title, { inventories: [inventory([])] }],
    ['an edition that was never read', kelp({ networks: {} }), {}],
  ])('has not %s', (_, of, sources) => {
    expect(board({ readings: [reading(everything)], ...sources }, of).good).toBe(false);
  });

  it('has no clash, and no unit that the network does not know, even where the build contains it', () => {
    const editions = { android: { identifier: 'example.brine.kelp' } };
    const footer = placement('banner', banner, 'CH-U-310772-CCCC2222');
    const carried = [
      ...everything.slice(0, 2),
      unitFact(sampleBanner, ['debug'], { placement: 'footer' }),
      unitFact(banner, ['release']),
    ];
    const good = (placements: Record<string, typeof footer>, sources: Partial<BoardSources> = {}) =>
      board({ readings: [reading(carried)], ...sources }, kelp({ editions, placements })).good;
    expect(good({ footer })).toBe(true);
    expect(good({ footer }, { inventories: [inventory([])] })).toBe(false);
    expect(good({ footer }, { inventories: [inventory([{ status: 'paused' }])] })).toBe(true);
    expect(good({ footer, header: footer })).toBe(false);
  });

  it('may have an edition of the title that a network is not wired into', () => {
    const androidOnly = kelp({ networks: { 'cobalt-heron': { android: { production: { app } } } } });
    const ios = reading([], { platform: 'ios', edition: { ...reading([]).edition, platform: 'ios' } });
    expect(board({ readings: [reading(everything), ios] }, androidOnly).good).toBe(true);
  });

  it('is a title without networks whose trees were read', () => {
    const bare = kelp({ networks: {}, editions: { android: { identifier: 'example.brine.kelp' } } });
    expect(board({ readings: [reading([])] }, bare).good).toBe(true);
    expect(board({}, bare).good).toBe(false);
  });
});

function inventory(
  units: Partial<InventoryReading['units'][number]>[],
  apps: { id: string }[] = [],
): InventoryReading {
  return {
    network: 'cobalt-heron',
    source: 'http',
    readAt: '2026-06-01T10:30:59Z',
    apps: apps as InventoryReading['apps'],
    units: units.map((unit) => ({
      id: banner,
      status: 'active',
      servesFrom: null,
      ...unit,
    })) as InventoryReading['units'],
    knownAs: {},
  };
}

describe('what a network says, on the board', () => {
  const said = (...list: InventoryReading[]) => cell({ inventories: list }, 'footer');

  it('is nothing while its list was not read', () => {
    expect(said({ ...inventory([]), network: 'marlstone' })).toMatchObject({
      record: 'set',
      left: null,
      why: 'The roster has it; no tree read yet.',
    });
    expect(said(inventory([{ id: other, status: 'removed' }, {}])).record).toBe('set');
    expect(said(inventory([{}])).why).toBe('The roster has it; no tree read yet.');
  });

  it('is nothing of samples and holes', () => {
    expect(cell({ inventories: [inventory([])] }, 'footer', 'android', 'test').record).toBe('sample');
    const hole = kelp({ networks: { 'cobalt-heron': { android: {} } } });
    expect(
      cell(
        { inventories: [inventory([], [{ id: 'CH-A-310772-ELSE0000' }])] },
        null,
        'android',
        'production',
        hole,
      ).record,
    ).toBe('missing');
  });

  it.each([
    ['is not in the list', inventory([])],
    ['was removed', inventory([{ status: 'removed' }])],
  ])('is that a unit is unknown when it %s', (_, list) => {
    expect(said(list)).toMatchObject({
      record: 'unknown-to-partner',
      left: null,
      why: 'The roster has it, but the network does not know it; no tree read yet. The network has no such unit (its list was read 2026-06-01 10:30).',
    });
  });

  it('is how long a new unit takes to serve', () => {
    const young = inventory([{ servesFrom: '2026-06-01T12:42:00Z' }]);
    expect(said(young)).toMatchObject({
      record: 'too-new',
      left: '42 min',
      why: 'The roster has it, but it does not serve ads yet; no tree read yet. It serves in 42 min.',
    });
    expect(said(inventory([{ servesFrom: '2026-06-01T11:00:00Z' }]))).toMatchObject({
      record: 'set',
      left: null,
    });
    expect(said(inventory([{ servesFrom: '2026-06-01T12:42:00Z', status: 'removed' }])).record).toBe(
      'unknown-to-partner',
    );
  });

  it('has no time left for a clash, which comes first', () => {
    const twice = kelp({ placements: { footer: placement('banner', banner, banner) } });
    expect(
      cell(
        { inventories: [inventory([{ servesFrom: '2026-06-01T12:42:00Z' }])] },
        'footer',
        'android',
        'production',
        twice,
      ),
    ).toMatchObject({ record: 'clash', left: null });
  });

  it('is that a unit is paused, which is not wrong', () => {
    expect(said(inventory([{ status: 'paused' }]))).toMatchObject({
      record: 'set',
      why: 'The roster has it; no tree read yet. It is paused at the network.',
    });
  });

  it('is that an app is unknown, when it names any', () => {
    const of = (ids: string[]) =>
      cell(
        {
          inventories: [
            inventory(
              [],
              ids.map((id) => ({ id })),
            ),
          ],
        },
        null,
      );
    expect(of([])).toMatchObject({ record: 'set' });
    expect(of([app])).toMatchObject({ record: 'set' });
    expect(of(['CH-A-310772-ELSE0000', app])).toMatchObject({ record: 'set' });
    expect(of(['CH-A-310772-ELSE0000'])).toMatchObject({ record: 'unknown-to-partner' });
    expect(of(['CH-A-310772-ELSE0000']).why).toContain(
      'The network has no such app (its list was read 2026-06-01 10:30).',
    );
  });
});

describe('the last rehearsal, on the board', () => {
  const run = (
    stage: Stage,
    ...verdicts: LastRehearsal['runs'][number]['placements'][number]['verdict'][]
  ) => ({
    platform: 'android' as const,
    module: 'app',
    variant: stage === 'test' ? 'debug' : 'release',
    stage,
    placements: [
      { placement: 'header', networks: [{ network: 'cobalt-heron', verdict: { is: 'stopped' } }] },
      {
        placement: 'footer',
        networks: [
          { network: 'marlstone', verdict: { is: 'failed' } },
          ...verdicts.map((verdict) => ({ network: 'cobalt-heron', verdict })),
        ],
      },
    ],
  });
  const last = (...runs: ReturnType<typeof run>[]) =>
    ({
      at: '2026-06-01T11:00:00Z',
      scenario: 'first-day',
      snapshot: 's2',
      runs,
      found: [],
    }) as unknown as LastRehearsal;
  const rehearsed = (
    android: LastRehearsal | undefined,
    row: string | null = 'footer',
    readings = [reading([])],
  ) => cell({ readings, rehearsals: { android } }, row).rehearsed;

  it('is what it said of the placement in its stage', () => {
    const both = last(run('test', { is: 'no-ad' }), run('production', { is: 'shown', after: 1_200 }));
    expect(rehearsed(both)).toEqual({
      is: 'shown',
      text: 'ad shown after 1.2 s',
      at: '2026-06-01T11:00:00Z',
      scenario: 'first-day',
      old: false,
    });
    expect(cell({ rehearsals: { android: both } }, 'footer', 'android', 'test').rehearsed?.is).toBe('no-ad');
    expect(cell({ rehearsals: { android: both } }, 'footer', 'ios').rehearsed).toBe(null);
  });

  it('is the first verdict without an ad, where there is one', () => {
    expect(rehearsed(last(run('production', { is: 'shown' }, { is: 'refused' }, { is: 'failed' })))?.is).toBe(
      'refused',
    );
    expect(rehearsed(last(run('production', { is: 'delivered' }, { is: 'shown' })))?.is).toBe('delivered');
  });

  it('is nothing without a run, for an app ID, or where the placement was not rehearsed', () => {
    expect(rehearsed(undefined)).toBe(null);
    expect(rehearsed(last(run('production', { is: 'shown' })), null)).toBe(null);
    expect(rehearsed(last(run('test', { is: 'shown' })))).toBe(null);
  });

  it('is old when the tree was read anew since', () => {
    const one = last(run('production', { is: 'shown' }));
    expect(rehearsed(one, 'footer', [reading([], { snapshot: 's3' })])?.old).toBe(true);
    expect(rehearsed(one, 'footer', [])?.old).toBe(false);
  });
});
