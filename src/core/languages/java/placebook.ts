import { givenFields, placebookFields, type FieldType } from '../common/fields.js';
import { hasLists } from '../common/list-rows.js';
import {
  comment,
  markLines,
  networksOf,
  sentence,
  upperCase,
  type PlacebookOptions,
  type PlacebookPlacement,
  type PlacebookStage,
} from '../common/placebook.js';
import { listMethods } from './list-methods.js';

/** What a Java placebook needs besides its contents. */
export interface JavaOptions extends PlacebookOptions {
  packageName: string;
  stage: string;
}

const types: Record<FieldType, string> = {
  int: 'Integer',
  bool: 'Boolean',
  text: 'String',
  texts: 'List<String>',
  networks: 'List<Network>',
};

/** A Java placebook: one class, for one stage; each stage's file is in its own source sets. */
export function javaPlacebook(book: PlacebookStage, options: JavaOptions): string {
  const { packageName, title, stage } = options;
  const names = book.placements.map(({ name }) => upperCase(name));
  const lines = [
    ...markLines(options),
    '',
    `package ${packageName};`,
    '',
    'import java.util.ArrayList;',
    ...(usesArrays(book) ? ['import java.util.Arrays;'] : []),
    'import java.util.Collections;',
    'import java.util.EnumMap;',
    'import java.util.List;',
    'import java.util.Map;',
    '',
    `/** The placements of ${comment(title)} for the ${stage} stage. */`,
    'public final class Placebook {',
    `    public static final String STAGE = ${quoted(stage)};`,
    ...apps(book),
    ...book.placements.flatMap(placementLines),
    '',
    '    /** Every placement, in the order of the roster. */',
    '    public static final List<Placement> ALL;',
    '',
    '    static {',
    '        List<Placement> all = new ArrayList<>();',
    ...names.map((name) => `        all.add(${name});`),
    '        ALL = Collections.unmodifiableList(all);',
    '    }',
    '',
    '    private Placebook() {}',
    '',
    ...devices(book),
    '',
    '    /** A network that fills placements. */',
    '    public enum Network {',
    ...networksOf([book]).map((network) => `        ${upperCase(network)},`),
    '    }',
    '',
    ...placementClass(hasLists([book])),
    '}',
    '',
  ];
  return lines.join('\n');
}

const placementClass = (isInLists: boolean): string[] => [
  '    /** A spot for ads: its unit ID on each network, and its settings. */',
  '    public static final class Placement {',
  '        public final String name;',
  '        public final String format;',
  '        public final Map<Network, String> units;',
  ...placebookFields.flatMap(({ name, type, about }) => [
    `        /** ${about} */`,
    `        public final ${types[type]} ${name};`,
  ]),
  '',
  '        private Placement(Builder from) {',
  '            name = from.name;',
  '            format = from.format;',
  '            units = Collections.unmodifiableMap(from.units);',
  ...placebookFields.map(({ name }) => `            ${name} = from.${name};`),
  '        }',
  '',
  '        /** The unit ID on a network that fills this placement. */',
  '        public String unit(Network network) {',
  '            String unit = units.get(network);',
  '            if (unit == null) {',
  '                throw new IllegalArgumentException(name + " has no unit on " + network);',
  '            }',
  '            return unit;',
  '        }',
  ...(isInLists ? listMethods : []),
  '    }',
  '',
  '    private static final class Builder {',
  '        private final String name;',
  '        private final String format;',
  '        private final Map<Network, String> units = new EnumMap<>(Network.class);',
  ...placebookFields.map(
    ({ name, type }) =>
      `        private ${types[type]} ${name}${types[type].startsWith('List') ? ' = Collections.emptyList()' : ''};`,
  ),
  '',
  '        Builder(String name, String format) {',
  '            this.name = name;',
  '            this.format = format;',
  '        }',
  '',
  '        Builder unit(Network network, String unit) {',
  '            units.put(network, unit);',
  '            return this;',
  '        }',
  ...placebookFields.flatMap(({ name, type }) => [
    '',
    `        Builder ${name}(${types[type]} value) {`,
    `            ${name} = value;`,
    '            return this;',
    '        }',
  ]),
  '',
  '        Placement build() {',
  '            return new Placement(this);',
  '        }',
  '    }',
];

function apps({ apps: ids }: PlacebookStage): string[] {
  const sorted = Object.entries(ids).sort(([a], [b]) => (a < b ? -1 : 1));
  if (sorted.length === 0) return [];
  return [
    '',
    '    /** App IDs of the networks that take them in their start-up call. */',
    '    public static final class Apps {',
    ...sorted.map(
      ([network, id]) => `        public static final String ${upperCase(network)} = ${quoted(id)};`,
    ),
    '',
    '        private Apps() {}',
    '    }',
  ];
}

function devices({ devices: known }: PlacebookStage): string[] {
  const rows = Object.entries(known).sort(([a], [b]) => (a < b ? -1 : 1));
  return [
    '    /** Test devices to register with a network; none in production. */',
    '    public static List<String> testDevices(Network network) {',
    '        List<String> devices = new ArrayList<>();',
    ...rows.flatMap(([network, ids]) => [
      `        if (network == Network.${upperCase(network)}) {`,
      ...ids.map((id) => `            devices.add(${quoted(id)});`),
      '        }',
    ]),
    '        return Collections.unmodifiableList(devices);',
    '    }',
  ];
}

function usesArrays({ placements }: PlacebookStage): boolean {
  return placements.some(({ settings }) => settings.content !== undefined || settings.fallback !== undefined);
}

function placementLines({ name, format, where, units, settings }: PlacebookPlacement): string[] {
  const rows = Object.entries(units)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([network, unit]) => `.unit(Network.${upperCase(network)}, ${quoted(unit)})`);
  const given = givenFields(settings, write).map(({ name: field, text }) => `.${field}(${text})`);
  return [
    '',
    `    /** ${sentence(where ?? name)} */`,
    `    public static final Placement ${upperCase(name)} =`,
    `            new Builder(${quoted(name)}, ${quoted(format)})`,
    ...[...rows, ...given].map((call) => `                    ${call}`),
    '                    .build();',
  ];
}

function write(value: number | boolean | string | readonly string[], type: FieldType): string {
  if (typeof value === 'number' || typeof value === 'boolean') return String(value);
  if (typeof value === 'string') return quoted(value);
  const items = value.map((item) => (type === 'networks' ? `Network.${upperCase(item)}` : quoted(item)));
  return `Arrays.asList(${items.join(', ')})`;
}

function quoted(value: string): string {
  return `"${value.replace(/[\\"]/g, '\\$&').replace(/\n/g, '\\n')}"`;
}
