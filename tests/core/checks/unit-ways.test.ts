import { describe, expect, it } from 'vitest';
import { wrongFormat } from '../../../src/core/checks/rules/code-wrong-format.js';
import { findingsOf } from '../../support/rules.js';
import { kelp, placement } from '../../support/trees.js';
import { dart, java, kotlin, maui, script, swift, unity } from '../../support/unit-screens.js';

const footer = placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222');
const page = placement('interstitial', 'CH-U-310772-DDDD3333', 'CH-U-310772-EEEE4444');
const title = kelp({ placements: { footer, page } });

const [android, ios] = ['CH-U-310772-DDDD3333', 'CH-U-310772-EEEE4444'];
const dartChoice = `Platform.isIOS ? '${ios}' : '${android}'`;
const scriptChoice = `Platform.OS === 'ios' ? '${ios}' : '${android}'`;
const sharpChoice = (head: string) => `#if IOS\n${head} "${ios}";\n#else\n${head} "${android}";\n#endif`;
const unityChoice = (head: string) =>
  `#if UNITY_IOS\n${head} "${ios}";\n#else\n${head} "${android}";\n#endif`;
const ways: [string, Record<string, string>, number?][] = [
  ['Kotlin: a getter', kotlin('unit', `private val unit: String get() = "${android}"`)],
  [
    'Kotlin: a getter with a body',
    kotlin('unit', `private val unit: String\n  get() { return "${android}" }`),
  ],
  ['Kotlin: a function', kotlin('unit()', `private fun unit() = "${android}"`)],
  [
    'Kotlin: a function with a choice',
    kotlin(
      'unit()',
      `private fun unit(): String { if (x) { return "${android}" }\n return "CH-U-310772-BBBB1111" }`,
    ),
  ],
  ['Kotlin: a companion', kotlin('UNIT', `companion object { private const val UNIT = "${android}" }`)],
  ['Kotlin: lazily', kotlin('unit', `private val unit by lazy { "${android}" }`)],
  [
    'Kotlin: an interface',
    kotlin(
      'ids.footer',
      '',
      `interface AdIds { val footer: String }\nclass ProdAdIds : AdIds { override val footer = "${android}" }\n`,
    ),
  ],
  [
    'Kotlin: a map',
    kotlin('units.getValue("footer")', `private val units = mapOf("footer" to "${android}")`),
  ],
  ['Kotlin: an index', kotlin('units["footer"]!!', `private val units = mapOf("footer" to "${android}")`)],
  [
    'Kotlin: an enum',
    kotlin('Unit.FOOTER.id', '', `enum class Unit(val id: String) { FOOTER("${android}") }\n`),
  ],
  ['Java: a method', java('unit()', `private String unit() { return "${android}"; }`)],
  [
    'Java: a static method of another class',
    java('Units.footer()', '', `class Units { static String footer() { return "${android}"; } }\n`),
  ],
  [
    'Java: an interface',
    java(
      'ids.footer()',
      '',
      `interface AdIds { String footer(); }\nclass ProdAdIds implements AdIds { public String footer() { return "${android}"; } }\n`,
    ),
  ],
  [
    'Java: an enum',
    java(
      'Slot.FOOTER.id',
      '',
      `enum Slot { FOOTER("${android}"); final String id; Slot(String id) { this.id = id; } }\n`,
    ),
  ],
  ['Swift: a computed property', swift('unit', `var unit: String { "${ios}" }`)],
  ['Swift: with get and return', swift('unit', `var unit: String { get { return "${ios}" } }`)],
  ['Swift: a function', swift('unit()', `func unit() -> String { return "${ios}" }`)],
  ['Swift: lazy', swift('unit', `lazy var unit: String = { "${ios}" }()`)],
  [
    'Swift: a protocol',
    swift(
      'ids.footer',
      '',
      `protocol AdIds { var footer: String { get } }\nstruct ProdAdIds: AdIds { let footer = "${ios}" }\n`,
    ),
  ],
  ['Swift: an enum', swift('Slot.footer.rawValue', '', `enum Slot: String { case footer = "${ios}" }\n`)],
  ['Swift: a dictionary', swift('units["footer"]!', `let units = ["footer": "${ios}"]`)],
  ['Dart: a getter', dart('_unit', `String get _unit => ${dartChoice};`), 2],
  [
    'Dart: a getter with a body',
    dart(
      'AdIds.footer',
      `class AdIds { static String get footer { if (Platform.isIOS) { return '${ios}'; }\n return '${android}'; } }`,
    ),
    2,
  ],
  ['Dart: a function', dart('unit()', `String unit() => ${dartChoice};`), 2],
  [
    'Dart: an interface',
    dart(
      'ids.footer',
      `abstract class AdIds { String get footer; }\nclass ProdAdIds implements AdIds { @override String get footer => ${dartChoice}; }\nfinal AdIds ids = ProdAdIds();`,
    ),
    2,
  ],
  [
    'Dart: an extension',
    dart('Slot.footer.unit', `enum Slot { footer }\nextension on Slot { String get unit => ${dartChoice}; }`),
    2,
  ],
  ['Dart: a map', dart("units['footer']!", `final units = {'footer': ${dartChoice}};`), 2],
  [
    'Dart: another file',
    dart('AdIds.footer', "import 'ids.dart';", {
      'lib/ids.dart': `import 'dart:io';\nclass AdIds { static String get footer => ${dartChoice}; }\n`,
    }),
    2,
  ],
  ['TypeScript: a function', script('unit()', `const unit = () => ${scriptChoice};`), 2],
  [
    'TypeScript: a function with a body',
    script(
      'unit()',
      `function unit(): string { if (Platform.OS === 'ios') { return '${ios}'; }\n return '${android}'; }`,
    ),
    2,
  ],
  [
    'TypeScript: a getter',
    script('AdIds.footer', `class AdIds { static get footer(): string { return ${scriptChoice}; } }`),
    2,
  ],
  ['TypeScript: an object', script('units.footer', `const units = { footer: ${scriptChoice} };`), 2],
  ['TypeScript: an index', script("units['footer']", `const units = { footer: ${scriptChoice} };`), 2],
  ['TypeScript: an enum', script('Slot.Footer', `enum Slot { Footer = '${android}' }`)],
  [
    'TypeScript: another file',
    script('footer', "import { footer } from './ids';", {
      'src/ids.ts': `import { Platform } from 'react-native';\nexport const footer = ${scriptChoice};\n`,
    }),
    2,
  ],
  [
    'TypeScript: an interface',
    script(
      'ids.footer',
      `interface AdIds { footer: string }\nclass ProdAdIds implements AdIds { footer = ${scriptChoice}; }\nconst ids: AdIds = new ProdAdIds();`,
    ),
    2,
  ],
  ['C#: a property', maui('Unit', sharpChoice('private string Unit =>')), 2],
  ['C#: a getter with a body', maui('Unit', `private string Unit { get { return "${android}"; } }`)],
  ['C#: a method', maui('Unit()', sharpChoice('private static string Unit() =>')), 2],
  [
    'C#: a partial class',
    maui('Unit', '', {
      'Pages/ReefPage.Ids.cs': `namespace Brine.Kelp.Pages;\npublic partial class ReefPage\n{\n${sharpChoice('private const string Unit =')}\n}\n`,
    }),
    2,
  ],
  [
    'C#: a partial class by platform',
    maui('Unit', 'private partial string UnitOf();\nprivate string Unit => UnitOf();', {
      'Platforms/Android/ReefPage.cs': `namespace Brine.Kelp.Pages;\npublic partial class ReefPage\n{\n private partial string UnitOf() => "${android}";\n}\n`,
      'Platforms/iOS/ReefPage.cs': `namespace Brine.Kelp.Pages;\npublic partial class ReefPage\n{\n private partial string UnitOf() => "${ios}";\n}\n`,
    }),
    2,
  ],
  [
    'C#: an interface',
    maui('ids.Footer', 'private readonly IAdIds ids;', {
      'AdIds.cs': `namespace Brine.Kelp;\npublic interface IAdIds { string Footer { get; } }\n`,
      'Platforms/Android/AdIds.cs': `namespace Brine.Kelp;\npublic sealed class AndroidAdIds : IAdIds { public string Footer => "${android}"; }\n`,
      'Platforms/iOS/AdIds.cs': `namespace Brine.Kelp;\npublic sealed class AppleAdIds : IAdIds { public string Footer => "${ios}"; }\n`,
    }),
    2,
  ],
  [
    'C#: a dictionary',
    maui(
      'units["footer"]',
      `private readonly Dictionary<string, string> units = new() { ["footer"] = "${android}" };`,
    ),
  ],
  ['Unity: a property', unity('Unit', unityChoice('private static string Unit =>')), 2],
  [
    'Unity: a partial class',
    unity('Ids.Footer', '', {
      'Assets/Scripts/Ids.cs': `public static partial class Ids\n{\n${unityChoice('public const string Footer =')}\n}\n`,
    }),
    2,
  ],
  ['Unity: a serialised field', unity('unit', `[SerializeField] private string unit = "${android}";`)],
];

describe('an ID that reaches a call', () => {
  it.each(ways)('%s', (_, files, count = 1) => {
    expect(findingsOf(files, title, wrongFormat).map(({ message }) => message)).toHaveLength(count);
  });
});
