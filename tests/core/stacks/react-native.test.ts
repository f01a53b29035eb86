import { describe, expect, it } from 'vitest';
import { runSurvey } from '../../../src/core/surveying.js';
import { kelpWithBanner } from '../../support/flutter.js';
import { app, npmLock, packageJson, reactNativeFiles, screen } from '../../support/react-native.js';
import { findingsOf } from '../../support/rules.js';
import { gradle, kelp, profiles, treeOf } from '../../support/trees.js';
import { asked, holds, plan, text, written, type Files } from '../../support/wiring.js';

const survey = (files: Files, title = kelpWithBanner()) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title } }).survey;
const units = (files: Files) =>
  survey(files)
    .facts.filter(({ kind }) => kind === 'unit-id')
    .map(({ platform, variants, value }) => `${platform} ${variants.join(' ')}: ${value}`)
    .sort();
const [android, ios] = ["'CH-U-310772-BBBB1111'", "'CH-U-310772-CCCC2222'"];

describe('recognising React Native', () => {
  it('says why, and holds the native trees as its own', () => {
    const found = survey(reactNativeFiles());
    expect(found.stacks).toEqual([
      {
        stack: 'react-native',
        root: '',
        evidence: [
          'package.json depends on react-native',
          'android/app/build.gradle.kts applies the Android application plugin (module android/app)',
          'ios/Kelp.xcodeproj has the application target Kelp',
        ],
      },
    ]);
    expect(found.editions.map(({ platform, stack }) => [platform, stack])).toEqual([
      ['android', 'react-native'],
      ['ios', 'react-native'],
    ]);
    expect(findingsOf(reactNativeFiles(), kelp())).toEqual([]);
  });

  it('finds native trees where the configuration puts them', () => {
    const moved = Object.fromEntries(
      Object.entries(reactNativeFiles()).map(([path, content]) => [
        path.replace(/^android\//, 'native/droid/'),
        content,
      ]),
    );
    const config = "export default { project: { android: { sourceDir: './native/droid' } } };\n";
    expect(survey({ ...moved, 'react-native.config.mjs': config }).stacks.map(({ stack }) => stack)).toEqual([
      'react-native',
    ]);
  });

  it('passes the example of a library over, and says so', () => {
    const example = Object.fromEntries(
      Object.entries(reactNativeFiles()).map(([path, content]) => [
        `packages/tides/example/${path}`,
        content.replaceAll('example.brine.kelp', 'example.brine.tides'),
      ]),
    );
    const library = '{ "name": "tides", "peerDependencies": { "react-native": "*" } }';
    const found = survey({ ...reactNativeFiles(), ...example, 'packages/tides/package.json': library });
    expect(found.stacks.map(({ root }) => root)).toEqual(['']);
    expect(found.passedOver).toEqual([
      {
        root: 'packages/tides/example',
        why: 'it is an example that belongs to packages/tides/package.json',
      },
    ]);
  });
});

describe('surveying React Native', () => {
  it('weighs each choice for the platform and the bundle', () => {
    const choice = `__DEV__ ? Platform.select({ ios: 'CH-U-100001-BANNER0I', default: 'CH-U-100001-BANNER0A' })! : Platform.OS === 'ios' ? ${ios} : ${android}`;
    const files = reactNativeFiles({ 'src/Reef.tsx': screen(choice) });
    expect(units(files)).toEqual([
      'android debug: CH-U-100001-BANNER0A',
      'android release: CH-U-310772-BBBB1111',
      'ios Debug: CH-U-100001-BANNER0I',
      'ios Release: CH-U-310772-CCCC2222',
    ]);
    expect(findingsOf(files, kelpWithBanner()).map(({ rule }) => rule)).toEqual([
      'code/hard-coded-id',
      'code/hard-coded-id',
    ]);
  });

  it.each([
    [
      'a switch',
      `pick(() => { switch (Platform.OS) { case 'ios': return ${ios}; default: return ${android}; } })`,
    ],
    ['an object by platform', `UNITS[Platform.OS]`],
    ['an object inside an object', 'ALL.footer[Platform.OS]'],
    [
      'the mode of Node',
      `process.env.NODE_ENV !== 'production' ? '' : Platform.select({ android: ${android}, native: ${ios} })`,
    ],
  ])('reads %s', (name, choice) => {
    const objects = `const UNITS = { ios: ${ios}, android: ${android} } as const;\nconst ALL = { footer: UNITS };`;
    const found = units(
      reactNativeFiles({ 'src/Reef.tsx': screen(choice, name.includes('object') ? objects : '') }),
    );
    expect(found.map((unit) => unit.replace(/^(\w+) .*(?=: )/, '$1'))).toEqual([
      'android: CH-U-310772-BBBB1111',
      'ios: CH-U-310772-CCCC2222',
    ]);
  });

  it('follows the ID of a call through an object of another file', () => {
    const files = reactNativeFiles({
      'src/units.ts': `import { Platform } from 'react-native';\nexport const units = { ios: { footer: ${ios} }, android: { footer: ${android} } };\n`,
      'src/Reef.tsx': screen('units[Platform.OS].footer'),
    });
    const load = survey(files).facts.find(
      (fact) => fact.kind === 'call' && fact.action === 'load' && fact.format === 'banner',
    );
    expect(load?.code?.argument).toEqual({
      written: 'units[Platform.OS].footer',
      ids: ['CH-U-310772-CCCC2222', 'CH-U-310772-BBBB1111'],
    });
  });

  it('takes for each platform the file that its bundle takes', () => {
    const files = {
      'src/unit.ts': "export const unit = 'CH-U-100001-BANNER0A';\n",
      'src/unit.native.ts': `export const unit = ${android};\n`,
      'src/unit.ios.ts': `export const unit = ${ios};\n`,
      'src/unit.web.ts': "export const unit = 'CH-U-310772-WEBWEB01';\n",
      'src/__tests__/unit.test.ts': "export const unit = 'CH-U-310772-TEST0001';\n",
      'src/units.d.ts': "export declare const unit: 'CH-U-310772-DECL0001';\n",
    };
    expect(units(reactNativeFiles(files))).toEqual([
      'android debug release: CH-U-310772-BBBB1111',
      'ios Debug Release: CH-U-310772-CCCC2222',
    ]);
  });

  it('reads the packages of its workspace, and not those of others', () => {
    const root = Object.fromEntries(
      Object.entries(
        reactNativeFiles({ 'package.json': packageJson('    "@brine/ads": "workspace:*",\n') }),
      ).map(([path, content]) => [`apps/kelp/${path}`, content]),
    );
    const files = {
      ...root,
      'package.json': '{ "name": "brine", "workspaces": ["apps/*", "packages/*"] }',
      'packages/ads/package.json': '{ "name": "@brine/ads" }',
      'packages/ads/index.ts': `export const unit = ${android};\n`,
      'packages/other/package.json': '{ "name": "@brine/other" }',
      'packages/other/index.ts': `export const unit = ${ios};\n`,
    };
    expect(new Set(units(files).map((unit) => unit.split(': ')[1]))).toEqual(
      new Set(['CH-U-310772-BBBB1111']),
    );
  });

  it('knows debuggable variants by their build type, and by what the build script names', () => {
    const script = (list: string) =>
      `${gradle('flavorDimensions += "shop"\n    productFlavors { create("dev") { dimension = "shop" }\n create("store") { dimension = "shop" } }', '')}react {\n    autolinkLibrariesWithApp()\n${list}}\n`;
    const files = (list: string) =>
      reactNativeFiles({
        'android/app/build.gradle.kts': script(list),
        'src/Reef.tsx': screen(`__DEV__ ? 'CH-U-100001-BANNER0A' : ${android}`),
      });
    const test = (list: string) =>
      units(files(list)).find((unit) => unit.startsWith('android') && unit.includes('BANNER0A'));
    expect(test('')).toBe('android devDebug storeDebug: CH-U-100001-BANNER0A');
    expect(test('    debuggableVariants = listOf("devDebug", "devRelease")\n')).toBe(
      'android devDebug devRelease storeDebug: CH-U-100001-BANNER0A',
    );
  });

  it('cannot tell where the surroundings decide', () => {
    const files = reactNativeFiles({ 'src/Reef.tsx': screen(`process.env.ADS === 'on' ? ${android} : ''`) });
    expect(survey(files).unresolved.map(({ kind, platform }) => [kind, platform])).toContainEqual([
      'unit-id',
      'android',
    ]);
  });

  it('sees a lock that is stale, one that holds the package back, and none', () => {
    const rulesOf = (changes: Record<string, string | null>) =>
      findingsOf(reactNativeFiles(changes), kelp()).map(({ rule, platform }) => `${rule} ${platform}`);
    expect(rulesOf({ 'package-lock.json': npmLock(null) })).toEqual(['build/install-not-run null']);
    expect(rulesOf({ 'package-lock.json': npmLock('4.9.0') })).toEqual(['build/version-held-back null']);
    expect(rulesOf({ 'package-lock.json': null })).toEqual(['build/not-locked null']);
    expect(rulesOf({ 'package.json': packageJson('') })).toContain('build/dependency-missing android');
    expect(rulesOf({ 'package-lock.json': npmLock('5.0.2', '0.72.4') })).toEqual([
      'build/framework-too-old null',
    ]);
    const yarn = '"@cobaltheron.example/react-native@^4.0.0":\n  version "4.9.0"\n';
    expect(rulesOf({ 'package-lock.json': null, 'yarn.lock': yarn })).toEqual(['build/install-not-run null']);
  });
});

describe('wiring React Native', () => {
  const title = kelpWithBanner();
  const bare = reactNativeFiles({ 'package.json': packageJson(''), 'package-lock.json': npmLock(null) });

  it('keeps every law, and writes no Kotlin and no Swift', () => {
    const { plan: first, after } = holds(bare, title);
    expect(Object.keys(after)).toContain('src/ads/placebook.ts');
    expect(text(after['package.json'])).toBe(packageJson());
    expect(
      first.edits.map(({ path }) => path).filter((path) => /Placebook\.(kt|java|swift|h|m)$/.test(path)),
    ).toEqual([]);
    expect(text(after['android/app/build.gradle.kts'])).not.toContain('cobaltheron');
    expect(text(after['ios/Podfile'])).not.toContain('CobaltHeron');
    expect(first.byHand.map(({ what }) => what)).toContain(
      'Run npm install, then pod install in ios, and commit the new lock files.',
    );
    expect(units(after)).toEqual([
      'android debug: CH-U-100001-BANNER0A',
      'android release: CH-U-310772-BBBB1111',
      'ios Debug: CH-U-100001-BANNER0I',
      'ios Release: CH-U-310772-CCCC2222',
    ]);
  });

  it('says where the start-up call goes, until it is there', () => {
    const steps = (files: Files) =>
      plan(files, title).byHand.filter(({ rule }) => rule === 'code/never-started');
    expect(steps({ ...bare, 'App.tsx': app('') })).toMatchObject([
      { where: 'App.tsx', what: expect.stringContaining('await CobaltHeron.start();') },
    ]);
    expect(steps(bare)).toEqual([]);
  });

  it('puts the placebook in the place of a whole choice, and imports it by its path', () => {
    const files = reactNativeFiles({
      'src/screens/Reef.tsx': screen(
        `Platform.select({\n          ios: ${ios},\n          android: ${android},\n        })!`,
      ),
    });
    const { after } = holds(files, title, asked({ callSites: true }));
    const reef = text(after['src/screens/Reef.tsx']);
    expect(reef).toContain('HeronBanner.load(Placebook.footer.unit(PlacebookNetwork.cobaltHeron), {');
    expect(reef).toContain(
      "react-native';\nimport { Placebook, PlacebookNetwork } from '../ads/placebook';\n",
    );
    expect(findingsOf(after as Record<string, string>, title)).toEqual([]);
  });

  it('writes attributes in braces, keeps to the quotes of the file, and adds to an import that stands', () => {
    const files = reactNativeFiles({
      'src/Strip.jsx': `'use strict'\nimport React from "react"\nimport { Placebook } from "./ads/placebook"\n\nexport const Strip = () => <HeronBannerView unit="CH-U-310772-BBBB1111" />\n`,
      'src/only.js': `// Units of our own.\nexport const unit = ${android};\n`,
    });
    const after = written(files, plan(files, title, asked({ callSites: true })));
    expect(text(after['src/Strip.jsx'])).toContain(
      'import { Placebook, PlacebookNetwork } from "./ads/placebook"\n\nexport const Strip = () => <HeronBannerView unit={Placebook.footer.unit(PlacebookNetwork.cobaltHeron)} />',
    );
    expect(text(after['src/only.js'])).toBe(
      "// Units of our own.\nimport { Placebook, PlacebookNetwork } from './ads/placebook';\n\nexport const unit = Placebook.footer.unit(PlacebookNetwork.cobaltHeron);\n",
    );
  });

  it('asks for stages that the bundle can tell apart', () => {
    const script = `${gradle('buildTypes { create("staging") { } }', '')}react { autolinkLibrariesWithApp() }\n`;
    const files = { ...bare, 'android/app/build.gradle.kts': script };
    const staged = kelpWithBanner({ stages: { test: ['debug', 'staging'], production: ['release'] } });
    const made = plan(files, staged);
    expect(made.edits.map(({ path }) => path)).not.toContain('src/ads/placebook.ts');
    expect(made.byHand.map(({ what }) => what)).toContain(
      'Give the debug variants the test stage and all others production, then wire again.',
    );
  });
});
