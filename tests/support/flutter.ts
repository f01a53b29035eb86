import type { Title } from '../../src/core/roster/model.js';
import { androidFiles, gradle, iosFiles, kelp, placement } from './trees.js';

const below = (folder: string, files: Record<string, string>): Record<string, string> =>
  Object.fromEntries(Object.entries(files).map(([path, content]) => [`${folder}/${path}`, content]));

export const pubspec = (dependencies = '  cobalt_heron_ads: ^4.1.0\n', sdk = '^3.5.0') =>
  `name: kelp\nenvironment:\n  sdk: ${sdk}\ndependencies:\n  flutter:\n    sdk: flutter\n${dependencies}`;

export const lock = (version = '4.1.0') =>
  `packages:\n  cobalt_heron_ads:\n    dependency: "direct main"\n    version: "${version}"\nsdks:\n  dart: ">=3.5.0 <4.0.0"\n`;

export const main = (calls: string) =>
  `import 'package:cobalt_heron_ads/cobalt_heron_ads.dart';\nimport 'package:flutter/material.dart';\n\nFuture<void> main() async {\n${calls}}\n`;

const rightMain = main(
  '  WidgetsFlutterBinding.ensureInitialized();\n  await CobaltHeron.start();\n  runApp(const Kelp());\n',
);

/** A small Flutter project that is right; give files to change or add. */
export function flutterFiles(changes: Record<string, string | null> = {}): Record<string, string> {
  const native = {
    ...below(
      'android',
      androidFiles({
        'settings.gradle.kts': 'include(":app")\n',
        'app/build.gradle.kts': gradle('', ''),
        'app/src/main/java/example/brine/kelp/KelpApp.java': null,
      }),
    ),
    ...below(
      'ios',
      iosFiles({
        'Kelp/App.swift': 'func launch() {}\n',
        Podfile: "target 'Kelp' do\nend\n",
        'Podfile.lock': null,
      }),
    ),
  };
  const files: Record<string, string | null> = {
    'pubspec.yaml': pubspec(),
    'pubspec.lock': lock(),
    'lib/main.dart': rightMain,
    ...native,
    ...changes,
  };
  return Object.fromEntries(
    Object.entries(files).filter((entry): entry is [string, string] => entry[1] !== null),
  );
}

/** Kelp with a banner on both platforms. */
export const kelpWithBanner = (changes: Partial<Title> = {}): Title =>
  kelp({
    placements: { footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222') },
    ...changes,
  });

/** A screen that keeps a banner for as long as it lives; `unit` is what it is asked with. */
export const screen = (unit: string, more = '') => `import 'dart:io';
import 'package:cobalt_heron_ads/cobalt_heron_ads.dart';
import 'package:flutter/material.dart';

${more}
class ReefScreen extends StatefulWidget {
  const ReefScreen({super.key});

  @override
  State<ReefScreen> createState() => _ReefScreenState();
}

class _ReefScreenState extends State<ReefScreen> {
  HeronBanner? _banner;

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

  @override
  void dispose() {
    _banner?.release();
    super.dispose();
  }

  @override
  Widget build(BuildContext context) => const Text('reef');
}
`;
