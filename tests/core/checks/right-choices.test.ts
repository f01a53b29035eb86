import { describe, expect, it } from 'vitest';
import { easJson, expoFiles, expoStages } from '../../support/expo.js';
import { screen as scriptScreen } from '../../support/react-native.js';
import { findingsOf } from '../../support/rules.js';
import { kelp, placement } from '../../support/trees.js';
import { dart, kotlin, maui, script, swift, unity } from '../../support/unit-screens.js';

const footer = placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222');
const title = kelp({
  placements: { footer },
  stages: { test: ['debug', 'development'], production: ['release'] },
});
const staged = kelp({ placements: { footer }, stages: expoStages });
const [pa, pi, ta, ti] = [
  'CH-U-310772-BBBB1111',
  'CH-U-310772-CCCC2222',
  'CH-U-100001-BANNER0A',
  'CH-U-100001-BANNER0I',
];

const ways: [string, Record<string, string>, typeof title?][] = [
  [
    'Dart: constants',
    dart(
      'kDebugMode ? (Platform.isIOS ? _ti : _ta) : (Platform.isIOS ? _pi : _pa)',
      `const _pa = '${pa}';\nconst _pi = '${pi}';\nconst _ta = '${ta}';\nconst _ti = '${ti}';\n`,
    ),
  ],
  [
    'Dart: static fields',
    dart(
      'AdIds.footer',
      `class AdIds {\n  static const _pa = '${pa}';\n  static const _pi = '${pi}';\n  static const _ta = '${ta}';\n  static const _ti = '${ti}';\n  static String get footer {\n    if (kDebugMode) return Platform.isIOS ? _ti : _ta;\n    return Platform.isIOS ? _pi : _pa;\n  }\n}`,
    ),
  ],
  [
    'Dart: maps',
    dart(
      '(kReleaseMode ? production : sample)[Platform.operatingSystem]!',
      `const production = {'android': '${pa}', 'ios': '${pi}'};\nconst sample = {'android': '${ta}', 'ios': '${ti}'};\n`,
    ),
  ],
  [
    'Dart: a map by platform and stage',
    dart(
      "ids[Platform.isIOS ? 'ios' : 'android']![kReleaseMode ? 'prod' : 'test']!",
      `const ids = {\n  'android': {'prod': '${pa}', 'test': '${ta}'},\n  'ios': {'prod': '${pi}', 'test': '${ti}'},\n};\n`,
    ),
  ],
  [
    'Dart: classes',
    dart(
      'ids.footer',
      `abstract class AdIds { String get footer; }\nclass ProdAdIds implements AdIds {\n  @override\n  String get footer => Platform.isIOS ? '${pi}' : '${pa}';\n}\nclass SampleAdIds implements AdIds {\n  @override\n  String get footer => Platform.isIOS ? '${ti}' : '${ta}';\n}\nfinal AdIds ids = kReleaseMode ? ProdAdIds() : SampleAdIds();`,
    ),
  ],
  [
    'Dart: classes by entry point',
    dart('ids.footer', `import 'ids.dart';`, {
      'lib/ids.dart': `import 'dart:io';\nabstract class AdIds { String get footer; }\nlate AdIds ids;\nclass ProdAdIds implements AdIds {\n  @override\n  String get footer => Platform.isIOS ? '${pi}' : '${pa}';\n}\nclass SampleAdIds implements AdIds {\n  @override\n  String get footer => Platform.isIOS ? '${ti}' : '${ta}';\n}\n`,
      'lib/main_prod.dart': `import 'ids.dart';\nvoid main() { ids = ProdAdIds(); }\n`,
      'lib/main_dev.dart': `import 'ids.dart';\nvoid main() { ids = SampleAdIds(); }\n`,
    }),
  ],
  [
    'Dart: a record',
    dart(
      'ids.footer',
      `final ids = kReleaseMode ? (footer: Platform.isIOS ? '${pi}' : '${pa}') : (footer: Platform.isIOS ? '${ti}' : '${ta}');`,
    ),
  ],
  [
    'Dart: switch',
    dart(
      'unit()',
      `String unit() => switch (defaultTargetPlatform) {\n  TargetPlatform.iOS => kReleaseMode ? '${pi}' : '${ti}',\n  _ => kReleaseMode ? '${pa}' : '${ta}',\n};`,
    ),
  ],
  [
    'Dart: from the environment',
    dart(
      'unit',
      `const stage = String.fromEnvironment('STAGE', defaultValue: 'test');\nfinal unit = stage == 'prod' ? (Platform.isIOS ? '${pi}' : '${pa}') : (Platform.isIOS ? '${ti}' : '${ta}');`,
    ),
  ],
  [
    'TypeScript: constants',
    script(
      'unit',
      `const PROD = Platform.select({ ios: '${pi}', android: '${pa}' })!;\nconst TEST = Platform.select({ ios: '${ti}', android: '${ta}' })!;\nconst unit = __DEV__ ? TEST : PROD;`,
    ),
  ],
  [
    'TypeScript: an object by platform',
    script(
      'ids[Platform.OS]',
      `const production: Record<string, string> = { ios: '${pi}', android: '${pa}' };\nconst test: Record<string, string> = { ios: '${ti}', android: '${ta}' };\nconst ids = __DEV__ ? test : production;`,
    ),
  ],
  [
    'TypeScript: nested',
    script(
      "ids[__DEV__ ? 'test' : 'production'][Platform.OS as 'ios' | 'android']",
      `const ids = {\n  production: { ios: '${pi}', android: '${pa}' },\n  test: { ios: '${ti}', android: '${ta}' },\n};`,
    ),
  ],
  [
    'TypeScript: nested by name',
    script(
      'ids[stage].footer[Platform.OS]',
      `const stage = __DEV__ ? 'test' : 'production';\nconst ids = {\n  production: { footer: { ios: '${pi}', android: '${pa}' } },\n  test: { footer: { ios: '${ti}', android: '${ta}' } },\n};`,
    ),
  ],
  [
    'TypeScript: a function',
    script(
      'unit()',
      `function unit(): string {\n  if (__DEV__) {\n    return Platform.OS === 'ios' ? '${ti}' : '${ta}';\n  }\n  return Platform.OS === 'ios' ? '${pi}' : '${pa}';\n}`,
    ),
  ],
  [
    'TypeScript: classes',
    script(
      'ids.footer',
      `interface AdIds { footer: string }\nclass ProdAdIds implements AdIds { footer = Platform.OS === 'ios' ? '${pi}' : '${pa}'; }\nclass SampleAdIds implements AdIds { footer = Platform.OS === 'ios' ? '${ti}' : '${ta}'; }\nconst ids: AdIds = __DEV__ ? new SampleAdIds() : new ProdAdIds();`,
    ),
  ],
  [
    'TypeScript: files by platform',
    script('footer', "import { footer } from './ids';", {
      'src/ids.ios.ts': `export const footer = __DEV__ ? '${ti}' : '${pi}';\n`,
      'src/ids.android.ts': `export const footer = __DEV__ ? '${ta}' : '${pa}';\n`,
    }),
  ],
  [
    'TypeScript: an environment variable',
    script(
      'unit',
      `const isTest = process.env.STAGE !== 'production';\nconst unit = Platform.select({ ios: isTest ? '${ti}' : '${pi}', android: isTest ? '${ta}' : '${pa}' })!;`,
    ),
  ],
  [
    'C#: constants',
    maui(
      'Unit',
      `#if ANDROID\n#if DEBUG\nprivate const string Unit = "${ta}";\n#else\nprivate const string Unit = "${pa}";\n#endif\n#else\n#if DEBUG\nprivate const string Unit = "${ti}";\n#else\nprivate const string Unit = "${pi}";\n#endif\n#endif`,
    ),
  ],
  [
    'C#: DeviceInfo',
    maui(
      'Unit',
      `private static bool IsApple => DeviceInfo.Platform == DevicePlatform.iOS;\n#if DEBUG\nprivate static string Unit => IsApple ? "${ti}" : "${ta}";\n#else\nprivate static string Unit => IsApple ? "${pi}" : "${pa}";\n#endif`,
    ),
  ],
  [
    'C#: a dictionary',
    maui(
      'Ids[DeviceInfo.Platform]',
      `#if DEBUG\nprivate static readonly Dictionary<DevicePlatform, string> Ids = new() { [DevicePlatform.Android] = "${ta}", [DevicePlatform.iOS] = "${ti}" };\n#else\nprivate static readonly Dictionary<DevicePlatform, string> Ids = new() { [DevicePlatform.Android] = "${pa}", [DevicePlatform.iOS] = "${pi}" };\n#endif`,
    ),
  ],
  [
    'C#: partial by platform',
    maui('UnitOf()', 'private partial string UnitOf();', {
      'Platforms/Android/ReefPage.cs': `namespace Brine.Kelp.Pages;\npublic partial class ReefPage\n{\n#if DEBUG\n private partial string UnitOf() => "${ta}";\n#else\n private partial string UnitOf() => "${pa}";\n#endif\n}\n`,
      'Platforms/iOS/ReefPage.cs': `namespace Brine.Kelp.Pages;\npublic partial class ReefPage\n{\n#if DEBUG\n private partial string UnitOf() => "${ti}";\n#else\n private partial string UnitOf() => "${pi}";\n#endif\n}\n`,
    }),
  ],
  [
    'C#: by configuration of classes',
    maui('ids.Footer', 'private readonly IAdIds ids = App.Ids;', {
      'AdIds.cs': `namespace Brine.Kelp;\npublic interface IAdIds { string Footer { get; } }\npublic sealed class ProdAdIds : IAdIds { public string Footer => DeviceInfo.Platform == DevicePlatform.iOS ? "${pi}" : "${pa}"; }\npublic sealed class SampleAdIds : IAdIds { public string Footer => DeviceInfo.Platform == DevicePlatform.iOS ? "${ti}" : "${ta}"; }\npublic partial class App\n{\n#if DEBUG\n  public static readonly IAdIds Ids = new SampleAdIds();\n#else\n  public static readonly IAdIds Ids = new ProdAdIds();\n#endif\n}\n`,
    }),
  ],
  [
    'Unity: isDebugBuild',
    unity(
      'Unit',
      `private static string Unit => Debug.isDebugBuild ? Sample : Production;\n#if UNITY_IOS\nprivate const string Sample = "${ti}";\nprivate const string Production = "${pi}";\n#else\nprivate const string Sample = "${ta}";\nprivate const string Production = "${pa}";\n#endif`,
    ),
  ],
  [
    'Unity: runtime platform',
    unity(
      'Unit',
      `private static string Unit => Application.platform == RuntimePlatform.IPhonePlayer ? (Debug.isDebugBuild ? "${ti}" : "${pi}") : (Debug.isDebugBuild ? "${ta}" : "${pa}");`,
    ),
  ],
  [
    'Unity: a table',
    unity(
      'Units[Application.platform]',
      `private static readonly Dictionary<RuntimePlatform, string> Production = new Dictionary<RuntimePlatform, string> { { RuntimePlatform.Android, "${pa}" }, { RuntimePlatform.IPhonePlayer, "${pi}" } };\nprivate static readonly Dictionary<RuntimePlatform, string> Sample = new Dictionary<RuntimePlatform, string> { { RuntimePlatform.Android, "${ta}" }, { RuntimePlatform.IPhonePlayer, "${ti}" } };\nprivate static Dictionary<RuntimePlatform, string> Units => Debug.isDebugBuild ? Sample : Production;`,
    ),
  ],
  [
    'Kotlin: BuildConfig',
    kotlin(
      'unit',
      `private val unit: String get() = if (BuildConfig.DEBUG) TEST else PROD\ncompanion object { private const val TEST = "${ta}"\nprivate const val PROD = "${pa}" }`,
    ),
  ],
  [
    'Kotlin: classes',
    kotlin(
      'ids.footer',
      '',
      `interface AdIds { val footer: String }\nclass ProdAdIds : AdIds { override val footer = "${pa}" }\nclass SampleAdIds : AdIds { override val footer = "${ta}" }\nval ids: AdIds = if (BuildConfig.DEBUG) SampleAdIds() else ProdAdIds()\n`,
    ),
  ],
  [
    'Kotlin: a map',
    kotlin(
      'units.getValue(BuildConfig.BUILD_TYPE)',
      `private val units = mapOf("debug" to "${ta}", "release" to "${pa}")`,
    ),
  ],
  [
    'Kotlin: when',
    kotlin(
      'unit',
      `private val unit = when (BuildConfig.BUILD_TYPE) {\n "debug" -> "${ta}"\n else -> "${pa}"\n}`,
    ),
  ],
  ['Swift: #if', swift('unit', `#if DEBUG\nlet unit = "${ti}"\n#else\nlet unit = "${pi}"\n#endif`)],
  [
    'Swift: classes',
    swift(
      'ids.footer',
      '',
      `protocol AdIds { var footer: String { get } }\nstruct ProdAdIds: AdIds { let footer = "${pi}" }\nstruct SampleAdIds: AdIds { let footer = "${ti}" }\n#if DEBUG\nlet ids: AdIds = SampleAdIds()\n#else\nlet ids: AdIds = ProdAdIds()\n#endif\n`,
    ),
  ],
  [
    'Expo: a variable of a build profile',
    expoFiles({
      'eas.json': easJson.replaceAll('EXPO_PUBLIC_ADS_STAGE', 'EXPO_PUBLIC_STAGE'),
      'src/Reef.tsx': scriptScreen(
        'unit',
        `const isTest = process.env.EXPO_PUBLIC_STAGE !== 'production';\nconst unit = isTest ? Platform.select({ ios: '${ti}', default: '${ta}' }) : Platform.select({ ios: '${pi}', default: '${pa}' });`,
      ),
    }),
    staged,
  ],
];

const about = (files: Record<string, string>, of = title) =>
  findingsOf(files, of).filter(
    ({ rule, message }) =>
      message.includes('CH-U') && /^(stage|unit-id|platform|code\/(unit|wrong)|tree\/cannot)/.test(rule),
  );
const swapped = (files: Record<string, string>, pairs: [string, string][]) =>
  Object.fromEntries(
    Object.entries(files).map(([path, text]) => [
      path,
      pairs.reduce((left, [a, b]) => left.replaceAll(a, '#').replaceAll(b, a).replaceAll('#', b), text),
    ]),
  );
/** What no reading can settle: another entry point may be the one that is built. */
const open = new Set([
  'Dart: classes by entry point',
  'Dart: from the environment',
  'TypeScript: an environment variable',
]);

describe('a choice between IDs', () => {
  it.each(ways)('is no fault where it is right: %s', (_, files, of = title) => {
    const wrong = about(files, of).filter(({ severity }) => severity !== 'note');
    expect(wrong.map(({ rule, message, platform }) => `${rule} ${platform}: ${message}`)).toEqual([]);
  });

  const swaps: [string, [string, string][], RegExp][] = [
    [
      'stages',
      [
        [pa, ta],
        [pi, ti],
      ],
      /^stage\/test-id-in-production$/,
    ],
    [
      'platforms',
      [
        [pa, pi],
        [ta, ti],
      ],
      /^(platform\/|unit-id\/wrong-platform)/,
    ],
  ];
  describe.each(swaps)('is one where the %s are swapped', (_, pairs, fault) => {
    it.each(ways)('%s', (name, files, of = title) => {
      const wrong = about(swapped(files, pairs), of).map(({ rule }) => rule);
      const expected = (rule: string) => fault.test(rule) || (open.has(name) && rule === 'tree/cannot-tell');
      expect(wrong.filter(expected).length).toBeGreaterThan(0);
    });
  });
});
