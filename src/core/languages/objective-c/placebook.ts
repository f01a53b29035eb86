import { valueAt } from '../../text/own-values.js';
import { givenFields, placebookFields, type FieldType } from '../common/fields.js';
import { hasLists } from '../common/list-rows.js';
import {
  camelCase,
  comment,
  markLines,
  networksOf,
  sentence,
  pascalCase,
  type PlacebookOptions,
  type PlacebookPlacement,
  type PlacebookStage,
} from '../common/placebook.js';
import { listDeclarations, listMethods } from './list-methods.js';

/** What an Objective-C placebook needs besides its contents. */
export interface ObjectiveCOptions extends PlacebookOptions {
  /** The preprocessor condition that holds in the configurations of the test stage. */
  testCondition: string;
}

const types: Record<FieldType, string> = {
  int: 'NSNumber *',
  bool: 'NSNumber *',
  text: 'NSString *',
  texts: 'NSArray<NSString *> *',
  networks: 'NSArray<NSNumber *> *',
};

/** The header of an Objective-C placebook: the placements as class properties. */
export function objectiveCHeader(
  test: PlacebookStage,
  production: PlacebookStage,
  options: ObjectiveCOptions,
): string {
  const apps = appNames(test, production);
  return [
    ...markLines(options),
    '',
    '#import <Foundation/Foundation.h>',
    '',
    'NS_ASSUME_NONNULL_BEGIN',
    '',
    '/// A network that fills placements.',
    'typedef NS_ENUM(NSInteger, PlacebookNetwork) {',
    ...networksOf([test, production]).map((network) => `    PlacebookNetwork${pascalCase(network)},`),
    '};',
    '',
    '/// A spot for ads: its unit ID on each network, and its settings.',
    '@interface PlacebookPlacement : NSObject',
    '',
    '@property(nonatomic, readonly, copy) NSString *name;',
    '@property(nonatomic, readonly, copy) NSString *format;',
    '@property(nonatomic, readonly, copy) NSDictionary<NSNumber *, NSString *> *units;',
    ...placebookFields.flatMap(({ name, type, about }) => [
      `/// ${about}`,
      `@property(nonatomic, readonly, copy, nullable) ${types[type]}${name};`,
    ]),
    '',
    '/// The unit ID on a network that fills this placement.',
    '- (NSString *)unitFor:(PlacebookNetwork)network;',
    ...(hasLists([test, production]) ? listDeclarations : []),
    '',
    '@end',
    '',
    `/// The placements of ${comment(options.title)}, for the stage that is being compiled.`,
    '@interface Placebook : NSObject',
    '',
    '@property(class, nonatomic, readonly) NSString *stage;',
    ...apps.flatMap((network) => [
      `/// The app ID for the start-up call of ${network}.`,
      `@property(class, nonatomic, readonly) NSString *${appName(network)};`,
    ]),
    ...production.placements.flatMap(({ name, where }) => [
      `/// ${sentence(where ?? name)}`,
      `@property(class, nonatomic, readonly) PlacebookPlacement *${camelCase(name)};`,
    ]),
    '/// Every placement, in the order of the roster.',
    '@property(class, nonatomic, readonly) NSArray<PlacebookPlacement *> *all;',
    '',
    '/// Test devices to register with a network; none in production.',
    '+ (NSArray<NSString *> *)testDevicesFor:(PlacebookNetwork)network;',
    '',
    '@end',
    '',
    'NS_ASSUME_NONNULL_END',
    '',
  ].join('\n');
}

/** Lines for either stage, under the preprocessor condition that tells them apart. */
type ByStage = (lines: (book: PlacebookStage, stage: string) => string[]) => string[];

/** The source of an Objective-C placebook, which picks the stage by a preprocessor condition. */
export function objectiveCSource(
  test: PlacebookStage,
  production: PlacebookStage,
  options: ObjectiveCOptions,
): string {
  const byStage: ByStage = (lines) => [
    `#if ${options.testCondition}`,
    ...lines(test, 'test'),
    '#else',
    ...lines(production, 'production'),
    '#endif',
  ];
  const names = production.placements.map(({ name }) => name);
  return [
    ...markLines(options),
    '',
    '#import "Placebook.h"',
    '',
    ...placementClass(hasLists([test, production])),
    '',
    '@implementation Placebook',
    '',
    '+ (NSString *)stage {',
    ...byStage((_, stage) => [`    return ${quoted(stage)};`]),
    '}',
    ...appNames(test, production).flatMap((network) => appMethod(network, byStage)),
    ...names.flatMap((name) => placementMethod(name, byStage)),
    '',
    '+ (NSArray<PlacebookPlacement *> *)all {',
    '    NSMutableArray<PlacebookPlacement *> *all = [NSMutableArray array];',
    ...names.map((name) => `    [all addObject:self.${camelCase(name)}];`),
    '    return [all copy];',
    '}',
    '',
    '+ (NSArray<NSString *> *)testDevicesFor:(PlacebookNetwork)network {',
    '    NSMutableArray<NSString *> *devices = [NSMutableArray array];',
    ...deviceLines(test, options.testCondition),
    '    return [devices copy];',
    '}',
    '',
    '@end',
    '',
  ].join('\n');
}

const placementClass = (isInLists: boolean): string[] => [
  '@implementation PlacebookPlacement',
  '',
  '- (instancetype)initWithValues:(NSDictionary<NSString *, id> *)values {',
  '    self = [super init];',
  '    if (self) {',
  '        _name = [values[@"name"] copy];',
  '        _format = [values[@"format"] copy];',
  '        _units = [values[@"units"] copy];',
  ...placebookFields.map(({ name }) => `        _${name} = [values[@"${name}"] copy];`),
  '    }',
  '    return self;',
  '}',
  '',
  '- (NSString *)unitFor:(PlacebookNetwork)network {',
  '    NSString *unit = self.units[@(network)];',
  '    NSAssert(unit != nil, @"%@ has no unit on network %ld", self.name, (long)network);',
  '    return unit;',
  '}',
  ...(isInLists ? listMethods : []),
  '',
  '@end',
];

function appMethod(network: string, byStage: ByStage): string[] {
  return [
    '',
    `+ (NSString *)${appName(network)} {`,
    ...byStage(({ apps }) => [`    return ${quoted(valueAt(apps, network) ?? '')};`]),
    '}',
  ];
}

function placementMethod(name: string, byStage: ByStage): string[] {
  return [
    '',
    `+ (PlacebookPlacement *)${camelCase(name)} {`,
    '    static PlacebookPlacement *placement;',
    '    static dispatch_once_t once;',
    '    dispatch_once(&once, ^{',
    ...byStage(({ placements }) =>
      placements.filter((item) => item.name === name).flatMap((item) => placementLines(item)),
    ),
    '    });',
    '    return placement;',
    '}',
  ];
}

/** Devices are known in the test stage only. */
function deviceLines({ devices }: PlacebookStage, testCondition: string): string[] {
  const rows = Object.entries(devices)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([network, ids]) => [
      `    if (network == PlacebookNetwork${pascalCase(network)}) {`,
      ...ids.map((id) => `        [devices addObject:${quoted(id)}];`),
      '    }',
    ]);
  return rows.length === 0 ? [] : [`#if ${testCondition}`, ...rows, '#endif'];
}

function placementLines({ name, format, units, settings }: PlacebookPlacement): string[] {
  const rows = Object.entries(units)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([network, unit]) => `                @(PlacebookNetwork${pascalCase(network)}) : ${quoted(unit)},`);
  const values = [
    { name: 'name', text: quoted(name) },
    { name: 'format', text: quoted(format) },
    ...givenFields(settings, write),
    { name: 'units', text: rows.length === 0 ? '@{}' : ['@{', ...rows, '            }'].join('\n') },
  ].map(({ name: key, text }) => `            ${quoted(key)} : ${text},`);
  return ['        placement = [[PlacebookPlacement alloc] initWithValues:@{', ...values, '        }];'];
}

function appNames(...books: readonly PlacebookStage[]): string[] {
  return [...new Set(books.flatMap(({ apps }) => Object.keys(apps)))].sort();
}

/** The class property of an app ID: `marlstoneApp`. */
export function appName(network: string): string {
  return `${camelCase(network)}App`;
}

function write(value: number | boolean | string | readonly string[], type: FieldType): string {
  if (typeof value === 'number') return `@${value}`;
  if (typeof value === 'boolean') return value ? '@YES' : '@NO';
  if (typeof value === 'string') return quoted(value);
  const items = value.map((item) =>
    type === 'networks' ? `@(PlacebookNetwork${pascalCase(item)})` : quoted(item),
  );
  return `@[ ${items.join(', ')} ]`;
}

function quoted(value: string): string {
  return `@"${value.replace(/[\\"]/g, '\\$&').replace(/\n/g, '\\n')}"`;
}
