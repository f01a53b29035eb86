import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compare, compareThreeWays } from '../../../src/core/roster/compare.js';
import { durationSeconds } from '../../../src/core/words/durations.js';
import { readRoster, writeRoster } from '../../../src/core/roster/document.js';
import { expectedIds } from '../../../src/core/roster/expected.js';
import { revert } from '../../../src/core/roster/history.js';
import { Roster, Title } from '../../../src/core/roster/model.js';
import { stageOf } from '../../../src/core/roster/stage.js';
import { IdHolders } from '../../../src/core/roster/holders.js';
import { titleValidator } from '../../../src/core/roster/validate.js';
import { makeBoard } from '../../../src/core/board/board.js';
import { cellState } from '../../../src/core/board/cell-state.js';
import { kelp, placement, profiles } from '../../support/titles.js';

const unread = { readings: [], inventories: [], now: '2026-06-01T12:00:00Z' };

const problems = (title: Title) =>
  titleValidator(profiles)(title).map(({ field, message, fix }) => `${field}: ${message} ${fix ?? ''}`);
const appId = (value: string, platform: 'android' | 'ios' = 'android') =>
  kelp({ networks: { 'cobalt-heron': { [platform]: { production: { app: value } } } } });
const unit = (value: string) =>
  kelp({ placements: { footer: placement('banner', value, 'CH-U-310772-CCCC2222') } });

describe('validating a title', () => {
  it('refuses a sample of the other platform, and an ID of a kind that the network does not have', () => {
    const heron = profiles.find(({ id }) => id === 'cobalt-heron')!;
    // As of a network whose IDs name no platform.
    const open = {
      ...heron,
      ids: {
        ...heron.ids,
        app: { ...heron.ids.app!, platforms: {}, pattern: 'CH-[AI]-(?<account>\\d{6})-[A-Z0-9]{8}' },
      },
    } as (typeof profiles)[number];
    const said = (profile: typeof heron, title: Title) =>
      titleValidator([profile])(title).map(({ message, fix }) => [message, fix]);
    const test = (app: string) => kelp({ networks: { 'cobalt-heron': { android: { test: { app } } } } });
    expect(said(open, test('CH-I-100001-SAMPLE0I'))).toEqual([
      ['CH-I-100001-SAMPLE0I is the iOS sample of Cobalt Heron.', 'Give the sample for Android.'],
    ]);
    expect(said(open, test('CH-A-100001-SAMPLE0A'))).toEqual([]);
    expect(said(open, test('CH-I-310772-M6R9V3XC'))).toEqual([]);
    const without = { ...heron, ids: { ...heron.ids, app: undefined } } as typeof heron;
    expect(said(without, test('CH-A-310772-QK4T8W2N'))).toEqual([
      ['Cobalt Heron has no app IDs.', 'Remove the ID.'],
    ]);
  });

  it('names a place of an ID, and the network that it is not of', () => {
    expect(
      problems(
        kelp({ networks: { 'cobalt-heron': { ios: { production: { app: 'hello' } } } }, placements: {} }),
      ),
    ).toEqual([
      `networks.cobalt-heron.ios.production.app: hello does not look like an app ID of Cobalt Heron. Give one that matches ${profiles[0]!.ids.app!.pattern}, as CH-A-100001-SAMPLE0A does.`,
    ]);
    expect(problems(unit('mrl-TIDE-1234567'))[0]).toContain(
      'mrl-TIDE-1234567 is an ID of marlstone, not of cobalt-heron.',
    );
    expect(problems(unit('CH U'))[0]).toContain('The ID "CH U" contains white space. Give it as "CHU".');
  });

  it('has nothing to say of one that is right', () => {
    expect(
      problems(
        kelp({ placements: { footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222') } }),
      ),
    ).toEqual([]);
  });

  it('keeps devices for testing to the test stage, and the text for tracking to iOS', () => {
    const android = { production: { app: 'CH-A-310772-QK4T8W2N', devices: ['mine'] } };
    const wrong = kelp({
      editions: {
        android: { identifier: 'example.brine.kelp', tracking: 'Ads pay for Kelp.' },
        ios: { identifier: 'example.brine.kelp', tracking: 'Ads pay for Kelp.' },
      },
      networks: { 'cobalt-heron': { android } },
    });
    expect(problems(wrong).map((problem) => problem.split(': ')[0])).toEqual([
      'networks.cobalt-heron.android.production.devices',
      'editions.android.tracking',
    ]);
    const right = kelp({ networks: { 'cobalt-heron': { android: { test: { devices: ['mine'] } } } } });
    expect(problems(right)).toEqual([]);
  });

  it.each([
    [
      'a stray blank',
      appId('CH-A-310772-QK4T8W2N '),
      'contains white space',
      'Give it as "CH-A-310772-QK4T8W2N"',
    ],
    ['a stray line break', appId('CH-A-310772-QK4T8W2N\n'), 'contains white space', 'Give it as'],
    [
      'a unit ID as an app ID',
      appId('CH-U-310772-BBBB1111'),
      'is a unit ID of Cobalt Heron, and an app ID belongs here',
      'as CH-A-100001-SAMPLE0A does',
    ],
    [
      'an app ID as a unit ID',
      unit('CH-A-310772-OTHER0NE'),
      'is an app ID of Cobalt Heron, and a unit ID belongs here',
      'Give one that matches',
    ],
    [
      'the other platform’s ID',
      appId('CH-I-310772-M6R9V3XC'),
      'is an iOS ID of Cobalt Heron',
      'Give the one for Android',
    ],
    [
      'another network’s ID',
      appId('mrl1-0123456789abcdef01234567'),
      'is an ID of marlstone',
      'Give one that matches',
    ],
    [
      'a shape of no network',
      appId('hello'),
      'does not look like an app ID of Cobalt Heron',
      'Give one that matches',
    ],
    [
      'a sample in production',
      appId('CH-A-100001-SAMPLE0A'),
      'is a sample ID of Cobalt Heron for testing',
      'Give your own app ID',
    ],
    [
      'an unknown network',
      kelp({ networks: { nowhere: {} } }),
      'There is no profile of the network nowhere',
      'Use one of cobalt-heron, ferrowick, marlstone, quincebury, tallowfield, or add a profile for',
    ],
    [
      'a format that a network lacks',
      kelp({
        placements: { footer: placement('banner', 'mrl-TIDE-1234567', 'mrl-TIDE-1234568', 'marlstone') },
      }),
      'Marlstone does not offer the format banner',
      'It offers interstitial, rewarded',
    ],
    [
      'a refresh out of bounds',
      kelp({
        placements: {
          footer: {
            ...placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'),
            settings: { refresh: '10s' },
          },
        },
      }),
      'does not support a refresh time of 10s',
      '30s to 120s',
    ],
    [
      'a refresh of what is never refreshed',
      kelp({
        placements: {
          full: {
            ...placement('interstitial', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'),
            settings: { refresh: '60s' },
          },
        },
      }),
      'never refreshes an interstitial',
      'Remove it',
    ],
    [
      'no content kind',
      kelp({
        placements: {
          footer: {
            ...placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'),
            settings: { content: [] },
          },
        },
      }),
      'nothing can be shown',
      'at least one',
    ],
    [
      'a content kind that the format lacks',
      kelp({
        placements: {
          gift: {
            ...placement('rewarded', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'),
            settings: { content: ['text'] },
          },
        },
      }),
      'shows no text in a rewarded',
      'image, video',
    ],
    [
      'a reward without a rewarded format',
      kelp({
        placements: {
          footer: {
            ...placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'),
            settings: { reward: { amount: 1, item: 'x' } },
          },
        },
      }),
      'does not have a reward',
      'rewarded',
    ],
    [
      'one name on both stages',
      kelp({ stages: { test: ['debug'], production: ['Debug'] } }),
      'is under test and under production',
      'Keep it in one',
    ],
  ])('refuses %s, and says what would be right', (_, title, message, fix) => {
    const found = problems(title);
    expect(found).toHaveLength(1);
    expect(found[0]).toContain(message);
    expect(found[0]).toContain(fix);
  });

  it('refuses one ID for two placements, two platforms or two titles', () => {
    const twice = kelp({
      placements: {
        a: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'),
        b: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-DDDD3333'),
      },
    });
    expect(problems(twice)).toEqual([
      expect.stringContaining(
        'placements.b.units.cobalt-heron.android.production: CH-U-310772-BBBB1111 is already held by placement a (Android, production)',
      ),
    ]);
    expect(
      problems(
        kelp({ placements: { a: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-BBBB1111') } }),
      ),
    ).toHaveLength(1);
  });

  it('lets test IDs be shared, by placements, platforms and titles', () => {
    const shared = {
      'cobalt-heron': { android: { test: 'CH-U-310772-TEST0000' }, ios: { test: 'CH-U-310772-TEST0000' } },
    };
    const title = kelp({
      networks: { 'cobalt-heron': { android: { test: { app: 'CH-A-310772-TEST0000' } } } },
      placements: {
        a: { format: 'banner', settings: {}, units: shared },
        b: { format: 'banner', settings: {}, units: shared },
      },
    });
    expect(problems(title)).toEqual([]);
    expect(titleValidator(profiles)(title, IdHolders.in({ frond: title }).outside('kelp'))).toEqual([]);
  });

  it('refuses what another title holds, for as long as that holds it', () => {
    const holders = new IdHolders();
    holders.set('frond', kelp());
    const found = () => titleValidator(profiles)(kelp(), holders.outside('kelp'));
    expect(found()[0]?.message).toContain('held by title frond, the app ID');
    expect(titleValidator(profiles)(kelp(), holders.outside('frond'))).toEqual([]);
    holders.set('frond', kelp({ networks: {} }));
    expect(found()).toEqual([]);
    holders.set('frond', kelp());
    holders.set('frond', null);
    expect(found()).toEqual([]);
  });

  it('knows all who hold an ID, whoever of them leaves', () => {
    const shared = 'CH-U-310772-BBBB1111';
    const holding = (...names: string[]) =>
      kelp({
        networks: {},
        placements: Object.fromEntries(
          names.map((name) => [name, placement('banner', shared, `${shared}${name}`)]),
        ),
      });
    const holders = IdHolders.in({ one: holding('a', 'b'), two: holding('c') });
    const of = (title: string, network = 'cobalt-heron') => {
      const found = holders.outside(title)(network, shared);
      return found && `${found.title} ${found.placement}`;
    };
    expect([of('one'), of('two'), of('three'), of('one', 'marlstone')]).toEqual([
      'two c',
      'one b',
      'two c',
      undefined,
    ]);
    holders.set('one', holding('d'));
    expect([of('one'), of('two')]).toEqual(['two c', 'one d']);
    holders.set('two', null);
    expect([of('one'), of('two'), of('three')]).toEqual([undefined, 'one d', 'one d']);
    holders.set('never', null);
    holders.set('one', null);
    expect(of('three')).toBe(undefined);
  });

  it('refuses an unknown format with the formats there are', () => {
    const parsed = Title.safeParse({ name: 'K', placements: { footer: { format: 'baner' } } });
    expect(parsed.error?.issues[0]).toMatchObject({
      path: ['placements', 'footer', 'format'],
      message: expect.stringContaining('banner'),
    });
  });

  it('counts durations', () => {
    expect(['45s', '2m', '1h', '3d'].map(durationSeconds)).toEqual([45, 120, 3600, 259200]);
  });
});

describe('expected IDs', () => {
  it('take samples for testing, and only there', () => {
    const found = expectedIds(
      kelp({ placements: { footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222') } }),
      profiles,
      'ios',
    );
    expect(found.map(({ kind, stage, id, from }) => [kind, stage, id, from])).toEqual([
      ['app', 'test', 'CH-I-100001-SAMPLE0I', 'sample'],
      ['app', 'production', 'CH-I-310772-M6R9V3XC', 'roster'],
      ['unit', 'test', 'CH-U-100001-BANNER0I', 'sample'],
      ['unit', 'production', 'CH-U-310772-CCCC2222', 'roster'],
    ]);
  });

  it('name holes, and nothing for editions that are not there', () => {
    const title = kelp({
      editions: { android: { identifier: 'a.b' } },
      networks: { 'cobalt-heron': { android: {} } },
    });
    expect(expectedIds(title, profiles, 'android').find(({ stage }) => stage === 'production')).toMatchObject(
      { id: undefined, from: 'nowhere' },
    );
    expect(expectedIds(title, profiles, 'ios')).toEqual([]);
  });
});

describe('stages', () => {
  const stages = { test: ['debug', 'beta'], production: ['release', 'betaRelease'] };
  it.each([
    ['debug', 'debug', [], 'test'],
    ['freeRelease', 'release', ['free'], 'production'],
    ['betaRelease', 'release', ['beta'], 'production'],
    ['betaProfile', 'profile', ['beta'], 'test'],
    ['profile', 'profile', [], null],
  ] as const)('%s', (name, type, flavours, stage) => {
    expect(stageOf({ name, type, flavours }, stages).stage).toBe(stage);
  });
});

describe('comparing', () => {
  const json = fc.letrec((tie) => ({
    value: fc.oneof(
      { maxDepth: 3 },
      fc.string({ maxLength: 4 }),
      fc.integer(),
      fc.array(fc.integer(), { maxLength: 3 }),
      tie('record'),
    ),
    record: fc.dictionary(fc.stringMatching(/^[a-c]$/), tie('value'), { maxKeys: 3, noNullPrototype: true }),
  }));

  it('taking changes back gives what was there before', () => {
    fc.assert(
      fc.property(json.record, json.record, (before, after) => {
        const changes = compare(before, after);
        expect(compare(before, revert(after, changes))).toEqual([]);
        expect(compare(before, before)).toEqual([]);
      }),
    );
  });

  it('takes changes back one after the other, the last first', () => {
    const was = { a: 1, b: { c: 1 } };
    const changes = [
      { path: 'a', was: 1, is: 2 },
      { path: 'a', was: 2, is: undefined },
      { path: 'b.c', was: 1, is: undefined },
      { path: 'b', was: {}, is: null },
      { path: 'd', was: undefined, is: { e: 'x' } },
    ];
    const is = { b: null, d: { e: 'x' } };
    expect(revert(is, changes)).toEqual(was);
    expect(revert(is, changes)).not.toHaveProperty('d');
    expect(is).toEqual({ b: null, d: { e: 'x' } });
    expect(revert({ a: 'text' }, [{ path: 'a.b.c', was: 1, is: undefined }])).toEqual({ a: { b: { c: 1 } } });
    expect(revert({}, [{ path: '__proto__.x', was: 1, is: undefined }])).not.toHaveProperty('x');
  });

  it('finds conflicts three ways', () => {
    const base = { a: 1, b: 1, c: 1 };
    expect(compareThreeWays(base, { a: 2, b: 1, c: 5 }, { a: 3, b: 2, c: 5 })).toEqual([
      { path: 'a', base: 1, record: 2, document: 3, conflict: true },
      { path: 'b', base: 1, record: 1, document: 2, conflict: false },
      { path: 'c', base: 1, record: 5, document: 5, conflict: false },
    ]);
  });
});

const document = `# our titles
syndexa: 1
publisher: { name: Brine, domain: brine.example } # that is us
titles:
  # the first one
  kelp:
    name: Kelp
    editions:
      android: { identifier: example.brine.kelp } # since 2019
    networks:
      cobalt-heron:
        android: { production: { app: CH-A-310772-QK4T8W2N } }
`;

describe('roster documents', () => {
  it('come back as they were when nothing changed', () => {
    const { roster } = readRoster(document);
    const { stages: _, audience: __, ...kelpOnly } = roster!.titles.kelp!;
    const same = { ...roster!, titles: { kelp: kelpOnly as Title } };
    expect(writeRoster(same, document)).toBe(document);
  });

  it('keep comments and order, and change only what differs', () => {
    const { roster } = readRoster(document);
    const next = structuredClone(roster!);
    next.titles.kelp!.networks['cobalt-heron']!.android!.production!.app = 'CH-A-310772-NEWNEWNE';
    next.titles.kelp!.editions.ios = { identifier: 'example.brine.kelp-ios' };
    const written = writeRoster(next, document);
    for (const comment of ['# our titles', '# that is us', '# the first one', '# since 2019'])
      expect(written).toContain(comment);
    expect(written).toContain('CH-A-310772-NEWNEWNE');
    expect(written).toContain('ios: { identifier: example.brine.kelp-ios }');
    expect(readRoster(written).roster).toEqual(next);
  });

  it('written and read again are the same, and written twice are one text', () => {
    const title = fc.record({
      name: fc.stringMatching(/^[A-Za-z ]{1,12}[a-z]$/),
      placements: fc.dictionary(
        fc.stringMatching(/^[a-z]{1,6}$/),
        fc.record({
          format: fc.constantFrom('banner', 'native'),
          settings: fc.constantFrom({}, { refresh: '60s' }, { content: ['text'] }),
          units: fc.constantFrom({}, { 'cobalt-heron': { android: { production: 'CH-U-310772-BBBB1111' } } }),
        }),
        { maxKeys: 3, noNullPrototype: true },
      ),
    });
    fc.assert(
      fc.property(
        fc.dictionary(fc.stringMatching(/^[a-z]{1,8}$/), title, { maxKeys: 3, noNullPrototype: true }),
        (titles) => {
          const roster = Roster.parse({ syndexa: 1, titles });
          const written = writeRoster(roster);
          expect(readRoster(written).roster).toEqual(roster);
          expect(writeRoster(roster, written)).toBe(written);
        },
      ),
      { numRuns: 60 },
    );
  });

  it.each([
    ['syndexa: 2\n', 'syndexa', 'This service reads rosters of version 1.', { line: 1, column: 10 }],
    ['titles: {}\n', 'syndexa', 'This service reads rosters of version 1.', { line: 1, column: 1 }],
    [
      'syndexa: 1\ntitles:\n  kelp:\n    name: K\n    placements:\n      footer: { format: baner }\n',
      'titles.kelp.placements.footer.format',
      'It has to be',
      { line: 6, column: 25 },
    ],
    [
      'syndexa: 1\ntitles:\n  kelp: { name: K, colour: red }\n',
      'titles.kelp.colour',
      'There is no field of the name colour here.',
      { line: 3, column: 28 },
    ],
    ['syndexa: 1\n  bad: [\n', '', '', { line: 1, column: 10 }],
  ])('say the field, the line and the column: %j', (text, field, message, place) => {
    const { roster, problems: found } = readRoster(text);
    expect(roster).toBe(null);
    expect(found[0]?.field).toBe(field);
    expect(found[0]?.message).toContain(message);
    expect(found[0]?.place).toEqual(place);
  });

  it('bound aliases, so that a small document cannot grow', () => {
    const bomb = `a: &a [x,x,x,x,x,x,x,x,x]\n${'bcdefgh'
      .split('')
      .map((name, i) => `${name}: &${name} [${Array(9).fill(`*${'abcdefgh'[i]}`).join(',')}]`)
      .join('\n')}\n`;
    expect(readRoster(bomb).problems[0]?.message).toMatch(/alias/i);
  });
});

describe('the board', () => {
  const title = kelp({
    placements: {
      footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'),
      gift: {
        format: 'rewarded',
        settings: {},
        units: { marlstone: { android: { production: 'mrl-KELP-1234567' } } },
      },
    },
  });
  it('says what the record holds before any tree was read', () => {
    const { rows, good } = makeBoard('kelp', title, profiles, unread);
    expect(good).toBe(false);
    expect(
      rows.map(({ placement: name, network, cells }) => [
        name,
        network,
        ...cells.map((cell) => cellState(cell).word),
      ]),
    ).toEqual([
      [null, 'cobalt-heron', 'sample, unread', 'set, unread', 'sample, unread', 'set, unread'],
      [null, 'marlstone', 'sample, unread', 'missing', 'not used', 'not used'],
      ['footer', 'cobalt-heron', 'sample, unread', 'set, unread', 'sample, unread', 'set, unread'],
      ['gift', 'marlstone', 'sample, unread', 'set, unread', 'not used', 'not used'],
    ]);
  });

  it('shows a clash on both cells', () => {
    const clash = kelp({
      placements: { a: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-BBBB1111') },
    });
    const row = makeBoard('kelp', clash, profiles, unread).rows.find(({ placement: name }) => name === 'a');
    expect(row?.cells.filter(({ record }) => record === 'clash')).toHaveLength(2);
  });
});
