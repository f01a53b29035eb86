import { givenFields, placebookFields, type FieldType } from '../common/fields.js';
import { hasLists } from '../common/list-rows.js';
import {
  camelCase,
  comment,
  markLines,
  networksOf,
  sentence,
  wrapped,
  type PlacebookOptions,
  type PlacebookPlacement,
  type PlacebookStage,
} from '../common/placebook.js';
import { listMethods } from './list-methods.js';

/** What a Swift placebook needs besides its contents. */
export interface SwiftOptions extends PlacebookOptions {
  /** The compilation condition that holds in the configurations of the test stage. */
  testCondition: string;
}

const types: Record<FieldType, string> = {
  int: 'Int?',
  bool: 'Bool?',
  text: 'String?',
  texts: '[String]',
  networks: '[Network]',
};
const nothing = (type: FieldType) => (types[type].endsWith('?') ? 'nil' : '[]');

/** A Swift placebook: one file for both stages, which picks by a compilation condition. */
export function swiftPlacebook(
  test: PlacebookStage,
  production: PlacebookStage,
  options: SwiftOptions,
): string {
  const { title, testCondition } = options;
  const names = production.placements.map(({ name }) => camelCase(name));
  const lines = [
    ...markLines(options),
    '',
    `/// The placements of ${comment(title)}, for the stage that is being compiled.`,
    'enum Placebook {',
    '    /// A network that fills placements.',
    '    enum Network: String {',
    ...networksOf([test, production]).map(
      (network) => `        case ${camelCase(network)} = ${quoted(network)}`,
    ),
    '    }',
    '',
    ...placementType(hasLists([test, production])),
    '',
    `    #if ${testCondition}`,
    ...stageLines('test', test),
    '    #else',
    ...stageLines('production', production),
    '    #endif',
    '',
    '    /// Every placement, in the order of the roster.',
    wrapped('    ', 'static let all: [Placement] = [', names, ']'),
    '}',
    '',
  ];
  return lines.join('\n');
}

const placementType = (isInLists: boolean): string[] => [
  '    /// A spot for ads: its unit ID on each network, and its settings.',
  '    struct Placement {',
  '        let name: String',
  '        let format: String',
  '        let units: [Network: String]',
  ...placebookFields.flatMap(({ name, type, about }) => [
    `        /// ${about}`,
    `        var ${name}: ${types[type]} = ${nothing(type)}`,
  ]),
  '',
  '        /// The unit ID on a network that fills this placement.',
  '        func unit(_ network: Network) -> String {',
  '            guard let unit = units[network] else {',
  '                preconditionFailure("\\(name) has no unit on \\(network.rawValue)")',
  '            }',
  '            return unit',
  '        }',
  ...(isInLists ? listMethods : []),
  '    }',
];

function stageLines(stage: string, book: PlacebookStage): string[] {
  return [
    `    static let stage = ${quoted(stage)}`,
    ...apps(book),
    ...devices(book),
    ...book.placements.flatMap(placementLines),
  ];
}

function apps({ apps: ids }: PlacebookStage): string[] {
  const sorted = Object.entries(ids).sort(([a], [b]) => (a < b ? -1 : 1));
  if (sorted.length === 0) return [];
  return [
    '',
    '    /// App IDs of the networks that take them in their start-up call.',
    '    enum Apps {',
    ...sorted.map(([network, id]) => `        static let ${camelCase(network)} = ${quoted(id)}`),
    '    }',
  ];
}

function devices({ devices: known }: PlacebookStage): string[] {
  const rows = Object.entries(known)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([network, ids]) => `        .${camelCase(network)}: [${ids.map(quoted).join(', ')}],`);
  return [
    '',
    '    /// Test devices to register with the networks; none in production.',
    ...(rows.length === 0
      ? ['    static let testDevices: [Network: [String]] = [:]']
      : ['    static let testDevices: [Network: [String]] = [', ...rows, '    ]']),
  ];
}

function placementLines({ name, format, where, units, settings }: PlacebookPlacement): string[] {
  const rows = Object.entries(units)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([network, unit]) => `.${camelCase(network)}: ${quoted(unit)}`);
  const values = [
    `name: ${quoted(name)}`,
    `format: ${quoted(format)}`,
    rows.length === 0 ? 'units: [:]' : wrapped('        ', 'units: [', rows, ']').trim(),
    ...givenFields(settings, write).map(({ name: field, text }) => `${field}: ${text}`),
  ];
  return [
    '',
    `    /// ${sentence(where ?? name)}`,
    `    static let ${camelCase(name)} = Placement(`,
    ...values.map((value, at) => `        ${value}${at === values.length - 1 ? '' : ','}`),
    '    )',
  ];
}

function write(value: number | boolean | string | readonly string[], type: FieldType): string {
  if (typeof value === 'number' || typeof value === 'boolean') return String(value);
  if (typeof value === 'string') return quoted(value);
  return `[${value.map((item) => (type === 'networks' ? `.${camelCase(item)}` : quoted(item))).join(', ')}]`;
}

function quoted(value: string): string {
  return `"${value.replace(/[\\"]/g, '\\$&').replace(/\n/g, '\\n')}"`;
}
