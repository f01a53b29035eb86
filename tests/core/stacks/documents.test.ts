import { describe, expect, it } from 'vitest';
import { documentFiles, isDocument } from '../../../src/core/stacks/common/documents.js';
import { runSurvey } from '../../../src/core/surveying.js';
import type { Title } from '../../../src/core/roster/model.js';
import { expoFiles, expoStages } from '../../support/expo.js';
import { flutterFiles, pubspec } from '../../support/flutter.js';
import { mauiFiles } from '../../support/maui.js';
import { reactNativeFiles } from '../../support/react-native.js';
import { findingsOf } from '../../support/rules.js';
import {
  androidFiles,
  iosFiles,
  kelp,
  placement,
  profiles,
  treeOf,
  withResource,
} from '../../support/trees.js';
import { unityFiles } from '../../support/unity.js';

const [android, ios, other] = ['CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222', 'CH-U-310772-DDDD3333'];
const placements = { footer: placement('banner', android, ios) } as Title['placements'];
const stages = { test: ['debug', 'Debug', 'development'], production: ['release', 'Release'] };
const title = kelp({ placements, stages });

type Files = Record<string, string>;

function units(files: Files, named = title) {
  const { survey } = runSurvey(treeOf(files), {
    name: 'kelp',
    profiles,
    title: { id: 'kelp', title: named },
  });
  const rows = (all: typeof survey.facts | typeof survey.unresolved) =>
    all
      .filter(({ kind }) => kind === 'unit-id')
      .map(({ platform, value, place }) => `${platform} ${value} ${place.path}:${place.line}`);
  return { facts: rows(survey.facts), open: rows(survey.unresolved), survey };
}

const both = `{\n  "android": "${android}",\n  "ios": "${ios}"\n}\n`;
const xcode = (file: string) => ({
  'Kelp.xcodeproj/project.pbxproj': withResource(iosFiles()['Kelp.xcodeproj/project.pbxproj'] ?? '', file),
});
const asset = `%YAML 1.1\n--- !u!114 &1\nMonoBehaviour:\n  footer: ${android}\n  footerIos: ${ios}\n`;

describe('unit IDs in documents that a build packs', () => {
  it.each([
    [
      'Android assets',
      { ...androidFiles(), 'app/src/main/assets/ads/units.json': `{"footer": "${android}"}` },
      [`android ${android} app/src/main/assets/ads/units.json:1`],
    ],
    [
      'Android raw resources',
      {
        ...androidFiles(),
        'app/src/main/res/raw/units.xml': `<units>\n<!-- ${other} -->\n<footer>${android}</footer></units>`,
      },
      [`android ${android} app/src/main/res/raw/units.xml:3`],
    ],
    [
      'strings of iOS',
      {
        ...iosFiles(xcode('Ads.strings')),
        'Kelp/Ads.strings': `/* old:\n   ${other} */\n"footer" = "${ios}";\n`,
      },
      [`ios ${ios} Kelp/Ads.strings:3`],
    ],
    [
      'a property list of iOS',
      {
        ...iosFiles(xcode('Ads.plist')),
        'Kelp/Ads.plist': `<plist><dict>\n<key>footer</key><string>${ios}</string></dict></plist>`,
      },
      [`ios ${ios} Kelp/Ads.plist:2`],
    ],
    [
      'the property list itself',
      iosFiles({
        'Kelp/Info.plist': (iosFiles()['Kelp/Info.plist'] ?? '').replace(
          '</dict>\n</plist>',
          `\t<key>Footer</key>\n\t<string>${ios}</string>\n</dict>\n</plist>`,
        ),
      }),
      [`ios ${ios} Kelp/Info.plist:26`],
    ],
    [
      'Flutter assets',
      flutterFiles({
        'pubspec.yaml': `${pubspec()}\nflutter:\n  assets:\n    - assets/units.json\n`,
        'assets/units.json': both,
      }),
      [`android ${android} assets/units.json:2`, `ios ${ios} assets/units.json:3`],
    ],
    [
      'a folder of Flutter assets',
      flutterFiles({
        'pubspec.yaml': `${pubspec()}\nflutter:\n  assets:\n    - assets/\n`,
        'assets/units.yaml': `# ${other}\nfooter: ${android}\nfooterIos: ${ios}\n`,
      }),
      [`android ${android} assets/units.yaml:2`, `ios ${ios} assets/units.yaml:3`],
    ],
    [
      'JSON that JavaScript imports',
      reactNativeFiles({
        'src/units.json': both,
        'src/units.ts': "import units from './units.json';\nexport const footer = units;\n",
      }),
      [`android ${android} src/units.json:2`, `ios ${ios} src/units.json:3`],
    ],
    [
      'resources of Unity',
      unityFiles({ 'Assets/Resources/Units.asset': asset }),
      [`android ${android} Assets/Resources/Units.asset:4`, `ios ${ios} Assets/Resources/Units.asset:5`],
    ],
    [
      'raw resources of MAUI',
      mauiFiles({ 'Resources/Raw/units.json': both }),
      [`android ${android} Resources/Raw/units.json:2`, `ios ${ios} Resources/Raw/units.json:3`],
    ],
  ] as [string, Files, string[]][])('%s', (_, files, expected) => {
    const { facts, open } = units(files);
    expect(facts).toEqual(expected);
    expect(open).toEqual([]);
  });

  it('the section extra of an Expo configuration', () => {
    const config = JSON.parse(expoFiles()['app.json'] ?? '{}') as { expo: object };
    const files = expoFiles({
      'app.config.ts': null,
      'app.json': JSON.stringify({ expo: { ...config.expo, extra: { units: { android, ios } } } }, null, 2),
    });
    const found = units(files, kelp({ placements, stages: expoStages }));
    expect(found.facts.map((row) => row.replace(/:\d+$/, ''))).toEqual([
      `android ${android} app.json`,
      `ios ${ios} app.json`,
    ]);
  });

  it('are not looked for elsewhere', () => {
    const files = {
      ...androidFiles({ 'docs/units.json': both, 'app/src/test/resources/units.json': both }),
      ...iosFiles({ 'Kelp/units.json': both }),
    };
    expect(units(files).facts).toEqual([]);
  });

  it.each([
    ['JSON that nothing imports', reactNativeFiles({ 'src/units.json': both })],
    [
      'environment variables',
      reactNativeFiles({ '.env': `FOOTER_ANDROID=${android}\nFOOTER_IOS="${ios}"\n` }),
    ],
    ['an asset that something may refer to', unityFiles({ 'Assets/Data/Units.asset': asset })],
    ['settings of MAUI', mauiFiles({ 'appsettings.json': both })],
  ] as [string, Files][])('are left open in %s', (_, files) => {
    const { facts, open } = units(files);
    expect(facts).toEqual([]);
    expect(open.map((row) => row.split(' ').slice(0, 2).join(' '))).toEqual([
      `android ${android}`,
      `ios ${ios}`,
    ]);
  });

  it('are left open where one document holds both stages', () => {
    const text = `{"debug": "CH-U-100001-BANNER0A", "release": "${android}"}`;
    const { facts, open } = units({ ...androidFiles(), 'app/src/main/assets/units.json': text });
    expect(facts).toEqual([]);
    expect(open).toHaveLength(2);
  });
});

describe('what rules make of them', () => {
  const rules = (files: Files) =>
    findingsOf(files, title)
      .filter(({ rule, network }) => network === 'cobalt-heron' && /^(unit-id|stage)\//.test(rule))
      .map(({ rule, variants, place }) => [rule, variants.join(' '), place?.path]);

  it('a unit in an asset is in the build', () => {
    const own = (set: string, id: string) => ({
      [`app/src/${set}/assets/units.json`]: `{"footer": "${id}"}`,
    });
    const files = { ...androidFiles(), ...own('debug', 'CH-U-100001-BANNER0A'), ...own('release', android) };
    expect(rules(files)).toEqual([]);
    expect(rules(androidFiles()).map(([rule]) => rule)).toEqual(['unit-id/not-in-build']);
  });

  it('a production ID in a document of a test build is a finding', () => {
    const files = { ...androidFiles(), 'app/src/main/assets/units.json': `{"footer": "${android}"}` };
    expect(rules(files)).toContainEqual([
      'stage/production-id-in-test',
      'debug',
      'app/src/main/assets/units.json',
    ]);
  });
});

describe('documents', () => {
  it.each([
    'package.json',
    'a/app.json',
    'tsconfig.base.json',
    'pubspec.yaml',
    'package-lock.json',
    'pnpm-lock.yaml',
  ])('%s is none', (path) => expect(isDocument(path)).toBe(false));

  it('are collected only when they hold an ID', () => {
    expect(documentFiles.every(({ needle }) => needle)).toBe(true);
  });
});
