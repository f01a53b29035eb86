import { describe, expect, it } from 'vitest';
import { runSurvey } from '../../../src/core/surveying.js';
import { androidFiles, kelp, profiles, treeOf } from '../../support/trees.js';

const survey = (text: string) =>
  runSurvey(treeOf(androidFiles({ 'app/build.gradle.kts': null, 'app/build.gradle': text })), {
    name: 'kelp',
    profiles,
    title: { id: 'kelp', title: kelp() },
  }).survey;
const flavours =
  "flavorDimensions 'tier', 'store'\nproductFlavors {\n free { dimension 'tier' }\n paid { dimension 'tier' }\n north { dimension 'store' }\n south { dimension 'store' }\n}";
const read = (inAndroid: string, beside = '') => {
  const { editions, unresolved } = survey(
    `apply plugin: 'com.android.application'\nandroid {\nnamespace 'example.brine.kelp'\n${flavours}\n${inAndroid}\n}\n${beside}\n`,
  );
  return {
    variants: editions[0]?.variants.map(({ name }) => name) ?? [],
    open: unresolved
      .filter(({ what }) => what === 'whether this variant is built')
      .flatMap(({ variants }) => variants),
  };
};
const all = ['free', 'paid'].flatMap((tier) =>
  ['North', 'South'].flatMap((store) => ['Debug', 'Release'].map((type) => `${tier}${store}${type}`)),
);
const without = (test: RegExp) => all.filter((name) => !test.test(name));
const beforeVariants = (args: string, body: string) =>
  `androidComponents {\n beforeVariants${args} { ${body} }\n}`;

describe('filters that can be resolved take variants out', () => {
  it.each([
    [
      'a build type',
      "variantFilter { variant ->\n if (variant.buildType.name == 'debug') {\n setIgnore(true)\n }\n}",
      /Debug$/,
    ],
    [
      'on one line',
      "variantFilter { variant -> if (variant.buildType.name == 'debug') { setIgnore(true) } }",
      /Debug$/,
    ],
    [
      'without braces',
      "variantFilter { variant ->\n if (variant.buildType.name.equals('debug')) setIgnore(true)\n}",
      /Debug$/,
    ],
    ['a name', "variantFilter { if (it.name == 'freeNorthDebug') { it.ignore = true } }", /^freeNorthDebug$/],
    [
      'flavours by a name that is declared',
      "variantFilter { variant ->\n def names = variant.flavors*.name\n if (names.contains('free') && names.contains('south')) { setIgnore(true) }\n}",
      /^freeSouth/,
    ],
    [
      'one flavour or another',
      "variantFilter { variant ->\n def names = variant.flavors.collect { it.name }\n if (names.contains('free') || variant.buildType.name == 'debug') { variant.setIgnore(true) }\n}",
      /^free|Debug$/,
    ],
    ['a value that is assigned', "variantFilter { ignore = name.startsWith('paid') }", /^paid/],
    [
      'conditions in each other',
      "variantFilter { variant ->\n if (variant.name.contains('South')) {\n if (variant.buildType.name != 'release') {\n setIgnore(true)\n }\n }\n}",
      /SouthDebug$/,
    ],
  ])('variantFilter: %s', (_, text, gone) => {
    expect(read(text)).toEqual({ variants: without(gone), open: [] });
  });

  it.each([
    ['a build type', '(selector().withBuildType("debug"))', 'it.enable = false', /Debug$/],
    [
      'a flavour',
      '(selector().withFlavor("tier" to "paid"))',
      'variantBuilder -> variantBuilder.enable = false',
      /^paid/,
    ],
    ['a name', '(selector().withName("paidSouthRelease"))', 'it.enabled = false', /^paidSouthRelease$/],
    [
      'both',
      '(selector().withBuildType("debug").withFlavor("store" to "south"))',
      'it.enable = false',
      /SouthDebug$/,
    ],
    ['all of a type, by a condition', '', 'if (it.buildType == "debug") { it.enable = false }', /Debug$/],
    ['by a value', '(selector().all())', 'it.enable = it.buildType != "debug"', /Debug$/],
    ['by flavours', '', 'if (it.productFlavors.contains("tier" to "free")) { it.enable = false }', /^free/],
    [
      'by any flavour',
      '',
      'if (it.productFlavors.any { it.second == "free" }) { it.enable = false }',
      /^free/,
    ],
  ])('beforeVariants: %s', (_, args, body, gone) => {
    expect(read('', beforeVariants(args, body))).toEqual({ variants: without(gone), open: [] });
  });
});

describe('filters that take nothing out, or of which it cannot be said', () => {
  it.each([
    ['it is ignored never', 'variantFilter { setIgnore(false) }', []],
    [
      'a comment',
      "variantFilter { variant ->\n // if (variant.name == 'x') { setIgnore(true) }\n println(variant.name)\n}",
      [],
    ],
    [
      'a property of the build',
      "variantFilter { if (project.hasProperty('fast')) { setIgnore(true) } }",
      all,
    ],
    [
      'a property, for one build type',
      "variantFilter { variant ->\n if (variant.buildType.name == 'debug' && project.hasProperty('fast')) { setIgnore(true) }\n}",
      all.filter((name) => name.endsWith('Debug')),
    ],
    [
      'a list',
      "variantFilter { variant ->\n if (variant.name in ['freeNorthDebug']) { setIgnore(true) }\n}",
      all,
    ],
    [
      'an else',
      "variantFilter { variant ->\n if (variant.name == 'x') { println 'x' } else { setIgnore(true) }\n}",
      all,
    ],
  ])('%s', (_, text, open) => {
    const found = read(text);
    expect(found.variants).toEqual(all);
    expect([...found.open].sort()).toEqual([...open].sort());
  });

  it('a selector that is not known here leaves its variants open', () => {
    const found = read('', beforeVariants('(selector().withDefaultMinSdk())', 'it.enable = false'));
    expect(found.variants).toEqual(all);
    expect(found.open).toHaveLength(all.length);
  });
});
