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
import { listTypes, listFunction } from './list-methods.js';

/** What a TypeScript placebook needs besides its contents. */
export interface TypeScriptOptions extends PlacebookOptions {
  /** An expression that holds in the builds of the test stage, and that the bundler computes. */
  testCondition: string;
}

const types: Record<FieldType, string> = {
  int: 'number',
  bool: 'boolean',
  text: 'string',
  texts: 'readonly string[]',
  networks: 'readonly PlacebookNetwork[]',
};

/** The width that the formatter keeps to. */
const width = 80;

/**
 * A TypeScript placebook for React Native: one file for both platforms and stages. `Platform.select` over an object
 * and `__DEV__` are computed when a bundle is made for release, so it carries the IDs of its own platform and
 * stage only.
 */
export function typescriptPlacebook(books: SharedBooks, options: TypeScriptOptions): string {
  const { testCondition, title } = options;
  const stages = Object.values(books).flatMap(({ test, production }) => [test, production]);
  const networks = networksOf(stages);
  const names = namesInBooks(books);
  const lines = [
    ...markLines(options),
    '',
    "import { Platform } from 'react-native';",
    '',
    '/** Whether this build is of the test stage. */',
    `const isTest = ${testCondition};`,
    '',
    '/** A network that fills placements. */',
    ...block(
      'export const PlacebookNetwork = {',
      networks.map((network) => `  ${camelCase(network)}: ${quoted(network)},`),
      '} as const;',
    ),
    'export type PlacebookNetwork =',
    '  (typeof PlacebookNetwork)[keyof typeof PlacebookNetwork];',
    '',
    ...placementTypes(hasLists(stages)),
    '',
    ...apps(books),
    ...devices(books),
    '',
    `/** The placements of ${comment(title)}, for the platform and stage that are built. */`,
    'export const Placebook = {',
    "  stage: isTest ? 'test' : 'production',",
    ...names.flatMap((name) => placementLines(name, books)),
    '',
    '  /** Test devices to register with the networks; none in production. */',
    '  testDevices,',
    '',
    '  /** Every placement, in the order of the roster. */',
    '  get all(): readonly PlacebookPlacement[] {',
    ...listed(
      'return [',
      names.map((name) => `Placebook.${camelCase(name)}`),
      '];',
      '    ',
    ),
    '  },',
    '} as const;',
    '',
  ];
  return lines.join('\n');
}

const placementTypes = (isInLists: boolean): string[] => [
  'type Units = { readonly [network in PlacebookNetwork]?: string | undefined };',
  '',
  'interface PlacebookSettings {',
  '  readonly name: string;',
  '  readonly format: string;',
  ...placebookFields.flatMap(({ name, type, about }) => [
    `  /** ${about} */`,
    `  readonly ${name}?: ${types[type]};`,
  ]),
  '  readonly units: Units;',
  '}',
  '',
  '/** A spot for ads: its unit ID on each network, and its settings. */',
  'export interface PlacebookPlacement extends PlacebookSettings {',
  '  /** The unit ID on a network that fills this placement. */',
  '  unit(network: PlacebookNetwork): string;',
  ...(isInLists ? listTypes : []),
  '}',
  '',
  'function placement(settings: PlacebookSettings): PlacebookPlacement {',
  '  return {',
  '    ...settings,',
  '    unit(network) {',
  '      return known(`${settings.name} on ${network}`, settings.units[network]);',
  '    },',
  ...(isInLists ? ['    ...listRows(settings),'] : []),
  '  };',
  '}',
  ...(isInLists ? listFunction : []),
  '',
  'function known(what: string, id: string | undefined): string {',
  '  if (id === undefined) {',
  '    throw new Error(`${what} has no ID on this platform`);',
  '  }',
  '  return id;',
  '}',
];

function apps(books: SharedBooks): string[] {
  const networks = appNetworks(books);
  if (networks.length === 0) return [];
  const rows = networks.flatMap((network, at) => [
    ...(at === 0 ? [] : ['']),
    `  get ${camelCase(network)}(): string {`,
    '    return known(',
    `      ${quoted(network)},`,
    '      Platform.select({',
    ...selected(books, (platform, stage) => valueAt(books[platform]?.[stage].apps, network), '        '),
    '      }),',
    '    );',
    '  },',
  ]);
  return [
    '/** App IDs of the networks that take them in their start-up call. */',
    'export const PlacebookApps = {',
    ...rows,
    '} as const;',
    '',
  ];
}

/** The ID on each platform, chosen by stage where the stages differ. */
function selected(
  books: SharedBooks,
  idOf: (platform: Platform, stage: 'test' | 'production') => string | undefined,
  indent: string,
): string[] {
  return platformsOf(books).flatMap((platform) => {
    const [test, production] = [idOf(platform, 'test'), idOf(platform, 'production')].map((id) =>
      id === undefined ? 'undefined' : quoted(id),
    );
    if (test === undefined || production === undefined) return [];
    if (test === production) return test === 'undefined' ? [] : [`${indent}${platform}: ${test},`];
    const line = `${indent}${platform}: isTest ? ${test} : ${production},`;
    if (line.length <= width) return [line];
    return [`${indent}${platform}: isTest`, `${indent}  ? ${test}`, `${indent}  : ${production},`];
  });
}

function placementLines(name: string, books: SharedBooks): string[] {
  const of = (platform: Platform, stage: 'test' | 'production') =>
    books[platform]?.[stage].placements.find((item) => item.name === name);
  const any = platformsOf(books).flatMap((platform): PlacebookPlacement[] =>
    [of(platform, 'production') ?? of(platform, 'test')].filter((found) => found !== undefined),
  );
  const [placement] = any;
  if (!placement) return [];
  const networks = networksOf(
    Object.values(books).map(({ test, production }) => ({
      apps: {},
      devices: {},
      placements: [...test.placements, ...production.placements].filter((item) => item.name === name),
    })),
  );
  const fields = givenFields({ ...placement.settings, ...fallbackOf(any) }, write).flatMap(
    ({ name: field, text }) =>
      field === 'fallback'
        ? listed('fallback: [', fallbackItems(books, text), '],', '    ')
        : field === 'content'
          ? listed('content: [', text.split(', '), '],', '    ')
          : [`    ${field}: ${text},`],
  );
  const units = networks.flatMap((network) => [
    `      ${keyed(network)}: Platform.select({`,
    ...selected(books, (platform, stage) => valueAt(of(platform, stage)?.units, network), '        '),
    '      }),',
  ]);
  return [
    '',
    `  /** ${sentence(placement.where ?? name)} */`,
    `  ${camelCase(name)}: placement({`,
    `    name: ${quoted(name)},`,
    `    format: ${quoted(placement.format)},`,
    ...fields,
    ...block('    units: {', units, '    },'),
    '  }),',
  ];
}

/** A network that fills nothing on one platform is no fallback there. */
function fallbackItems(books: SharedBooks, text: string): string[] {
  return text
    .split(', ')
    .filter(Boolean)
    .map((item) => {
      const only = onlyPlatform(books, (network) => `PlacebookNetwork.${camelCase(network)}` === item);
      return only === undefined ? item : `...(Platform.OS === '${only}' ? [${item}] : [])`;
    });
}

function devices(books: SharedBooks): string[] {
  const networks = networksOf(
    Object.values(books).map(({ test }) => ({ apps: {}, placements: [], devices: test.devices })),
  );
  const rows = networks.flatMap((network) => [
    `  ${keyed(network)}: Platform.select({`,
    ...platformsOf(books).flatMap((platform) =>
      deviceLines(platform, valueAt(books[platform]?.test.devices, network)),
    ),
    '  }),',
  ]);
  return [
    'type Devices = {',
    '  readonly [network in PlacebookNetwork]?: readonly string[] | undefined;',
    '};',
    '',
    ...block('const testDevices: Devices = {', rows, '};'),
  ];
}

function deviceLines(platform: Platform, ids: readonly string[] = []): string[] {
  if (ids.length === 0) return [];
  const list = `[${ids.map(quoted).join(', ')}]`;
  const line = `    ${platform}: isTest ? ${list} : [],`;
  if (line.length <= width) return [line];
  const broken = [`    ${platform}: isTest`, `      ? ${list}`, '      : [],'];
  if (broken.every(({ length }) => length <= width)) return broken;
  const items = ids.map((id) => `          ${quoted(id)},`);
  return [`    ${platform}: isTest`, '      ? [', ...items, '        ]', '      : [],'];
}

/** A network as the key of an object. */
function keyed(network: string): string {
  return /^[A-Za-z_$][\w$]*$/.test(network) ? network : quoted(network);
}

/** Lines between brackets; the brackets together where there is nothing between them. */
function block(head: string, rows: readonly string[], tail: string): string[] {
  return rows.length === 0 ? [`${head}${tail.trim()}`] : [head, ...rows, tail];
}

/** Items between brackets: on one line, or an item a line with a comma behind each. */
function listed(head: string, items: readonly string[], tail: string, indent: string): string[] {
  const line = `${indent}${head}${items.join(', ')}${tail}`;
  if (items.length === 0 || line.length <= width) return [line];
  return [`${indent}${head}`, ...items.map((item) => `${indent}  ${item},`), `${indent}${tail}`];
}

function write(value: number | boolean | string | readonly string[], type: FieldType): string {
  if (typeof value === 'number' || typeof value === 'boolean') return String(value);
  if (typeof value === 'string') return quoted(value);
  if (type === 'networks') return value.map((item) => `PlacebookNetwork.${camelCase(item)}`).join(', ');
  return value.map(quoted).join(', ');
}

/** In single quotes, or in double ones where that saves a sign of escape, as formatters have it. */
function quoted(value: string): string {
  const plain = value.replace(/\\/g, '\\\\').replace(/\n/g, '\\n');
  const [single, double] = [value.split("'").length, value.split('"').length];
  return single > double ? `"${plain.replace(/"/g, '\\"')}"` : `'${plain.replace(/'/g, "\\'")}'`;
}
