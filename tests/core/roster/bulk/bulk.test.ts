import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { copyTitle } from '../../../../src/core/roster/bulk/copy-title.js';
import { enrol } from '../../../../src/core/roster/bulk/enrol.js';
import { readPastedIds, withIds } from '../../../../src/core/roster/bulk/pasted-ids.js';
import { renamings, withNames } from '../../../../src/core/roster/bulk/rename.js';
import { compare } from '../../../../src/core/roster/compare.js';
import { Title } from '../../../../src/core/roster/model.js';
import { profiles } from '../../../support/titles.js';

const title = Title.parse({
  name: 'Kelp',
  editions: {
    android: { identifier: 'example.brine.kelp' },
    ios: { identifier: 'example.brine.kelp', tracking: 'So that ads fit what you like.' },
  },
  stages: { test: ['debug'], production: ['release'] },
  networks: {
    'cobalt-heron': {
      android: { production: { app: 'CH-A-310772-AAAA0001', credentials: { inventory: 'secret:CH_KEY' } } },
    },
  },
  placements: {
    'home-footer': {
      format: 'banner',
      settings: { refresh: '60s' },
      units: { 'cobalt-heron': { android: { production: 'CH-U-310772-AAAA0002' } } },
    },
    'home-open': { format: 'interstitial', units: { 'cobalt-heron': {} } },
    'day-end': { format: 'rewarded' },
  },
});
const networks = [
  { id: 'cobalt-heron', name: 'Cobalt Heron' },
  { id: 'marlstone', name: 'Marlstone' },
];

describe('IDs from a table', () => {
  it.each([
    ['tabs and no header', 'home-footer\tcobalt-heron\tios\tproduction\tCH-U-310772-BBBB0001'],
    [
      'a header in another order',
      'ID,Stage,Network,Platform,Placement\nCH-U-310772-BBBB0001,Production,Cobalt Heron,iOS,home-footer',
    ],
    [
      'semicolons, with an empty row',
      'placement;network;os;build;unit id\n\nhome-footer;cobalt-heron;ios;production;CH-U-310772-BBBB0001\n',
    ],
  ])('are read with %s', (_, text) => {
    const { ids, faults } = readPastedIds(text, title, networks);
    expect(faults).toEqual([]);
    expect(ids).toMatchObject([
      {
        network: 'cobalt-heron',
        platform: 'ios',
        stage: 'production',
        placement: 'home-footer',
        id: 'CH-U-310772-BBBB0001',
      },
    ]);
  });

  it('say row by row what cannot be taken, and take the others', () => {
    const text = [
      ',cobalt-heron,ios,production,CH-I-310772-BBBB0001',
      'home-foter,cobalt-heron,ios,production,X',
      'nowhere-at-all,cobalt-heron,ios,production,X',
      'home-footer,pebblegate,ios,production,X',
      'home-footer,cobalt-heron,windows,production,X',
      'home-footer,cobalt-heron,ios,live,X',
      'home-footer,cobalt-heron,ios,test,',
      'app,cobalt-heron,ios,production,CH-I-310772-BBBB0002',
    ].join('\n');
    const { ids, faults } = readPastedIds(text, title, networks);
    expect(ids).toMatchObject([{ row: 1, placement: null, id: 'CH-I-310772-BBBB0001' }]);
    expect(faults.map(({ row, message }) => [row, message])).toEqual([
      [2, expect.stringContaining('Did you mean home-footer?')],
      [3, expect.stringContaining('Add it first.')],
      [4, expect.stringContaining('cobalt-heron, marlstone')],
      [5, expect.stringContaining('android or ios')],
      [6, expect.stringContaining('test or production')],
      [7, expect.stringContaining('no ID')],
      [8, expect.stringContaining('Row 1 already has an ID')],
    ]);
  });

  it('are refused with a reason of their own each', () => {
    const row = (placement: string, network: string, platform: string, stage: string, id: string) =>
      [placement, network, platform, stage, id].join(',');
    const said = (...rows: string[]) => {
      const { ids, faults } = readPastedIds(rows.join('\n'), title, networks);
      return [
        ...ids.map(({ row: at, placement, id }) => `${at} ${placement} ${id}`),
        ...faults.map(({ row: at, message }) => `${at} ${message}`),
      ];
    };
    const good = row('home-footer', 'marlstone', 'android', 'test', 'x');
    expect(said(row('home-footer', 'nowhere', 'ios', 'test', 'x'))).toEqual([
      '1 “nowhere” is no network here. Write cobalt-heron, marlstone.',
    ]);
    expect(said(row('home-footer', 'marlstone', 'web', 'test', 'x'))).toEqual([
      '1 “web” is no platform. Write android or ios.',
    ]);
    expect(said(row('home-footer', 'marlstone', 'ios', 'beta', 'x'))).toEqual([
      '1 “beta” is no stage. Write test or production.',
    ]);
    expect(said(row('home-footer', 'marlstone', 'ios', 'test', ''))).toEqual(['1 It has no ID.']);
    expect(said(row('home-footer', 'marlstone', 'ios', 'test', 'x'.repeat(201)))).toEqual([
      '1 The ID is longer than 200 characters.',
    ]);
    expect(said(row('home-footer', 'marlstone', 'ios', 'test', 'x'.repeat(200)))).toHaveLength(1);
    expect(said(row('home-foter', 'marlstone', 'ios', 'test', 'x'))).toEqual([
      '1 The title has no placement “home-foter”. Did you mean home-footer?',
    ]);
    expect(said(row('elsewhere', 'marlstone', 'ios', 'test', 'x'))).toEqual([
      '1 The title has no placement “elsewhere”. Add it first.',
    ]);
    expect(said(good, '  ,  , ,,', good, row(' APP ', ' Marlstone ', ' Android ', 'TEST', ' y '))).toEqual([
      '1 home-footer x',
      '4 null y',
      '3 Row 1 already has an ID for the same place.',
    ]);
    expect(
      said(
        row('home-footer', 'marlstone', 'android', 'test', 'x'),
        row('home-footer', 'marlstone', 'android', 'production', 'x'),
      ),
    ).toHaveLength(2);
    expect(said('"open').at(-1)).toMatch(/^1 .+\. .+\.$/);
  });

  it('are read by a header only where it names the network and the ID', () => {
    const read = (text: string) => readPastedIds(text, title, networks);
    expect(read(' ID , Network ,OS,Environment\nx,marlstone,ios,test').ids).toMatchObject([
      { row: 2, id: 'x', placement: null, platform: 'ios', stage: 'test' },
    ]);
    expect(read('Value,Platform\nx,ios').faults.map(({ row: at }) => at)).toEqual([1, 2]);
  });

  it('are none in a text that is empty', () => {
    expect(readPastedIds(' \n', title, networks)).toEqual({ ids: [], faults: [] });
  });

  it('change what they name, and nothing else', () => {
    const before = structuredClone(title);
    const next = withIds(title, [
      { network: 'marlstone', platform: 'ios', stage: 'test', placement: 'day-end', id: 'mrl-TEST-0000001' },
      {
        network: 'cobalt-heron',
        platform: 'android',
        stage: 'production',
        placement: null,
        id: 'CH-A-310772-CCCC0001',
      },
    ]);
    expect(title).toEqual(before);
    expect(compare(title, next)).toEqual([
      {
        path: 'networks.cobalt-heron.android.production.app',
        was: 'CH-A-310772-AAAA0001',
        is: 'CH-A-310772-CCCC0001',
      },
      {
        path: 'placements.day-end.units.marlstone',
        was: undefined,
        is: { ios: { test: 'mrl-TEST-0000001' } },
      },
    ]);
    expect(Title.safeParse(next).success).toBe(true);
  });

  it('any text at all is read, or its rows are refused', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('a', ',', '\t', '\n', '"', ';', 'ios', ' ', '=') }),
        (text) => {
          const { ids, faults } = readPastedIds(text, title, networks);
          expect(ids.length + faults.length).toBeLessThanOrEqual(text.split(/\r?\n/).length);
        },
      ),
    );
  });
});

describe('names by a pattern', () => {
  it('keep what the stars stand for', () => {
    expect(renamings(title, 'home-*', 'start-*').names).toEqual([
      { from: 'home-footer', to: 'start-footer' },
      { from: 'home-open', to: 'start-open' },
    ]);
    expect(renamings(title, '*-*', '*-x').names.map(({ to }) => to)).toEqual(['home-x', 'day-x']);
    expect(renamings(title, 'day-end', 'night-end').names).toEqual([{ from: 'day-end', to: 'night-end' }]);
  });

  it('that are taken, alike or no names are refused', () => {
    expect(renamings(title, 'home-open', 'day-end').faults).toMatchObject([
      { from: 'home-open', message: expect.stringContaining('already') },
    ]);
    expect(renamings(title, 'home-*', 'start').faults).toMatchObject([
      { from: 'home-open', message: expect.stringContaining('home-footer would have the same name') },
    ]);
    expect(renamings(title, 'home-*', 'Start *').faults).toHaveLength(2);
    expect(renamings(title, 'day-end', '*-end').faults).toMatchObject([
      { message: expect.stringContaining('more stars') },
    ]);
  });

  it.each([
    ['home-*', 'start-*', 'home-footer', 'start-footer'],
    ['*-footer', '*-bottom', 'home-footer', 'home-bottom'],
    ['*-*', '*-x-*', 'home-footer', 'home-x-footer'],
    ['*o*', '*-a-*', 'ho-me', 'h-a--me'],
    ['h*-f*r', '*-*', 'home-footer', 'ome-oote'],
    ['home*', 'x*', 'home', 'x'],
    ['*', 'x-*', 'home', 'x-home'],
    ['home-footer', 'end', 'home-footer', 'end'],
    ['**', '*x*', 'home', 'xhome'],
    ['home-*', 'start', 'home-footer', 'start'],
    ['home', 'x', 'home-footer', undefined],
    ['home-*', 'x-*', 'footer', undefined],
    ['*-footer', 'x', 'footer', undefined],
    ['ho*me-x', 'x', 'home-x', 'x'],
    ['home*me', 'x', 'home', undefined],
    ['*a*', 'x', 'home', undefined],
    ['home*x', 'a*', 'home-footer', undefined],
  ])('by %s and %s: %s becomes %s', (pattern, replacement, name, to) => {
    const one = { placements: { [name]: title.placements['day-end']! } };
    const { names, faults } = renamings(one, pattern, replacement);
    expect([...names, ...faults].map((each) => each.to)).toEqual(to === undefined ? [] : [to]);
  });

  it('say why a name cannot be given', () => {
    const of = (pattern: string, replacement: string, ...names: string[]) =>
      renamings(
        { placements: Object.fromEntries(names.map((name) => [name, title.placements['day-end']!])) },
        pattern,
        replacement,
      );
    expect(of('a*', '*-*', 'ab').faults).toEqual([
      { from: 'ab', to: 'b-', message: 'The new name has more stars than the pattern.' },
    ]);
    expect(of('a*', '*', 'a1', 'ab').faults.map(({ message }) => message)).toEqual([
      'A name has only small letters, digits and single dashes, and starts with a letter.',
    ]);
    expect(of('a*', 'x', 'ab', 'ac')).toEqual({
      names: [{ from: 'ab', to: 'x' }],
      faults: [{ from: 'ac', to: 'x', message: 'ab would have the same name.' }],
    });
    expect(of('a*', 'b*', 'ax', 'bx').faults).toEqual([
      { from: 'ax', to: 'bx', message: 'Another placement already has this name.' },
    ]);
    expect(of('a*', 'a*', 'ax')).toEqual({ names: [], faults: [] });
  });

  it('swap when both names move on', () => {
    const swapped = {
      ...title,
      placements: { a: title.placements['day-end']!, 'b-a': title.placements['home-open']! },
    };
    expect(renamings(swapped, 'a', 'b-a').faults).toHaveLength(1);
  });

  it('lose no placement, and keep their order', () => {
    const names = fc.uniqueArray(fc.stringMatching(/^[a-c]{1,3}(-[a-c]{1,3})?$/), { maxLength: 12 });
    const patterns = fc.stringMatching(/^[a-c*-]{1,5}$/);
    fc.assert(
      fc.property(names, patterns, patterns, (all, from, to) => {
        const placements = Object.fromEntries(
          all.map((name) => [name, { format: 'banner' as const, settings: {}, units: {}, where: name }]),
        );
        const read = renamings({ placements }, from, to);
        const next = withNames({ ...title, placements }, read.names).placements;
        expect(Object.values(next).map(({ where }) => where)).toEqual(all);
      }),
    );
  });
});

describe('a title like another', () => {
  const copy = copyTitle(title, { name: 'Kelp Lite', identifiers: { ios: 'example.brine.kelp.lite' } });

  it('has networks, placements and settings, and no ID, secret or device', () => {
    expect(Title.parse(copy)).toEqual(copy);
    expect(Object.keys(copy.placements)).toEqual(Object.keys(title.placements));
    expect(copy.placements['home-footer']).toMatchObject({
      settings: { refresh: '60s' },
      units: { 'cobalt-heron': {} },
    });
    expect(JSON.stringify(copy)).not.toMatch(/CH-[AUI]-|secret:/);
    expect(copy.editions).toEqual({
      ios: { identifier: 'example.brine.kelp.lite', tracking: 'So that ads fit what you like.' },
    });
  });
});

describe('a network for a title', () => {
  const marlstone = profiles.find(({ id }) => id === 'marlstone')!;

  it('is used at the placements whose format it offers, once', () => {
    const { title: next, passedOver } = enrol(title, marlstone);
    expect(passedOver).toEqual([
      { placement: 'home-footer', message: expect.stringContaining('format banner') },
    ]);
    expect(compare(title, next).map(({ path }) => path)).toEqual([
      'networks.marlstone',
      'placements.home-open.units.marlstone',
      'placements.day-end.units.marlstone',
    ]);
    expect(enrol(next, marlstone).title).toEqual(next);
  });

  it('is not used where a setting asks for what it does not offer', () => {
    const quincebury = profiles.find(({ id }) => id === 'quincebury')!;
    const placements = {
      ...title.placements,
      'home-open': { ...title.placements['home-open']!, settings: { content: ['video' as const] } },
    };
    const { title: next, passedOver } = enrol({ ...title, placements }, quincebury);
    expect(passedOver).toContainEqual({
      placement: 'home-open',
      message: expect.stringContaining('no video in an interstitial'),
    });
    expect(next.placements['home-footer']?.units).toHaveProperty('quincebury');
  });

  it('is left out where the title has no edition on its platforms', () => {
    const quincebury = profiles.find(({ id }) => id === 'quincebury')!;
    const { android: _, ...editions } = title.editions;
    expect(enrol({ ...title, editions }, quincebury).title.networks).not.toHaveProperty('quincebury');
  });
});
