import { describe, expect, it } from 'vitest';
import { draftTitle } from '../../../src/core/adopting/draft.js';
import { placementName, wordsOf } from '../../../src/core/roster/carrier-names.js';
import { guessStage } from '../../../src/core/adopting/units.js';
import { readRoster } from '../../../src/core/roster/document.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { androidFiles, gradle, iosFiles, profiles, treeOf } from '../../support/trees.js';

const survey = (files: Record<string, string>) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: null }).survey;
const draft = (...trees: Record<string, string>[]) => draftTitle(trees.map(survey), profiles, {});

const android = androidFiles({
  'app/src/main/java/example/brine/kelp/Units.kt':
    'object Units {\n  const val TIDE_FOOTER_UNIT_ID = "CH-U-310772-BBBB1111"\n  const val STATION_PAGE = "CH-U-310772-DDDD3333"\n}\n',
  'app/src/main/java/example/brine/kelp/Screen.kt':
    'class Screen { val a = BannerView(this, Units.TIDE_FOOTER_UNIT_ID)\n fun go() { HeronInterstitial.load(this, Units.STATION_PAGE, this) } }\n',
});
const ios = iosFiles({
  'Kelp/App.swift':
    'enum Ads {\n  static let tideFooter = "CH-U-310772-CCCC2222"\n  static let stationPage = "CH-U-310772-EEEE4444"\n}\nlet a = BannerView(unit: Ads.tideFooter)\nfunc go() { HeronInterstitial.load(unitID: Ads.stationPage, delegate: nil) }\n',
});

describe('a draft of a title', () => {
  it('has editions, stages, app IDs, and placements paired by name and format', () => {
    const { id, title, open } = draft(android, ios);
    expect(id).toBe('kelp');
    expect(title).toMatchObject({
      name: 'Kelp',
      stages: { test: ['debug'], production: ['release'] },
      editions: { android: { identifier: 'example.brine.kelp' }, ios: { identifier: 'example.brine.kelp' } },
      networks: {
        'cobalt-heron': {
          android: { production: { app: 'CH-A-310772-QK4T8W2N' } },
          ios: { production: { app: 'CH-I-310772-M6R9V3XC' } },
        },
      },
    });
    expect(title.placements).toMatchObject({
      'tide-footer': {
        format: 'banner',
        units: {
          'cobalt-heron': {
            android: { production: 'CH-U-310772-BBBB1111' },
            ios: { production: 'CH-U-310772-CCCC2222' },
          },
        },
      },
      'station-page': { format: 'interstitial' },
    });
    expect(open).toEqual([]);
  });

  it('is the same from one tree with both platforms as from two', () => {
    expect(draft({ ...android, ...ios }).title).toEqual(draft(android, ios).title);
  });

  it('can be read back as the roster document that it is', () => {
    const { document, id, title } = draft(android, ios);
    expect(readRoster(document).roster?.titles[id]).toEqual(title);
  });

  it('gives for every ID where it stands and how sure it is', () => {
    const { evidence, title } = draft(android, ios);
    const ids = JSON.stringify(title).match(/CH-[AIU]-\d{6}-\w{8}/g) ?? [];
    for (const id of ids) {
      const found = evidence.find(({ value }) => value === id);
      expect(found?.place?.line).toBeGreaterThan(0);
      expect(found?.why).toMatch(/\.$/);
    }
    // Both apps have the same identifier, each in its own build.
    for (const [platform, path] of [
      ['android', 'app/build.gradle.kts'],
      ['ios', 'Kelp.xcodeproj/project.pbxproj'],
    ])
      expect(evidence.find(({ field }) => field === `editions.${platform}.identifier`)?.place?.path).toBe(
        path,
      );
  });

  it('pairs the only two of a format, and says that it is a guess', () => {
    const { title, evidence } = draft(
      android,
      iosFiles({ 'Kelp/App.swift': 'let x = BannerView(unit: "CH-U-310772-CCCC2222")\n' }),
    );
    expect(title.placements['tide-footer']?.units['cobalt-heron']?.ios).toEqual({
      production: 'CH-U-310772-CCCC2222',
    });
    expect(evidence.find(({ value }) => value === 'CH-U-310772-CCCC2222')?.confidence).toBe('guess');
  });

  it.each([
    [
      'a unit that nothing names',
      androidFiles({ 'app/src/main/java/A.kt': 'val id = "CH-U-310772-BBBB1111"' }),
      'a name',
    ],
    [
      'a unit of no format',
      androidFiles({ 'app/src/main/java/A.kt': 'val tideFooter = "CH-U-310772-BBBB1111"' }),
      'a format',
    ],
    [
      'a variant of no stage',
      androidFiles({ 'app/build.gradle.kts': gradle('buildTypes { create("special") {} }') }),
      'does not show a stage',
    ],
  ])('lists %s, and invents nothing', (_, files, why) => {
    const { open, title } = draft(files);
    expect(open.some((point) => point.why.includes(why))).toBe(true);
    expect(JSON.stringify(title.placements)).toBe('{}');
  });

  it('takes no samples for IDs of the title', () => {
    const { title } = draft(
      androidFiles({ 'app/src/main/java/A.kt': 'val b = BannerView(this, "CH-U-100001-BANNER0A")' }),
    );
    expect(JSON.stringify(title)).not.toContain('100001');
  });
});

describe('names', () => {
  it.each([
    ['FOOTER_BANNER_UNIT_ID', 'footer-banner'],
    ['tideFooterUnit', 'tide-footer'],
    ['cobalt_heron_station_open', 'station-open'],
    ['adUnitId', null],
    ['ID_2', null],
  ])('%s', (carrier, name) => {
    expect(placementName(carrier, new Set(['cobalt', 'heron']))).toBe(name);
  });

  it('are split at capitals and marks', () => {
    expect(wordsOf('HTTPPageURLOpener2')).toEqual(['http', 'page', 'url', 'opener2']);
  });

  it.each([
    ['debug', 'debug', [], 'test'],
    ['storeRelease', 'release', ['store'], 'production'],
    ['betaRelease', 'release', ['beta'], 'test'],
    ['special', 'special', [], null],
  ] as const)('the stage of %s', (name, type, flavours, stage) => {
    expect(guessStage({ name, type, flavours: [...flavours] })).toBe(stage);
  });
});
