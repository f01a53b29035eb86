import { valueAt } from '../../text/own-values.js';
import type { Platform } from '../../words/words.js';
import { givenFields, placebookFields, type FieldType } from '../common/fields.js';
import { hasLists } from '../common/list-rows.js';
import {
  camelCase,
  comment,
  markLines,
  networksOf,
  sentence,
  type PlacebookOptions,
  type PlacebookPlacement,
} from '../common/placebook.js';
import {
  appNetworks,
  fallbackOf,
  onlyPlatform,
  namesInBooks,
  platformsOf,
  type SharedBooks,
} from '../common/platforms.js';
import { listMethods } from './list-methods.js';

/** What a Dart placebook needs besides its contents. */
export interface DartOptions extends PlacebookOptions {
  /** A constant expression that holds in the builds of the test stage. */
  testCondition: string;
}

const types: Record<FieldType, string> = {
  int: 'int?',
  bool: 'bool?',
  text: 'String?',
  texts: 'List<String>',
  networks: 'List<PlacebookNetwork>',
};
const isList = (type: FieldType) => types[type].startsWith('List');
const platformTerms = { android: 'Platform.isAndroid', ios: 'Platform.isIOS' } as const;

/** The width that dart format keeps to. */
const width = 80;

/** A Dart placebook: one file for both platforms and stages, which picks by what the compiler knows. */
export function dartPlacebook(books: SharedBooks, options: DartOptions): string {
  const { testCondition, title } = options;
  const stages = Object.values(books).flatMap(({ test, production }) => [test, production]);
  const names = namesInBooks(books);
  const modes = ['kDebugMode', 'kProfileMode', 'kReleaseMode'].filter((name) => testCondition.includes(name));
  const lines = [
    ...markLines(options),
    '',
    "import 'dart:io' show Platform;",
    ...(modes.length > 0 ? ['', `import 'package:flutter/foundation.dart' show ${modes.join(', ')};`] : []),
    '',
    '/// Whether this build is of the test stage.',
    ...broken('const bool _isTest =', `${testCondition};`, ''),
    '',
    '/// A network that fills placements.',
    ...listed('enum PlacebookNetwork {', networksOf(stages).map(camelCase), '}', ''),
    '',
    ...placementClass(hasLists(stages)),
    '',
    ...appsClass(books),
    `/// The placements of ${comment(title)}, for the platform and stage that are compiled.`,
    'abstract final class Placebook {',
    "  static const String stage = _isTest ? 'test' : 'production';",
    ...names.flatMap((name) => placementLines(name, books)),
    '',
    '  /// Test devices to register with the networks; none in production.',
    ...devices(books),
    '',
    '  /// Every placement, in the order of the roster.',
    ...listed('static final List<PlacebookPlacement> all = [', names.map(camelCase), '];', '  '),
    '}',
    '',
  ];
  return lines.join('\n');
}

const placementClass = (isInLists: boolean): string[] => [
  '/// A spot for ads: its unit ID on each network, and its settings.',
  'final class PlacebookPlacement {',
  '  const PlacebookPlacement({',
  '    required this.name,',
  '    required this.format,',
  '    required this.units,',
  ...placebookFields.map(({ name, type }) => `    this.${name}${isList(type) ? ' = const []' : ''},`),
  '  });',
  '',
  '  final String name;',
  '  final String format;',
  '  final Map<PlacebookNetwork, String> units;',
  ...placebookFields.flatMap(({ name, type, about }) => [
    '',
    `  /// ${about}`,
    `  final ${types[type]} ${name};`,
  ]),
  '',
  '  /// The unit ID on a network that fills this placement.',
  '  String unit(PlacebookNetwork network) {',
  '    final unit = units[network];',
  "    if (unit == null) throw ArgumentError('$name has no unit on $network');",
  '    return unit;',
  '  }',
  ...(isInLists ? listMethods : []),
  '}',
];

function appsClass(books: SharedBooks): string[] {
  const platforms = platformsOf(books);
  const networks = appNetworks(books);
  if (networks.length === 0) return [];
  const rows = networks.flatMap((network, at) => {
    const cases = platforms.flatMap((platform) => {
      const test = valueAt(books[platform]?.test.apps, network);
      const production = valueAt(books[platform]?.production.apps, network);
      return test === undefined && production === undefined
        ? []
        : [`    if (${platformTerms[platform]}) {`, ...returned(test, production), '    }'];
    });
    return [
      ...(at === 0 ? [] : ['']),
      `  static String get ${camelCase(network)} {`,
      ...cases,
      `    throw UnsupportedError('${network} has no app ID on this platform');`,
      '  }',
    ];
  });
  return [
    '/// App IDs of the networks that take them in their start-up call.',
    'abstract final class PlacebookApps {',
    ...rows,
    '}',
    '',
  ];
}

/** The ID of the stage that is compiled, its choice on lines of its own where it is too long for one. */
function returned(test: string | undefined, production: string | undefined): string[] {
  const [first, second] = [quoted(test ?? ''), quoted(production ?? '')];
  if (first === second) return [`      return ${first};`];
  const line = `      return _isTest ? ${first} : ${second};`;
  if (line.length <= width) return [line];
  return ['      return _isTest', `          ? ${first}`, `          : ${second};`];
}

function placementLines(name: string, books: SharedBooks): string[] {
  const platforms = platformsOf(books);
  const of = (platform: Platform, stage: 'test' | 'production') =>
    books[platform]?.[stage].placements.find((item) => item.name === name);
  const any = platforms.flatMap((platform) => of(platform, 'production') ?? of(platform, 'test') ?? []);
  const [placement] = any;
  if (!placement) return [];
  const units = platforms.flatMap((platform) =>
    unitRows(platform, of(platform, 'test'), of(platform, 'production')),
  );
  const settings = { ...placement.settings, ...fallbackOf(any) };
  const fields = givenFields(settings, write).flatMap(({ name: field, text }) =>
    field === 'fallback'
      ? listed('fallback: [', fallbackItems(books, text), '],', '    ')
      : [`    ${field}: ${text},`],
  );
  return [
    '',
    `  /// ${sentence(placement.where ?? name)}`,
    `  static final PlacebookPlacement ${camelCase(name)} = PlacebookPlacement(`,
    `    name: ${quoted(name)},`,
    `    format: ${quoted(placement.format)},`,
    ...fields,
    ...(units.length === 0 ? ['    units: {},'] : ['    units: {', ...units, '    },']),
    '  );',
  ];
}

function unitRows(
  platform: Platform,
  test: PlacebookPlacement | undefined,
  production: PlacebookPlacement | undefined,
): string[] {
  const networks = new Set([...Object.keys(test?.units ?? {}), ...Object.keys(production?.units ?? {})]);
  return [...networks].sort().flatMap((network) => {
    const key = `PlacebookNetwork.${camelCase(network)}:`;
    const [a, b] = [valueAt(test?.units, network), valueAt(production?.units, network)];
    const condition =
      a === undefined
        ? `!_isTest && ${platformTerms[platform]}`
        : b === undefined
          ? `_isTest && ${platformTerms[platform]}`
          : platformTerms[platform];
    const head = `      if (${condition})`;
    if (a === undefined || b === undefined || a === b) {
      const value = `${key} ${quoted(a ?? b ?? '')},`;
      const line = `${head} ${value}`;
      return line.length <= width ? [line] : [head, `        ${value}`];
    }
    const whole = `        ${key} _isTest ? ${quoted(a)} : ${quoted(b)},`;
    if (whole.length <= width) return [head, whole];
    return [head, `        ${key} _isTest`, `            ? ${quoted(a)}`, `            : ${quoted(b)},`];
  });
}

/** A network that fills nothing on one platform is no fallback there. */
function fallbackItems(books: SharedBooks, text: string): string[] {
  return text
    .split(', ')
    .filter(Boolean)
    .map((item) => {
      const only = onlyPlatform(books, (network) => `PlacebookNetwork.${camelCase(network)}` === item);
      return only === undefined ? item : `if (${platformTerms[only]}) ${item}`;
    });
}

function devices(books: SharedBooks): string[] {
  const rows = platformsOf(books).flatMap((platform) =>
    Object.entries(books[platform]?.test.devices ?? {})
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .flatMap(([network, ids]) => {
        const head = `    if (_isTest && ${platformTerms[platform]})`;
        const rows = listed(`PlacebookNetwork.${camelCase(network)}: [`, ids.map(quoted), '],', '      ');
        const line = `${head} ${rows[0]?.trim() ?? ''}`;
        return rows.length === 1 && line.length <= width ? [line] : [head, ...rows];
      }),
  );
  const head = '  static final Map<PlacebookNetwork, List<String>> testDevices =';
  return rows.length === 0 ? [`${head} {};`] : [`${head} {`, ...rows, '  };'];
}

/** Items between brackets: on one line, or an item a line with a comma behind each. */
function listed(head: string, items: readonly string[], tail: string, indent: string): string[] {
  const space = head.endsWith('{') ? ' ' : '';
  const line = `${indent}${head}${space}${items.join(', ')}${space}${tail}`;
  if (items.length === 0) return [`${indent}${head}${tail}`];
  if (line.length <= width) return [line];
  return [`${indent}${head}`, ...items.map((item) => `${indent}  ${item},`), `${indent}${tail}`];
}

/** A head and what is assigned to it, on the next line where that is too long. */
function broken(head: string, value: string, indent: string): string[] {
  const line = `${indent}${head} ${value}`;
  if (line.length <= width) return [line];
  const below = `${indent}    ${value}`;
  const terms = below.length <= width ? [below] : below.split(/(?<=&&) (?=[!S])/);
  return [`${indent}${head}`, ...terms.map((term, at) => (at === 0 ? term : `${indent}    ${term}`))];
}

function write(value: number | boolean | string | readonly string[], type: FieldType): string {
  if (typeof value === 'number' || typeof value === 'boolean') return String(value);
  if (typeof value === 'string') return quoted(value);
  if (type === 'networks') return value.map((item) => `PlacebookNetwork.${camelCase(item)}`).join(', ');
  return `[${value.map(quoted).join(', ')}]`;
}

function quoted(value: string): string {
  return `'${value.replace(/[\\'$]/g, '\\$&').replace(/\n/g, '\\n')}'`;
}
