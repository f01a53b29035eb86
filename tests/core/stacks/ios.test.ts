import { describe, expect, it } from 'vitest';
import { compiledAt, definedIn, evaluateCondition } from '../../../src/core/syntax/preprocessor.js';
import { stringLiterals } from '../../../src/core/syntax/literals.js';
import type { Survey } from '../../../src/core/facts/model.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { appIdKey, iosFiles, kelp, pbxproj, plist, profiles, treeOf } from '../../support/trees.js';

const project = 'Kelp.xcodeproj/project.pbxproj';
function survey(files: Record<string, string | Uint8Array>): Survey {
  return runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title: kelp() } }).survey;
}
const appIds = (files: Record<string, string>) => {
  const { facts, unresolved } = survey(files);
  return [
    ...facts
      .filter(({ kind }) => kind === 'app-id')
      .map(({ variants, value }) => `${variants.join(' ')}: ${value}`),
    ...unresolved
      .filter(({ kind }) => kind === 'app-id')
      .map(({ variants, reason }) => `${variants.join(' ')}? ${reason}`),
  ];
};
const withSettings = (debug: string, release = '', shared = '', more: Record<string, string> = {}) =>
  iosFiles({ [project]: pbxproj(debug, release, shared), ...more });

describe('build settings', () => {
  it.each([
    ['set in the target', 'HERON = A;', 'HERON = B;', '', ['Debug: A', 'Release: B']],
    ['set in the project', '', '', 'HERON = P;', ['Debug: P', 'Release: P']],
    ['the target wins over the project', 'HERON = T;', '', 'HERON = P;', ['Debug: T', 'Release: P']],
    ['inherited', 'HERON = "$(inherited)-T";', 'HERON = x;', 'HERON = P;', ['Debug: P-T', 'Release: x']],
    [
      'nested',
      'WHICH = ONE; ID_ONE = nested; HERON = "$(ID_$(WHICH))";',
      'HERON = x;',
      '',
      ['Debug: nested', 'Release: x'],
    ],
    ['defaulted', 'HERON = "$(ABSENT:default=spare)";', 'HERON = x;', '', ['Debug: spare', 'Release: x']],
    [
      'with an operator',
      'BASE = "a b"; HERON = "$(BASE:rfc1034identifier:upper)";',
      'HERON = x;',
      '',
      ['Debug: A-B', 'Release: x'],
    ],
    ['in braces', 'BASE = b; HERON = "${BASE}";', 'HERON = x;', '', ['Debug: b', 'Release: x']],
    ['a list', 'HERON = (a, b);', 'HERON = x;', '', ['Debug: a b', 'Release: x']],
    [
      'built in',
      'HERON = "$(TARGET_NAME).$(CONFIGURATION)";',
      'HERON = x;',
      '',
      ['Debug: Kelp.Debug', 'Release: x'],
    ],
    [
      'missing',
      'HERON = "$(ABSENT)";',
      'HERON = x;',
      '',
      ['Release: x', 'Debug? nothing in the tree sets $(ABSENT)'],
    ],
    [
      'in a circle',
      'A = "$(B)"; B = "$(A)"; HERON = "$(A)";',
      'HERON = x;',
      '',
      ['Release: x', 'Debug? its settings refer to each other in a loop'],
    ],
  ])('%s', (_, debug, release, shared, expected) => {
    expect(appIds(withSettings(debug, release, shared))).toEqual(expected);
  });

  it('come from base configuration files, with their includes', () => {
    const based = pbxproj('', 'HERON = x;')
      .replace(
        'name = Debug;\n\t\t};\n\t\tAA0000000000000000000009',
        'name = Debug;\n\t\t\tbaseConfigurationReference = AA00000000000000000000FF;\n\t\t};\n\t\tAA0000000000000000000009',
      )
      .replace(
        '\t\tAA0000000000000000000003 = {',
        '\t\tAA00000000000000000000FF = {isa = PBXFileReference; path = Debug.xcconfig; sourceTree = "<group>"; };\n\t\tAA0000000000000000000003 = {',
      )
      .replace(
        'AA0000000000000000000004 /* Kelp */,\n',
        'AA0000000000000000000004 /* Kelp */,\n\t\t\t\tAA00000000000000000000FF,\n',
      );
    const files = iosFiles({
      [project]: based,
      'Debug.xcconfig': '#include "more/Shared.xcconfig"\nTAIL = tail\n',
      'more/Shared.xcconfig': 'HERON = file-$(TAIL) // note\n',
    });
    const { facts } = survey(files);
    const debug = facts.find((fact) => fact.kind === 'app-id' && fact.variants[0] === 'Debug');
    expect(debug?.value).toBe('file-tail');
    expect(debug?.chain.map(({ place }) => place?.path)).toEqual([
      'Kelp/Info.plist',
      'more/Shared.xcconfig',
      'Debug.xcconfig',
    ]);
  });

  it('say why a property list gives no answer', () => {
    expect(appIds(iosFiles({ 'Kelp/Info.plist': null }))).toEqual(
      ['Debug', 'Release'].map((name) =>
        expect.stringContaining(`${name}? its property list Kelp/Info.plist is not in the tree`),
      ),
    );
    expect(
      appIds(iosFiles({ 'Kelp/Info.plist': plist('\t<key>CobaltHeronAppID</key>\n\t<array/>') })),
    ).toEqual(['Debug Release? the key holds an array, not a string']);
  });
});

describe('targets', () => {
  it('are applications only; several are told apart in the names of variants', () => {
    const two = pbxproj()
      .replace(
        'AA0000000000000000000005 /* Kelp */,\n\t\t\t);\n\t\t};\n\t\tAA000000000000000000000B',
        'AA0000000000000000000005 /* Kelp */,\n\t\t\t\tAA0000000000000000000015,\n\t\t\t\tAA0000000000000000000016,\n\t\t\t);\n\t\t};\n\t\tAA000000000000000000000B',
      )
      .replace(
        '\t\tAA0000000000000000000006 = {',
        '\t\tAA0000000000000000000015 = {isa = PBXNativeTarget; name = Frond; buildConfigurationList = AA0000000000000000000006; productType = "com.apple.product-type.application"; };\n\t\tAA0000000000000000000016 = {isa = PBXNativeTarget; name = Widget; buildConfigurationList = AA0000000000000000000006; productType = "com.apple.product-type.app-extension"; };\n\t\tAA0000000000000000000006 = {',
      );
    const { editions } = survey(iosFiles({ [project]: two }));
    expect(editions.map(({ module, variants }) => [module, variants.map(({ name }) => name)])).toEqual([
      ['Kelp', ['Kelp Debug', 'Kelp Release']],
      ['Frond', ['Frond Debug', 'Frond Release']],
    ]);
  });

  it('take Swift packages as dependencies', () => {
    const packaged = pbxproj()
      .replace(
        'name = Kelp;\n',
        'name = Kelp;\n\t\t\tpackageProductDependencies = (AA00000000000000000000F1);\n',
      )
      .replace(
        '\t\tAA0000000000000000000006 = {',
        '\t\tAA00000000000000000000F1 = {isa = XCSwiftPackageProductDependency; package = AA00000000000000000000F2; productName = CobaltHeronAds; };\n\t\tAA00000000000000000000F2 = {isa = XCRemoteSwiftPackageReference; repositoryURL = "https://packages.cobaltheron.example/ads-ios"; requirement = {kind = upToNextMajorVersion; minimumVersion = 6.2.0; }; };\n\t\tAA0000000000000000000006 = {',
      );
    const { facts } = survey(iosFiles({ [project]: packaged, Podfile: null }));
    expect(facts.find(({ kind }) => kind === 'dependency')).toMatchObject({
      name: 'CobaltHeronAds',
      value: '6.2.0',
      network: 'cobalt-heron',
    });
  });
});

describe('Swift conditions', () => {
  const debug = new Set(['DEBUG']);
  it.each([
    ['DEBUG', 'yes'],
    ['!DEBUG', 'no'],
    ['RELEASE', 'no'],
    ['DEBUG && BETA', 'no'],
    ['DEBUG || BETA', 'yes'],
    ['!(DEBUG || BETA)', 'no'],
    ['os(iOS)', 'yes'],
    ['os(macOS)', 'no'],
    ['targetEnvironment(macCatalyst)', 'unknown'],
    ['targetEnvironment(simulator) && BETA', 'no'],
    ['targetEnvironment(simulator) || DEBUG', 'yes'],
    ['swift(>=5.9)', 'unknown'],
    ['true', 'yes'],
    ['', 'unknown'],
  ])('%j is %s in debug', (text, expected) => {
    expect(evaluateCondition(text, definedIn(debug))).toBe(expected);
  });

  it('decide each stretch of a file, nested and chained', () => {
    const text = [
      'a',
      '#if DEBUG',
      'b',
      '#if BETA',
      'c',
      '#endif',
      '#elseif os(macOS)',
      'd',
      '#else',
      'e',
      '#endif',
      'f',
    ].join('\n');
    const state = (conditions: string[]) => {
      const at = compiledAt(text, definedIn(new Set(conditions)));
      return ['a', 'b', 'c', 'd', 'e', 'f']
        .map((letter) =>
          at(
            text.indexOf(
              letter,
              letter === 'a' || letter === 'f'
                ? letter === 'f'
                  ? text.length - 1
                  : 0
                : text.indexOf(`\n${letter}\n`),
            ),
          ),
        )
        .join(' ');
    };
    expect(state(['DEBUG'])).toBe('yes yes no no no yes');
    expect(state(['DEBUG', 'BETA'])).toBe('yes yes yes no no yes');
    expect(state([])).toBe('yes no no no yes yes');
  });
});

describe('string literals', () => {
  it.each([
    [
      'Kotlin',
      { nestedComments: true, tripleQuotes: true },
      'val a = "one" // "two"\n/* "three" /* nested */ "four" */ val c = \'"\'; val b = """five "quoted" """',
      ['one', 'five "quoted" '],
    ],
    [
      'Java',
      { nestedComments: false, tripleQuotes: true },
      'String a = "o\\"ne"; /* "x" */ char q = \'"\'; String b = "two";',
      ['o\\"ne', 'two'],
    ],
    [
      'Swift',
      { nestedComments: true, tripleQuotes: true },
      'let a = "one"; /// "two"\nlet b = "three',
      ['one'],
    ],
  ])('of %s, without what stands in comments', (_, syntax, text, expected) => {
    const found = stringLiterals(text, syntax);
    expect(found.map(({ value }) => value)).toEqual(expected);
    for (const { value, start, end } of found) expect(text.slice(start, end)).toBe(value);
  });
});

describe('IDs in iOS code', () => {
  it('belong to the configurations that compile them', () => {
    const { facts, unresolved } = survey(
      iosFiles({
        'Kelp/App.swift':
          '#if DEBUG\nlet a = "CH-U-100001-BANNER0I"\n#elseif canImport(Marble)\nlet a = "CH-U-310772-AAAA0000"\n#else\nlet a = "CH-U-310772-BBBB0000"\n#endif\n',
      }),
    );
    expect(
      facts.filter(({ kind }) => kind === 'unit-id').map(({ variants, value }) => [variants, value]),
    ).toEqual([[['Debug'], 'CH-U-100001-BANNER0I']]);
    expect(unresolved.map(({ variants, what }) => [variants, what])).toEqual([
      [['Release'], 'whether CH-U-310772-AAAA0000 is used'],
      [['Release'], 'whether CH-U-310772-BBBB0000 is used'],
    ]);
  });

  it('are read with the key that holds them, tabs and all', () => {
    const { facts } = survey(iosFiles({ 'Kelp/Info.plist': plist(appIdKey('CH-I-310772-M6R9V3XC')) }));
    expect(facts.find(({ kind }) => kind === 'app-id')?.place).toEqual({
      path: 'Kelp/Info.plist',
      line: 7,
      column: 2,
      endLine: 8,
      endColumn: 39,
    });
  });
});
