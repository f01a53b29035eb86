import { frameworkTooOld } from '../../../src/core/checks/rules/build-framework-too-old.js';
import { keptBeyondScreen } from '../../../src/core/checks/rules/code-kept-beyond-screen.js';
import { madeWhileBuilding } from '../../../src/core/checks/rules/code-made-while-building.js';
import { startBeforeReady } from '../../../src/core/checks/rules/code-start-before-ready.js';
import { branchesSwapped } from '../../../src/core/checks/rules/platform-branches-swapped.js';
import { oneIdForBoth } from '../../../src/core/checks/rules/platform-one-id-for-both.js';
import { handWrittenFlag } from '../../../src/core/checks/rules/stage-hand-written-flag.js';
import { flutterFiles, kelpWithBanner, main, pubspec, screen } from '../../support/flutter.js';
import { expect } from 'vitest';
import { ruleCases } from '../../support/rules.js';

// Rules for code that both platforms compile.

const title = kelpWithBanner();
const [android, ios] = ["'CH-U-310772-BBBB1111'", "'CH-U-310772-CCCC2222'"];
const reef = (unit: string, more = '') => flutterFiles({ 'lib/reef.dart': screen(unit, more) });

ruleCases(oneIdForBoth, {
  clean: [
    { name: 'each platform has its own', title, files: reef(`Platform.isIOS ? ${ios} : ${android}`) },
    {
      name: 'an ID in a comment',
      title,
      files: reef(`Platform.isIOS ? ${ios} : ${android}`, '// CH-U-310772-BBBB1111 was used for both.'),
    },
    {
      name: 'the placebook is asked',
      title,
      files: reef('Placebook.footer.unit(PlacebookNetwork.cobaltHeron)'),
    },
  ],
  faulty: [
    {
      name: 'one literal',
      title,
      files: reef(android),
      findings: [
        {
          platform: 'ios',
          placement: 'footer',
          place: { path: 'lib/reef.dart', line: 24, column: 16, endLine: 24, endColumn: 36 },
        },
      ],
    },
    {
      name: 'a constant that is used for both',
      title,
      files: reef('unit', `const unit = ${ios};`),
      findings: [{ platform: 'android', placement: 'footer', network: 'cobalt-heron' }],
    },
  ],
});

ruleCases(branchesSwapped, {
  clean: [
    { name: 'a ternary that is right', title, files: reef(`Platform.isAndroid ? ${android} : ${ios}`) },
    {
      name: 'a comparison that is right',
      title,
      files: reef(`defaultTargetPlatform == TargetPlatform.iOS ? ${ios} : ${android}`),
    },
    { name: 'one ID for both is another fault', title, files: reef(android) },
  ],
  faulty: [
    {
      name: 'a ternary',
      title,
      files: reef(`Platform.isIOS ? ${android} : ${ios}`),
      findings: [{ platform: 'android' }, { platform: 'ios' }],
    },
    {
      name: 'a ternary that asks what is not so',
      title,
      files: reef(`!Platform.isIOS ? ${ios} : ${android}`),
      findings: [{ platform: 'android' }, { platform: 'ios' }],
    },
    {
      name: 'a switch',
      title,
      files: reef(
        `switch (defaultTargetPlatform) { TargetPlatform.iOS => ${android}, TargetPlatform.android => ${ios}, _ => '' }`,
      ),
      findings: [{ platform: 'android' }, { platform: 'ios' }],
    },
  ],
});

ruleCases(handWrittenFlag, {
  clean: [
    {
      name: 'the mode of the build decides',
      title,
      files: reef(`kReleaseMode ? ${android} : 'CH-U-100001-BANNER0A'`),
    },
    {
      name: 'a constant that stands for the mode',
      title,
      files: reef(`testing ? 'CH-U-100001-BANNER0A' : ${android}`, 'const testing = !kReleaseMode;'),
    },
    {
      name: 'a flag that decides something else',
      title,
      files: reef(android, "const loud = true;\nfinal greeting = loud ? 'HELLO' : 'hello';"),
    },
  ],
  faulty: [
    {
      name: 'a constant',
      title,
      files: reef(`testing ? 'CH-U-100001-BANNER0A' : ${android}`, 'const testing = true;'),
      findings: [
        { platform: null, place: { path: 'lib/reef.dart', line: 5, column: 17, endLine: 5, endColumn: 21 } },
      ],
    },
    {
      name: 'the same, the other way about, with a type',
      title,
      files: reef(`!live ? 'CH-U-100001-BANNER0A' : ${android}`, 'const bool live = false;'),
      findings: [{ platform: null }],
    },
  ],
});

ruleCases(frameworkTooOld, {
  clean: [
    { name: 'a new enough range', title, files: flutterFiles() },
    {
      name: 'exactly what is needed',
      title,
      files: flutterFiles({ 'pubspec.yaml': pubspec(undefined, "'>=3.2.0 <4.0.0'") }),
    },
  ],
  faulty: [
    {
      name: 'a range that begins too early',
      byHand: { edits: [['pubspec.yaml', '>=3.1.5', '>=3.5.0']] },
      title,
      files: flutterFiles({ 'pubspec.yaml': pubspec(undefined, "'>=3.1.5 <4.0.0'") }),
      findings: [
        {
          network: 'cobalt-heron',
          place: { path: 'pubspec.yaml', line: 3, column: 8, endLine: 3, endColumn: 24 },
        },
      ],
    },
    {
      name: 'a caret',
      title,
      files: flutterFiles({ 'pubspec.yaml': pubspec(undefined, '^3.0.0') }),
      findings: [{ network: 'cobalt-heron' }],
    },
  ],
});

const started = (calls: string) => flutterFiles({ 'lib/main.dart': main(calls) });
const [ready, start, run] = [
  '  WidgetsFlutterBinding.ensureInitialized();\n',
  '  await CobaltHeron.start();\n',
  '  runApp(const Kelp());\n',
];

ruleCases(startBeforeReady, {
  clean: [
    { name: 'binding, start-up, interface', title, files: flutterFiles() },
    {
      name: 'other work between them',
      title,
      files: started(`${ready}  await tides();\n${start}  await maps();\n${run}`),
    },
    {
      name: 'started in a function of its own, which main calls',
      title,
      files: flutterFiles({
        'lib/main.dart': `${main(`${ready}  await ads();\n${run}`)}\nFuture<void> ads() async {\n${start}}\n`,
      }),
    },
  ],
  faulty: [
    {
      name: 'before the binding',
      byHand: { edits: [['lib/main.dart', `${start}${ready}`, `${ready}${start}`]] },
      title,
      files: started(`${start}${ready}${run}`),
      findings: [{ platform: null, message: expectText(/is started before .* is called/) }],
    },
    {
      name: 'without a binding',
      title,
      files: started(`${start}${run}`),
      findings: [{ message: expectText(/nothing calls WidgetsFlutterBinding/) }],
    },
    {
      name: 'after the interface is up',
      title,
      files: started(`${ready}${run}${start}`),
      findings: [{ message: expectText(/after runApp/) }],
    },
  ],
});

function expectText(pattern: RegExp): string {
  return expect.stringMatching(pattern) as string;
}

const kept = (where: string) =>
  flutterFiles({ 'lib/reef.dart': screen(android).replace('void dispose() {', where) });

ruleCases(keptBeyondScreen, {
  clean: [
    { name: 'released where the screen goes away', title, files: reef(android) },
    {
      name: 'never released is another fault',
      title,
      files: flutterFiles({ 'lib/reef.dart': screen(android).replace('    _banner?.release();\n', '') }),
    },
    {
      name: 'released elsewhere and in dispose',
      title,
      files: flutterFiles({
        'lib/reef.dart': screen(android).replace(
          '  Future<void> _load',
          '  void _hide() => _banner?.release();\n\n  Future<void> _load',
        ),
      }),
    },
  ],
  faulty: [
    {
      name: 'released only when it is hidden',
      byHand: { edits: [['lib/reef.dart', 'void _hide() {', 'void dispose() {']] },
      title,
      files: kept('void _hide() {'),
      findings: [
        { platform: null, network: 'cobalt-heron', message: expectText(/releases it only in _hide/) },
      ],
    },
    {
      name: 'released only as the screen is left in one way',
      title,
      files: kept('void _back() {'),
      findings: [{ message: expectText(/_back/) }],
    },
  ],
});

ruleCases(madeWhileBuilding, {
  clean: [
    { name: 'loaded where the screen begins', title, files: reef(android) },
    {
      name: 'a function that is called build, in another language',
      title,
      files: flutterFiles({
        'android/app/src/main/java/example/brine/kelp/Reef.kt':
          'package example.brine.kelp\nclass Reef {\n  fun build() { BannerView(context, "CH-U-310772-BBBB1111") }\n}\n',
      }),
    },
  ],
  faulty: [
    {
      name: 'loaded for each row of a list',
      title,
      files: flutterFiles({
        'lib/reef.dart': `class Reef extends StatelessWidget {\n  Widget build(BuildContext context) {\n    return ListView.builder(\n      itemBuilder: (context, index) {\n        HeronBanner.load(unitId: ${android});\n        return const Text('reef');\n      },\n    );\n  }\n}\n`,
      }),
      findings: [{ message: expectText(/for each row of Reef/) }],
    },
    {
      name: 'loaded in build',
      byHand: {
        edits: [
          [
            'lib/reef.dart',
            `  Widget build(BuildContext context) {\n    HeronBanner.load(unitId: ${android});\n`,
            `  void initState() {\n    HeronBanner.load(unitId: ${android});\n  }\n  Widget build(BuildContext context) {\n`,
          ],
        ],
      },
      title,
      files: flutterFiles({
        'lib/reef.dart': `class Reef extends StatelessWidget {\n  Widget build(BuildContext context) {\n    HeronBanner.load(unitId: ${android});\n    return const Text('reef');\n  }\n}\n`,
      }),
      findings: [
        {
          platform: null,
          network: 'cobalt-heron',
          place: { path: 'lib/reef.dart', line: 3, column: 5, endLine: 3, endColumn: 53 },
        },
      ],
    },
  ],
});
