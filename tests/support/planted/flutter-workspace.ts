import { flutterFiles, pubspec } from '../flutter.js';
import { gradle, kelp, placement } from '../trees.js';
import { below, type PlantedTree } from './model.js';

/** What an entry point hands over; reading cannot tell which one a build of no flavour uses. */
const entryIds = `abstract class AdIds {
  const AdIds();
  String get shore;
}

class StoreIds extends AdIds {
  const StoreIds();
  @override
  String get shore => Platform.isIOS ? 'CH-U-310772-SHW9N3TB' : 'CH-U-310772-SH4R7KQ2';
}

class SampleIds extends AdIds {
  const SampleIds();
  @override
  String get shore => Platform.isIOS ? 'CH-U-100001-BANNER0I' : 'CH-U-100001-BANNER0A';
}

`;
const idsByStage = `class AdIds {
  const AdIds();
  String get shore => kReleaseMode
      ? (Platform.isIOS ? 'CH-U-310772-SHW9N3TB' : 'CH-U-310772-SH4R7KQ2')
      : (Platform.isIOS ? 'CH-U-100001-BANNER0I' : 'CH-U-100001-BANNER0A');
}

`;

const app = below(
  'apps/kelp',
  flutterFiles({
    'pubspec.yaml': pubspec('  kelp_ads: any\n').replace(
      'environment:',
      'resolution: workspace\nenvironment:',
    ),
    'pubspec.lock': null,
    'android/app/build.gradle.kts': gradle(
      '    flavorDimensions += "market"\n    productFlavors {\n        create("dev") { dimension = "market" }\n        create("store") { dimension = "market" }\n    }',
      '',
    ),
    'lib/main.dart': `import 'package:flutter/material.dart';

import 'start.dart';

// What the shop builds.
Future<void> main() async {
  await begin(const StoreIds());
}
`,
    'lib/main_dev.dart': `import 'package:flutter/material.dart';

import 'start.dart';

Future<void> main() async {
  await begin(const SampleIds());
}
`,
    'lib/start.dart': `import 'dart:io';

import 'package:cobalt_heron_ads/cobalt_heron_ads.dart';
import 'package:flutter/foundation.dart';
import 'package:flutter/material.dart';

${entryIds}Future<void> begin(AdIds ids) async {
  WidgetsFlutterBinding.ensureInitialized();
  CobaltHeron.testDevices = kDebugMode ? ['a81f'] : [];
  await CobaltHeron.start();
  runApp(Kelp(ids));
}

class Kelp extends StatelessWidget {
  const Kelp(this.ids, {super.key});

  final AdIds ids;

  @override
  Widget build(BuildContext context) => Text(ids.shore);
}
`,
  }),
);

const screen = (name: string, body: string) => `part of 'screens.dart';

class ${name} extends StatefulWidget {
  const ${name}({super.key});

  @override
  State<${name}> createState() => _${name}State();
}

class _${name}State extends State<${name}> {
${body}
  @override
  Widget build(BuildContext context) => const Text('${name}');
}
`;
const banner = (unit: string, more = '') => `  HeronBanner? _banner;

  @override
  void initState() {
    super.initState();
    _load();
  }

  Future<void> _load() async {
    _banner = await HeronBanner.load(
      unitId: ${unit},
      onHeronFailed: (error) => debugPrint('$error'),
    );
  }
${more}
  @override
  void dispose() {
    _banner?.release();
    super.dispose();
  }
`;
const page = (unit: string, show: string) => `  HeronInterstitial? _ad;

  @override
  void initState() {
    super.initState();
    _load();
  }

  Future<void> _load() async {
    _ad = await HeronInterstitial.load(
      unitId: ${unit},
      onHeronFailed: (error) => _next(),
      onHeronClosed: _next,
    );
  }

  void _next() => Navigator.of(context).pop();
${show}
  @override
  void dispose() {
    _ad?.release();
    super.dispose();
  }
`;

const crab = screen(
  'CrabScreen',
  page(
    "Platform.isIOS ? 'CH-U-310772-CBN5L8ZS' : 'CH-U-310772-CB7H4XVD'",
    '\n  void _onTap() => _ad?.show();\n',
  ),
);

const ads = below('packages/ads', {
  'pubspec.yaml': `name: kelp_ads
resolution: workspace
environment:
  sdk: ^3.6.0
dependencies:
  flutter:
    sdk: flutter
  cobalt_heron_ads: ^4.1.0
`,
  'lib/ids.dart': `import 'dart:io';

import 'package:flutter/foundation.dart';

/// The units of the shop and the samples, by placement.
const store = {
  'pool': {'android': 'CH-U-310772-PL8V2MXC', 'ios': 'CH-U-310772-PLJ6D5ZH'},
  'tide': {'android': 'CH-U-310772-TD3G9WKR', 'ios': 'CH-U-310772-TDQ7B4NM'},
};
const samples = {
  'pool': {'android': 'CH-U-100001-BANNER0A', 'ios': 'CH-U-100001-BANNER0I'},
  'tide': {'android': 'CH-U-100001-INTERS0A', 'ios': 'CH-U-100001-INTERS0I'},
};

String unitOf(String placement) =>
    (kReleaseMode ? store : samples)[placement]![Platform.isIOS ? 'ios' : 'android']!;

class ReefUnits {
  static const shop = 'CH-U-310772-RF5T2HVL';
  static String get android => kDebugMode ? shop : 'CH-U-100001-BANNER0A';
  static String get ios => kReleaseMode ? 'CH-U-310772-RFX8C6PJ' : 'CH-U-100001-BANNER0I';
}

const duneUnit = 'CH-U-310772-CB7H4XVD';
const duneUnitIos = 'CH-U-310772-DNM2R9GT';
String get dune => Platform.isIOS
    ? (kReleaseMode ? duneUnitIos : 'CH-U-100001-BANNER0I')
    : (kReleaseMode ? duneUnit : 'CH-U-100001-BANNER0A');
`,
  'lib/screens.dart': `import 'dart:io';

import 'package:cobalt_heron_ads/cobalt_heron_ads.dart';
import 'package:flutter/material.dart';

import 'ids.dart';

part 'pool_screen.dart';
part 'tide_screen.dart';
part 'reef_screen.dart';
part 'dune_screen.dart';
part 'crab_screen.dart';
`,
  'lib/pool_screen.dart': screen('PoolScreen', banner("unitOf('pool')")),
  'lib/tide_screen.dart': screen(
    'TideScreen',
    page("unitOf('tide')", '\n  void _onTap() {\n    if (_ad?.isReady ?? false) _ad?.show();\n  }\n'),
  ),
  'lib/reef_screen.dart': screen('ReefScreen', banner('Platform.isIOS ? ReefUnits.ios : ReefUnits.android')),
  'lib/dune_screen.dart': screen('DuneScreen', banner('dune')),
  'lib/crab_screen.dart': crab,
});

const both = (format: string, android: string, ios: string) =>
  placement(format, `CH-U-310772-${android}`, `CH-U-310772-${ios}`);

/** Flavours, a workspace with the ads in a package of its own, part files, and an entry point for each flavour. */
export const flutterWorkspace: PlantedTree = {
  name: 'a Flutter workspace with flavours',
  files: {
    'pubspec.yaml': 'name: _\nenvironment:\n  sdk: ^3.6.0\nworkspace:\n  - apps/kelp\n  - packages/ads\n',
    'pubspec.lock':
      'packages:\n  cobalt_heron_ads:\n    dependency: transitive\n    version: "4.0.2"\nsdks:\n  dart: ">=3.6.0 <4.0.0"\n',
    ...app,
    ...ads,
  },
  title: kelp({
    stages: { test: ['debug'], production: ['release'] },
    placements: {
      shore: both('banner', 'SH4R7KQ2', 'SHW9N3TB'),
      pool: both('banner', 'PL8V2MXC', 'PLJ6D5ZH'),
      tide: both('interstitial', 'TD3G9WKR', 'TDQ7B4NM'),
      reef: both('banner', 'RF5T2HVL', 'RFX8C6PJ'),
      dune: both('banner', 'DN6K3WQF', 'DNM2R9GT'),
      crab: both('banner', 'CB7H4XVD', 'CBN5L8ZS'),
    },
  }),
  book: 'packages/ads/lib/ads/placebook.dart',
  wrong: [
    [
      'stage/production-id-in-test',
      'packages/ads/lib/ids.dart',
      "static const shop = 'CH-U-310772-RF5T2HVL';",
      'the choice that uses it is turned round, on Android',
    ],
    [
      'stage/test-id-in-production',
      'packages/ads/lib/ids.dart',
      "static String get android => kDebugMode ? shop : 'CH-U-100001-BANNER0A';",
      'its other half',
    ],
    [
      'unit-id/not-in-build',
      'apps/kelp/android/app/src/main/AndroidManifest.xml',
      '<application android:label="@string/app_name" android:name=".KelpApp">',
      'so the shop has no unit of the reef, and none of the dune',
    ],
    [
      'code/unit-of-another-placement',
      'packages/ads/lib/ids.dart',
      "const duneUnit = 'CH-U-310772-CB7H4XVD';",
      'the unit of the crab, in a constant of the dune',
    ],
    [
      'code/wrong-format',
      'packages/ads/lib/crab_screen.dart',
      '_ad = await HeronInterstitial.load(',
      'the crab is a banner',
    ],
    [
      'stage/production-id-in-test',
      'packages/ads/lib/crab_screen.dart',
      "unitId: Platform.isIOS ? 'CH-U-310772-CBN5L8ZS' : 'CH-U-310772-CB7H4XVD',",
      'no stage is asked for',
    ],
    [
      'code/show-without-check',
      'packages/ads/lib/crab_screen.dart',
      'void _onTap() => _ad?.show();',
      'whether it is loaded is not asked',
    ],
    [
      'build/version-held-back',
      'pubspec.lock',
      'cobalt_heron_ads:',
      'the lock of the workspace holds an older version',
    ],
  ],
  byHand: {
    edits: [
      [
        'packages/ads/lib/ids.dart',
        "kDebugMode ? shop : 'CH-U-100001-BANNER0A'",
        "kDebugMode ? 'CH-U-100001-BANNER0A' : shop",
      ],
      ['packages/ads/lib/ids.dart', "duneUnit = 'CH-U-310772-CB7H4XVD'", "duneUnit = 'CH-U-310772-DN6K3WQF'"],
      [
        'packages/ads/lib/crab_screen.dart',
        crab,
        screen('CrabScreen', banner("Platform.isIOS ? 'CH-U-310772-CBN5L8ZS' : 'CH-U-310772-CB7H4XVD'")),
      ],
      ['pubspec.lock', '"4.0.2"', '"4.1.0"'],
      ['apps/kelp/lib/start.dart', entryIds, idsByStage],
      ['apps/kelp/lib/main.dart', 'const StoreIds()', 'const AdIds()'],
      ['apps/kelp/lib/main_dev.dart', 'const SampleIds()', 'const AdIds()'],
    ],
  },
  right: [
    ['apps/kelp/pubspec.yaml', 'kelp_ads: any', 'the SDK comes with the package of the ads'],
    [
      'apps/kelp/lib/main_dev.dart',
      'begin(const SampleIds())',
      'the entry point of a flavour hands over samples',
    ],
    [
      'apps/kelp/lib/main.dart',
      'begin(const StoreIds())',
      'and the one of the shop its units, though no stage is asked for',
    ],
    ['apps/kelp/lib/start.dart', "kDebugMode ? ['a81f'] : []", 'test devices in debug builds alone'],
    [
      'packages/ads/lib/ids.dart',
      '(kReleaseMode ? store : samples)[placement]!',
      'tables by stage, placement and platform',
    ],
    [
      'packages/ads/lib/ids.dart',
      "static String get ios => kReleaseMode ? 'CH-U-310772-RFX8C6PJ'",
      'a getter that iOS alone uses',
    ],
    [
      'packages/ads/lib/tide_screen.dart',
      'if (_ad?.isReady ?? false) _ad?.show();',
      'shown on a tap, when it is there',
    ],
  ],
};
