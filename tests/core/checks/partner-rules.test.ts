import { describe, expect, it } from 'vitest';
import { partnerAppAudienceDiffers } from '../../../src/core/checks/rules/partner-app-audience-differs.js';
import { partnerAppGone } from '../../../src/core/checks/rules/partner-app-gone.js';
import { partnerAppIdentifierDiffers } from '../../../src/core/checks/rules/partner-app-identifier-differs.js';
import { partnerSettingsDiffer } from '../../../src/core/checks/rules/partner-settings-differ.js';
import { partnerTermsOpen } from '../../../src/core/checks/rules/partner-terms-open.js';
import { partnerUnitFormatChanged } from '../../../src/core/checks/rules/partner-unit-format-changed.js';
import { partnerUnitGone } from '../../../src/core/checks/rules/partner-unit-gone.js';
import { partnerUnitPaused } from '../../../src/core/checks/rules/partner-unit-paused.js';
import { partnerUnitRenamed } from '../../../src/core/checks/rules/partner-unit-renamed.js';
import { partnerUnitTooNew } from '../../../src/core/checks/rules/partner-unit-too-new.js';
import { partnerUnitWrongPlatform } from '../../../src/core/checks/rules/partner-unit-wrong-platform.js';
import { makeBoard } from '../../../src/core/board/board.js';
import { cellState } from '../../../src/core/board/cell-state.js';
import { timeLeft } from '../../../src/core/text/time.js';
import { findingsOf, ruleCases } from '../../support/rules.js';
import { app, heron, kelpApps, unit } from '../../support/inventories.js';
import { androidFiles, iosFiles, kelp, placement, profiles } from '../../support/trees.js';

const [android, ios] = ['CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'];
const footer = placement('banner', android, ios);
const title = kelp({ placements: { footer } });
const timed = kelp({ placements: { footer: { ...footer, settings: { refresh: '60s' } } } });
const files = { ...androidFiles(), ...iosFiles() };
const right = [unit(android), unit(ios, { platform: 'ios', app: 'CH-I-310772-M6R9V3XC' })];
const [rightAndroid, rightIos] = right;
/** The list of Cobalt Heron with the Android unit changed. */
const changed = (changes: Parameters<typeof unit>[1]) => [
  heron({ units: [{ ...rightAndroid!, ...changes }, rightIos!] }),
];
const agreeing = { name: 'a list that agrees', files, title, inventories: [heron({ units: right })] };
const neverRead = { name: 'a network whose list was never read', files, title };
const onAndroid = { platform: 'android', network: 'cobalt-heron' } as const;

ruleCases(partnerUnitGone, {
  clean: [agreeing, neverRead],
  faulty: [
    {
      name: 'a unit that is not in the list',
      byHand: { inventories: [heron({ units: right })] },
      files,
      title,
      inventories: [heron({ units: [rightIos!] })],
      findings: [{ ...onAndroid, placement: 'footer', variants: ['release'] }],
    },
  ],
});
ruleCases(partnerUnitPaused, {
  clean: [agreeing, neverRead],
  faulty: [
    {
      name: 'a paused unit',
      byHand: { inventories: [heron({ units: right })] },
      files,
      title,
      inventories: changed({ status: 'paused' }),
      findings: [{ ...onAndroid, message: expect.stringContaining('is paused at Cobalt Heron') }],
    },
  ],
});
ruleCases(partnerUnitRenamed, {
  clean: [agreeing],
  faulty: [
    {
      name: 'a unit that bears another name than before',
      byHand: { inventories: [heron({ units: right })] },
      files,
      title,
      inventories: [heron({ units: right, knownAs: { [android]: 'kelp footer' } })],
      findings: [{ ...onAndroid, message: expect.stringContaining('was called “kelp footer”') }],
    },
  ],
});
ruleCases(partnerUnitFormatChanged, {
  clean: [agreeing],
  faulty: [
    {
      name: 'a unit of another format',
      byHand: { inventories: [heron({ units: right })] },
      files,
      title,
      inventories: changed({ format: 'native' }),
      findings: [{ ...onAndroid, placement: 'footer' }],
    },
  ],
});
ruleCases(partnerUnitWrongPlatform, {
  clean: [agreeing],
  faulty: [
    {
      name: 'units that were exchanged',
      byHand: { title: kelp({ placements: { footer: placement('banner', ios, android) } }) },
      files,
      title,
      inventories: [heron({ units: [unit(android, { platform: 'ios' }), unit(ios)] })],
      findings: [{ platform: 'android' }, { platform: 'ios' }],
    },
  ],
});
ruleCases(partnerUnitTooNew, {
  clean: [agreeing],
  faulty: [
    {
      name: 'a unit that serves in half an hour',
      byHand: { inventories: changed({ servesFrom: '2026-06-01T11:59:00Z' }) },
      files,
      title,
      inventories: changed({ servesFrom: '2026-06-01T12:30:00Z' }),
      findings: [{ ...onAndroid, message: expect.stringContaining('another 30 min') }],
    },
  ],
});
ruleCases(partnerSettingsDiffer, {
  clean: [
    agreeing,
    {
      name: 'a setting that the roster leaves open',
      files,
      title,
      inventories: changed({ settings: { refresh: '90s' } }),
    },
    { name: 'a setting that the network does not tell', files, title: timed, inventories: changed({}) },
  ],
  faulty: [
    {
      name: 'another refresh time',
      byHand: { inventories: changed({ settings: { refresh: '60s' } }) },
      files,
      title: timed,
      inventories: changed({ settings: { refresh: '90s' } }),
      findings: [{ ...onAndroid, message: expect.stringContaining('"60s" in the roster and "90s"') }],
    },
  ],
});
ruleCases(partnerAppGone, {
  clean: [
    agreeing,
    { name: 'a table that knows nothing of apps', files, title, inventories: [heron({ apps: [] })] },
  ],
  faulty: [
    {
      name: 'an app that is not there',
      byHand: { inventories: [heron({ apps: kelpApps })] },
      files,
      title,
      inventories: [heron({ apps: [kelpApps[1]!] })],
      findings: [onAndroid],
    },
  ],
});
ruleCases(partnerAppIdentifierDiffers, {
  clean: [agreeing],
  faulty: [
    {
      name: 'an app that was registered with a letter off',
      byHand: { inventories: [heron({ apps: kelpApps })] },
      files,
      title,
      inventories: [
        heron({ apps: [app('CH-A-310772-QK4T8W2N', { identifier: 'example.brine.kelb' }), kelpApps[1]!] }),
      ],
      findings: [{ ...onAndroid, message: expect.stringContaining('example.brine.kelb') }],
    },
  ],
});
ruleCases(partnerAppAudienceDiffers, {
  clean: [agreeing],
  faulty: [
    {
      name: 'an app that is declared for children',
      byHand: { inventories: [heron({ apps: kelpApps })] },
      files,
      title,
      inventories: [heron({ apps: [app('CH-A-310772-QK4T8W2N', { audience: 'children' }), kelpApps[1]!] })],
      findings: [onAndroid],
    },
  ],
});
ruleCases(partnerTermsOpen, {
  clean: [
    agreeing,
    {
      name: 'a list that does not tell',
      files,
      title,
      inventories: [heron({ apps: kelpApps.map((one) => ({ ...one, terms: null })) })],
    },
  ],
  faulty: [
    {
      name: 'terms that nobody accepted',
      byHand: { inventories: [heron({ apps: kelpApps })] },
      files,
      title,
      inventories: [heron({ apps: [app('CH-A-310772-QK4T8W2N', { terms: false }), kelpApps[1]!] })],
      findings: [onAndroid],
    },
  ],
});

describe('a finding about time', () => {
  it('is the same finding while the time runs', () => {
    const at = (now: string) =>
      findingsOf(files, title, partnerUnitTooNew, {
        inventories: changed({ servesFrom: '2026-06-01T13:00:00Z' }),
        now,
      });
    const [early, late] = [at('2026-06-01T12:00:00Z'), at('2026-06-01T12:40:00Z')];
    expect(early[0]!.message).not.toBe(late[0]!.message);
    expect(early[0]!.fingerprint).toBe(late[0]!.fingerprint);
    expect(at('2026-06-01T13:00:00Z')).toEqual([]);
  });

  it.each([
    ['2026-06-01T12:00:30Z', '1 min'],
    ['2026-06-01T13:29:00Z', '89 min'],
    ['2026-06-01T14:00:00Z', '2 h'],
    ['2026-06-03T12:00:00Z', '2 days'],
    ['2026-06-01T12:00:00Z', null],
    ['never', null],
  ])('is told in words: until %s', (from, words) => {
    expect(timeLeft(from, '2026-06-01T12:00:00Z')).toBe(words);
  });
});

describe('the board, with what the networks say', () => {
  const cells = (inventories: Parameters<typeof makeBoard>[3]['inventories']) => {
    const board = makeBoard('kelp', title, profiles, {
      readings: [],
      inventories,
      now: '2026-06-01T12:00:00Z',
    });
    const row = board.rows.find(({ placement: name }) => name === 'footer')!;
    const production = row.cells.find(
      ({ platform, stage }) => platform === 'android' && stage === 'production',
    )!;
    return {
      good: board.good,
      record: production.record,
      word: cellState(production).word,
      left: production.left,
    };
  };
  it.each([
    ['nothing', [], { record: 'set', word: 'set, unread', left: null }],
    ['that all is well', [heron({ units: right })], { record: 'set', word: 'set, unread', left: null }],
    [
      'that it is gone',
      [heron({ units: [rightIos!] })],
      { record: 'unknown-to-partner', word: 'unknown to the network', left: null },
    ],
    ['that it is new', changed({ servesFrom: '2026-06-01T14:00:00Z' }), { record: 'too-new', left: '2 h' }],
  ])('%s', (_, inventories, expected) => {
    expect(cells(inventories)).toMatchObject({ good: false, ...expected });
  });

  it('shows an app that the network does not know', () => {
    const board = makeBoard('kelp', title, profiles, {
      readings: [],
      inventories: [heron({ apps: [kelpApps[1]!], units: right })],
      now: '2026-06-01T12:00:00Z',
    });
    const row = board.rows.find(({ placement: name }) => name === null)!;
    expect(row.cells.map(({ platform, stage, record }) => [platform, stage, record])).toEqual([
      ['android', 'test', 'sample'],
      ['android', 'production', 'unknown-to-partner'],
      ['ios', 'test', 'sample'],
      ['ios', 'production', 'set'],
    ]);
  });
});
