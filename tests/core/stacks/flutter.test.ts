import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addPubDependency,
  removePubDependency,
  setPubVersion,
} from '../../../src/core/formats/pubspec/edit.js';
import { readPubspec } from '../../../src/core/formats/pubspec/read.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { stageCondition } from '../../../src/core/stacks/flutter/wire/placebook.js';
import type { SurveyEdition } from '../../../src/core/facts/model.js';
import { applyEdits } from '../../../src/core/text/edit.js';
import { flutterFiles, kelpWithBanner, lock, main, pubspec, screen } from '../../support/flutter.js';
import { findingsOf } from '../../support/rules.js';
import { androidFiles, gradle, kelp, manifest, profiles, treeOf } from '../../support/trees.js';
import { asked, holds, plan, text, written, type Files } from '../../support/wiring.js';

const survey = (files: Files, title = kelpWithBanner()) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title } }).survey;

describe('the pubspec', () => {
  const shapes: [string, string][] = [
    ['plain', pubspec('  intl: any\n')],
    ['CRLF', pubspec('  intl: any\n').replace(/\n/g, '\r\n')],
    ['no final newline', pubspec('  intl: ^1.0.0').trimEnd()],
    ['a comment behind the last entry', pubspec('  intl: any # of the SDK\n\n# end\n')],
    [
      'wide indentation',
      'name: a\ndependencies:\n    flutter:\n        sdk: flutter\ndev_dependencies:\n    x: any\n',
    ],
    ['an empty block', 'name: a\ndependencies:\n\nflutter:\n  uses-material-design: true\n'],
    ['no block', 'name: a\n'],
    ['an empty file', ''],
  ];
  it.each(shapes)('takes a package in and gives it back: %s', (_, before) => {
    const lineEnd = before.includes('\r\n') ? '\r\n' : '\n';
    const edits = addPubDependency(before, readPubspec(before), {
      name: 'kelp_ads',
      range: '^2.0.0',
      lineEnd,
    });
    const after = applyEdits(before, edits);
    const entry = readPubspec(after).dependencies.find(({ name }) => name === 'kelp_ads');
    expect(entry).toMatchObject({ section: 'dependencies', version: '^2.0.0', from: 'hosted' });
    expect(after.length).toBeGreaterThan(before.length);
    const others = ({ name }: { name: string }) => name !== 'kelp_ads';
    const names = (text: string) =>
      readPubspec(text)
        .dependencies.filter(others)
        .map(({ name }) => name);
    expect(names(after)).toEqual(names(before));
    if (!entry || !before.includes('dependencies')) return;
    expect(applyEdits(after, [removePubDependency(after, entry)])).toBe(
      before.endsWith('\n') ? before : `${before}${lineEnd}`,
    );
  });

  it('changes a version and nothing else', () => {
    const before = pubspec('  cobalt_heron_ads: "^3.0.0" # held\n  other:\n');
    const [first, second] = readPubspec(before).dependencies.filter(({ from }) => from === 'hosted');
    if (!first || !second) throw new Error('The packages were not read.');
    expect(applyEdits(before, setPubVersion(first, '^4.1.0'))).toBe(before.replace('"^3.0.0"', '^4.1.0'));
    expect(applyEdits(before, setPubVersion(second, '^1.0.0'))).toBe(
      before.replace('other:', 'other: ^1.0.0'),
    );
  });

  it('never throws, whatever stands in it', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom(...Array.from('a:- \n{}[]#&*!|>\'"%@`,?\t0')) }),
        (given) => {
          const read = readPubspec(given);
          const edits = addPubDependency(given, read, { name: 'kelp_ads', range: '^1.0.0', lineEnd: '\n' });
          applyEdits(given, edits);
        },
      ),
      { numRuns: 500 },
    );
    expect(readPubspec(`a: &a [${'*a,'.repeat(3)}]\n`).dependencies).toEqual([]);
  });
});

describe('recognising Flutter', () => {
  it('says why, and holds the native trees as its own', () => {
    const found = survey(flutterFiles());
    expect(found.stacks).toEqual([
      {
        stack: 'flutter',
        root: '',
        evidence: [
          'pubspec.yaml depends on the Flutter SDK',
          'android/app/build.gradle.kts applies the Android application plugin (module android/app)',
          'ios/Kelp.xcodeproj has the application target Kelp',
        ],
      },
    ]);
    expect(found.editions.map(({ platform, stack }) => [platform, stack])).toEqual([
      ['android', 'flutter'],
      ['ios', 'flutter'],
    ]);
  });

  it('tells several applications below one root apart, and each title finds its own', () => {
    const reefIds = (files: Record<string, string>) =>
      Object.fromEntries(
        Object.entries(files).map(([path, content]) => [
          `apps/reef/${path}`,
          content.replaceAll('example.brine.kelp', 'example.brine.reef'),
        ]),
      );
    const kelpFiles = Object.fromEntries(
      Object.entries(flutterFiles()).map(([path, content]) => [`apps/kelp/${path}`, content]),
    );
    const native = Object.fromEntries(
      Object.entries(androidFiles()).map(([path, content]) => [
        `old/${path}`,
        content.replaceAll('example.brine.kelp', 'example.brine.old'),
      ]),
    );
    const files = { ...kelpFiles, ...reefIds(flutterFiles()), ...native };
    const found = survey(files);
    expect(found.stacks.map(({ stack, root }) => [stack, root])).toEqual([
      ['flutter', 'apps/kelp'],
      ['flutter', 'apps/reef'],
      ['native-android', 'old'],
    ]);
    expect(new Set(found.editions.map(({ platform, module }) => `${platform} ${module}`)).size).toBe(5);
    expect(
      findingsOf(files, kelpWithBanner()).filter(({ place }) => !place?.path.startsWith('apps/kelp/')),
    ).toEqual([]);
    const { edits } = plan(files, kelpWithBanner());
    expect(edits.length).toBeGreaterThan(0);
    for (const { path } of edits) expect(path).toMatch(/^apps\/kelp\//);
  });

  it('passes a package’s own example over, and a plugin, and says so', () => {
    const example = Object.fromEntries(
      Object.entries(flutterFiles()).map(([path, content]) => [
        `packages/tides/example/${path}`,
        content.replaceAll('example.brine.kelp', 'example.brine.tides'),
      ]),
    );
    const files = {
      ...flutterFiles(),
      ...example,
      'packages/tides/pubspec.yaml':
        'name: tides\ndependencies:\n  flutter:\n    sdk: flutter\nflutter:\n  plugin: {}\n',
    };
    const found = survey(files);
    expect(found.stacks.map(({ root }) => root)).toEqual(['']);
    expect(found.passedOver).toEqual([
      {
        root: 'packages/tides/example',
        why: 'it is an example that belongs to packages/tides/pubspec.yaml',
      },
    ]);
    expect(found.editions).toHaveLength(2);
  });

  it('leaves a Dart package without Flutter, and native trees without a pubspec, to others', () => {
    expect(
      survey({ ...androidFiles(), 'pubspec.yaml': 'name: tool\n' }).stacks.map(({ stack }) => stack),
    ).toEqual(['native-android']);
  });
});

describe('surveying Flutter', () => {
  it.each([
    ['the plugin', 'plugins {\n    id("dev.flutter.flutter-gradle-plugin")', ''],
    [
      'the script that it was before',
      'plugins {',
      'apply(from = "$flutterRoot/packages/flutter_tools/gradle/flutter.gradle")\n',
    ],
  ])('has the build type that %s adds, with the strings that its manifest needs', (_, plugins, more) => {
    const script = gradle('', '').replace('plugins {', plugins) + more;
    const files = flutterFiles({
      'android/app/build.gradle.kts': script,
      'android/app/src/main/AndroidManifest.xml': manifest(''),
    });
    const { editions, unresolved } = survey(files);
    expect(editions[0]?.variants.map(({ name }) => name)).toEqual(['debug', 'release', 'profile']);
    expect(unresolved).toEqual([]);
    const title = kelpWithBanner({ stages: { test: ['debug', 'profile'], production: ['release'] } });
    const { facts } = survey(written(files, plan(files, title)));
    const ids = facts.filter(({ kind, platform }) => kind === 'app-id' && platform === 'android');
    expect(ids.map(({ variants, value }) => `${variants.join('+')} ${value}`).sort()).toEqual([
      'debug CH-A-100001-SAMPLE0A',
      'profile CH-A-100001-SAMPLE0A',
      'release CH-A-310772-QK4T8W2N',
    ]);
  });

  it('weighs each choice for the platform and the mode that is built', () => {
    const unit =
      "kReleaseMode ? (Platform.isIOS ? 'CH-U-310772-CCCC2222' : 'CH-U-310772-BBBB1111') : Platform.isIOS ? 'CH-U-100001-BANNER0I' : 'CH-U-100001-BANNER0A'";
    const { facts, unresolved } = survey(flutterFiles({ 'lib/reef.dart': screen(unit) }));
    const units = facts.filter(({ kind }) => kind === 'unit-id');
    expect(units.map(({ platform, variants, value }) => [platform, variants, value]).sort()).toEqual([
      ['android', ['debug'], 'CH-U-100001-BANNER0A'],
      ['android', ['release'], 'CH-U-310772-BBBB1111'],
      ['ios', ['Debug'], 'CH-U-100001-BANNER0I'],
      ['ios', ['Release'], 'CH-U-310772-CCCC2222'],
    ]);
    expect(unresolved.filter(({ kind }) => kind === 'unit-id')).toEqual([]);
    expect(
      findingsOf(flutterFiles({ 'lib/reef.dart': screen(unit) }), kelpWithBanner()).map(({ rule }) => rule),
    ).toEqual(['code/hard-coded-id', 'code/hard-coded-id']);
  });

  it('cannot tell where the build is asked for something that only it knows', () => {
    const unit = "const bool.fromEnvironment('ADS') ? 'CH-U-310772-BBBB1111' : ''";
    const { unresolved } = survey(flutterFiles({ 'lib/reef.dart': screen(unit) }));
    expect(unresolved.map(({ kind, platform, reason }) => [kind, platform, reason])).toContainEqual([
      'unit-id',
      'android',
      'the code around it depends on a condition that reading cannot decide',
    ]);
  });

  it('takes what is asked at run time for no hindrance', () => {
    const files = flutterFiles({
      'lib/reef.dart': screen("'CH-U-310772-BBBB1111'").replace(
        '    _load();',
        '    if (mounted && !kIsWeb) _load();',
      ),
    });
    expect(survey(files).facts.filter(({ kind }) => kind === 'unit-id')).toHaveLength(2);
  });

  it('sees a lock that is stale, one that holds the package back, and none', () => {
    const rulesOf = (changes: Record<string, string | null>) =>
      findingsOf(flutterFiles(changes), kelp()).map(({ rule, platform }) => `${rule} ${platform}`);
    expect(rulesOf({})).toEqual([]);
    expect(rulesOf({ 'pubspec.lock': 'packages: {}\n' })).toEqual(['build/install-not-run null']);
    expect(rulesOf({ 'pubspec.lock': lock('3.9.0') })).toEqual(['build/version-held-back null']);
    expect(rulesOf({ 'pubspec.lock': null })).toEqual(['build/not-locked null']);
    expect(rulesOf({ 'pubspec.yaml': pubspec('') })).toContain('build/dependency-missing android');
    expect(rulesOf({ 'pubspec.yaml': pubspec('  cobalt_heron_ads: ^3.0.0\n') })).toContain(
      'build/dependency-too-old null',
    );
  });
});

describe('wiring Flutter', () => {
  const title = kelpWithBanner();
  const bare = flutterFiles({ 'pubspec.yaml': pubspec('  intl: any\n'), 'pubspec.lock': 'packages: {}\n' });

  it('keeps every law, and writes no Kotlin and no Swift', () => {
    const { plan: first, after } = holds(bare, title);
    expect(Object.keys(after)).toContain('lib/ads/placebook.dart');
    expect(text(after['pubspec.yaml'])).toBe(pubspec('  intl: any\n  cobalt_heron_ads: ^4.1.0\n'));
    expect(
      first.edits.map(({ path }) => path).filter((path) => /Placebook\.(kt|java|swift|h|m)$/.test(path)),
    ).toEqual([]);
    expect(text(after['android/app/build.gradle.kts'])).not.toContain('cobaltheron');
    expect(text(after['ios/Podfile'])).not.toContain('CobaltHeron');
    expect(first.byHand.map(({ what }) => what)).toContain(
      'Run flutter pub get, and commit the new pubspec.lock.',
    );
  });

  it('says where the start-up call goes, until it is there', () => {
    const without = { ...bare, 'lib/main.dart': main('  runApp(const Kelp());\n') };
    const steps = (files: Files) =>
      plan(files, title).byHand.filter(({ rule }) => rule === 'code/never-started');
    expect(steps(without)).toMatchObject([
      { where: 'lib/main.dart', what: expect.stringContaining('await CobaltHeron.start();') },
    ]);
    expect(steps(bare)).toEqual([]);
  });

  it('puts the placebook in the place of a whole choice, and imports it among the packages', () => {
    const files = flutterFiles({
      'lib/reef.dart': screen(
        "Platform.isIOS\n          ? 'CH-U-310772-CCCC2222'\n          : 'CH-U-310772-BBBB1111'",
      ),
    });
    const { after } = holds(files, title, asked({ callSites: true }));
    const reef = text(after['lib/reef.dart']);
    expect(reef).toContain('unitId: Placebook.footer.unit(PlacebookNetwork.cobaltHeron),');
    expect(reef).toContain("flutter/material.dart';\nimport 'package:kelp/ads/placebook.dart';\n");
    expect(findingsOf(after as Record<string, string>, title)).toEqual([]);
  });

  it('makes a constant of an ID a value that is worked out', () => {
    const files = flutterFiles({ 'lib/ids.dart': "const String footer = 'CH-U-310772-BBBB1111';\n" });
    const after = written(files, plan(files, title, asked({ callSites: true })));
    expect(text(after['lib/ids.dart'])).toBe(
      "import 'package:kelp/ads/placebook.dart';\n\nfinal String footer = Placebook.footer.unit(PlacebookNetwork.cobaltHeron);\n",
    );
  });

  it('keeps stages apart by mode, else by flavour, else by both', () => {
    const edition = (variants: [string, string[], 'test' | 'production'][]): SurveyEdition =>
      ({
        platform: 'android',
        variants: variants.map(([type, flavours, stage]) => ({
          name: type,
          type,
          flavours,
          stage,
          stageWhy: '',
        })),
      }) as unknown as SurveyEdition;
    expect(
      stageCondition([
        edition([
          ['debug', [], 'test'],
          ['profile', [], 'test'],
          ['release', [], 'production'],
        ]),
      ]),
    ).toBe('!kReleaseMode');
    expect(
      stageCondition([
        edition([
          ['debug', ['dev'], 'test'],
          ['release', ['dev'], 'test'],
          ['debug', ['shop'], 'production'],
          ['release', ['shop'], 'production'],
        ]),
      ]),
    ).toBe("String.fromEnvironment('FLUTTER_APP_FLAVOR') != 'shop'");
    expect(
      stageCondition([
        edition([
          ['debug', ['dev'], 'test'],
          ['release', ['dev'], 'test'],
          ['debug', ['shop'], 'test'],
          ['release', ['shop'], 'production'],
        ]),
      ]),
    ).toBe("!(kReleaseMode && String.fromEnvironment('FLUTTER_APP_FLAVOR') == 'shop')");
    expect(
      stageCondition([
        edition([
          ['nightly', [], 'test'],
          ['nightly', [], 'production'],
        ]),
      ]),
    ).toBeUndefined();
  });

  it('reads back, for every mode and flavour, what it wrote', () => {
    const script = gradle(
      'flavorDimensions += "shop"\n    productFlavors { create("dev") { dimension = "shop" }\n create("shop") { dimension = "shop" } }',
      '',
    );
    const files = flutterFiles({ 'android/app/build.gradle.kts': script });
    const flavoured = kelpWithBanner({
      stages: { test: ['dev', 'debug', 'devDebug'], production: ['shopRelease', 'Release'] },
    });
    const { facts } = survey(written(files, plan(files, flavoured)), flavoured);
    const units = facts.filter(({ kind, platform }) => kind === 'unit-id' && platform === 'android');
    const of = (value: string) =>
      units
        .filter((fact) => fact.value === value)
        .flatMap(({ variants }) => variants)
        .sort();
    expect(of('CH-U-310772-BBBB1111')).toEqual(['shopRelease']);
    expect(of('CH-U-100001-BANNER0A')).toEqual(['devDebug', 'devRelease', 'shopDebug']);
  });
});
