import { givenFields, placebookFields, type FieldType } from '../common/fields.js';
import { hasLists } from '../common/list-rows.js';
import {
  camelCase,
  comment,
  markLines,
  networksOf,
  sentence,
  wrapped,
  upperCase,
  type PlacebookOptions,
  type PlacebookPlacement,
  type PlacebookStage,
} from '../common/placebook.js';
import { listMethods } from './list-methods.js';

/** What a Kotlin placebook needs besides its contents. */
export interface KotlinOptions extends PlacebookOptions {
  packageName: string;
  stage: string;
}

const types: Record<FieldType, string> = {
  int: 'Int?',
  bool: 'Boolean?',
  text: 'String?',
  texts: 'List<String>',
  networks: 'List<Network>',
};
const nothing = (type: FieldType) => (types[type].endsWith('?') ? 'null' : 'emptyList()');

/** A Kotlin placebook: one object, for one stage; each stage's file is in its own source sets. */
export function kotlinPlacebook(book: PlacebookStage, options: KotlinOptions): string {
  const { packageName, title, stage } = options;
  const networks = networksOf([book]);
  const names = book.placements.map(({ name }) => camelCase(name));
  const lines = [
    ...markLines(options),
    '',
    `package ${packageName}`,
    '',
    `/** The placements of ${comment(title)} for the ${stage} stage. */`,
    'object Placebook {',
    '    /** A network that fills placements. */',
    wrapped('    ', 'enum class Network { ', networks.map(upperCase), ' }'),
    '',
    '    /** A spot for ads: its unit ID on each network, and its settings. */',
    '    data class Placement(',
    '        val name: String,',
    '        val format: String,',
    '        val units: Map<Network, String>,',
    ...placebookFields.flatMap(({ name, type, about }, at) => [
      `        /** ${about} */`,
      `        val ${name}: ${types[type]} = ${nothing(type)}${at === placebookFields.length - 1 ? '' : ','}`,
    ]),
    '    ) {',
    '        /** The unit ID on a network that fills this placement. */',
    '        fun unit(network: Network): String =',
    '            units[network] ?: throw IllegalArgumentException("$name has no unit on $network")',
    ...(hasLists([book]) ? listMethods : []),
    '    }',
    '',
    `    const val STAGE = ${quoted(stage)}`,
    ...apps(book),
    ...devices(book),
    ...book.placements.flatMap(placementLines),
    '',
    '    /** Every placement, in the order of the roster. */',
    wrapped('    ', 'val all = listOf<Placement>(', names, ')'),
    '}',
    '',
  ];
  return lines.join('\n');
}

function apps({ apps: ids }: PlacebookStage): string[] {
  const sorted = Object.entries(ids).sort(([a], [b]) => (a < b ? -1 : 1));
  if (sorted.length === 0) return [];
  return [
    '',
    '    /** App IDs of the networks that take them in their start-up call. */',
    '    object Apps {',
    ...sorted.map(([network, id]) => `        const val ${upperCase(network)} = ${quoted(id)}`),
    '    }',
  ];
}

function devices({ devices: known }: PlacebookStage): string[] {
  const rows = Object.entries(known)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([network, ids]) =>
      wrapped('            ', `Network.${upperCase(network)} to listOf(`, ids.map(quoted), ')'),
    );
  return [
    '',
    '    /** Test devices to register with the networks; none in production. */',
    ...(rows.length === 0
      ? ['    val testDevices: Map<Network, List<String>> = emptyMap()']
      : [
          '    val testDevices: Map<Network, List<String>> =',
          '        mapOf(',
          rows.join(',\n'),
          '        )',
        ]),
  ];
}

function placementLines({ name, format, where, units, settings }: PlacebookPlacement): string[] {
  const rows = Object.entries(units)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([network, unit]) => `Network.${upperCase(network)} to ${quoted(unit)}`);
  const given = givenFields(settings, write);
  const values = [
    `name = ${quoted(name)}`,
    `format = ${quoted(format)}`,
    rows.length === 0 ? 'units = emptyMap()' : wrapped('            ', 'units = mapOf(', rows, ')').trim(),
    ...given.map(({ name: field, text }) => `${field} = ${text}`),
  ];
  return [
    '',
    `    /** ${sentence(where ?? name)} */`,
    `    val ${camelCase(name)} =`,
    '        Placement(',
    ...values.map((value, at) => `            ${value}${at === values.length - 1 ? '' : ','}`),
    '        )',
  ];
}

function write(value: number | boolean | string | readonly string[], type: FieldType): string {
  if (typeof value === 'number' || typeof value === 'boolean') return String(value);
  if (typeof value === 'string') return quoted(value);
  return `listOf(${value.map((item) => (type === 'networks' ? `Network.${upperCase(item)}` : quoted(item))).join(', ')})`;
}

function quoted(value: string): string {
  return `"${value.replace(/[\\"$]/g, '\\$&').replace(/\n/g, '\\n')}"`;
}
