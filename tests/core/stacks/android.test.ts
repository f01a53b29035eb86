import { describe, expect, it } from 'vitest';
import type { Fact, Survey } from '../../../src/core/facts/model.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { stageSets } from '../../../src/core/stacks/android/survey/source-sets.js';
import {
  androidFiles,
  appIdMetaData,
  filesBelow,
  gradle,
  kelp,
  manifest,
  profiles,
  root,
  treeOf,
} from '../../support/trees.js';

function survey(files: Record<string, string | Uint8Array>, title = kelp()): Survey {
  return runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title } }).survey;
}

const facts = (found: Survey, kind: Fact['kind']) =>
  found.facts.filter((fact) => fact.kind === kind).map(({ variants, value }) => [variants.join(' '), value]);
const build = (text: string) => androidFiles({ 'app/build.gradle.kts': text });
const groovy = (text: string, more: Record<string, string> = {}) =>
  androidFiles({
    'app/build.gradle.kts': null,
    'settings.gradle.kts': null,
    'settings.gradle': "include ':app'\n",
    'app/build.gradle': text,
    ...more,
  });

describe('recognising Android trees', () => {
  it.each([
    ['a plugin by ID, Kotlin', build(gradle())],
    ['a plugin by ID, Groovy', groovy("plugins {\n  id 'com.android.application'\n}\n")],
    ['an applied plugin', groovy("apply plugin: 'com.android.application'\n")],
    [
      'an alias of the catalogue',
      {
        ...build('plugins { alias(libs.plugins.android.application) }\n'),
        'gradle/libs.versions.toml':
          '[plugins]\nandroid-application = { id = "com.android.application", version = "8" }\n',
      },
    ],
  ])('%s', (_, files) => {
    expect(survey(files).stacks).toMatchObject([
      {
        stack: 'native-android',
        root: '',
        evidence: [expect.stringContaining('applies the Android application plugin (module app)')],
      },
    ]);
  });

  it.each([
    ['a library', build('plugins { id("com.android.library") }\n')],
    [
      'a plugin that is only declared',
      build('plugins { id("com.android.application") version "8" apply false }\n'),
    ],
    [
      'an alias that is only declared',
      {
        ...build('plugins { alias(libs.plugins.app) apply false }\n'),
        'gradle/libs.versions.toml': '[plugins]\napp = { id = "com.android.application", version = "8" }\n',
      },
    ],
    ['a plugin in a comment', build('// id("com.android.application")\n')],
  ])('not %s', (_, files) => {
    expect(survey(files).stacks).toEqual([]);
  });
});

describe('variants', () => {
  it('are build types times flavours, in the order of their dimensions', () => {
    const text = gradle(
      '    flavorDimensions += listOf("tier", "store")\n    productFlavors {\n create("north") { dimension = "store" }\n create("free") { dimension = "tier"; applicationIdSuffix = ".free" }\n create("paid") { dimension = "tier" }\n }\n',
    );
    const found = survey(build(text));
    expect(found.editions[0]?.variants.map(({ name }) => name)).toEqual([
      'freeNorthDebug',
      'freeNorthRelease',
      'paidNorthDebug',
      'paidNorthRelease',
    ]);
    expect(found.editions[0]?.identifiers).toMatchObject({
      freeNorthDebug: 'example.brine.kelp.free',
      paidNorthRelease: 'example.brine.kelp',
    });
  });

  it('inherit what initWith copies', () => {
    const text = gradle(
      '    buildTypes {\n debug { applicationIdSuffix = ".dev" }\n create("staging") { initWith(getByName("debug")) }\n }\n',
    );
    expect(survey(build(text)).editions[0]?.identifiers).toEqual({
      debug: 'example.brine.kelp.dev',
      release: 'example.brine.kelp',
      staging: 'example.brine.kelp.dev',
    });
  });

  it('get their stage from the most specific name', () => {
    const text = gradle('    productFlavors { create("beta") {}\n create("full") {} }\n');
    const { editions } = survey(
      build(text),
      kelp({ stages: { test: ['debug', 'beta'], production: ['RELEASE', 'fullDebug'] } }),
    );
    expect(editions[0]?.variants.map(({ name, stage, stageWhy }) => [name, stage, stageWhy])).toEqual([
      ['betaDebug', 'test', 'flavour beta'],
      ['betaRelease', 'test', 'flavour beta'],
      ['fullDebug', 'production', 'variant fullDebug'],
      ['fullRelease', 'production', 'build type RELEASE'],
    ]);
  });

  it.each([
    [
      'build types decide',
      [
        ['debug', [], 'test'],
        ['release', [], 'production'],
      ],
      ['debug', 'release'],
    ],
    [
      'flavours decide',
      [
        ['debug', ['beta'], 'test'],
        ['release', ['beta'], 'test'],
        ['debug', ['full'], 'production'],
        ['release', ['full'], 'production'],
      ],
      ['beta', 'full'],
    ],
    [
      'only whole variants decide',
      [
        ['debug', ['beta'], 'test'],
        ['release', ['beta'], 'test'],
        ['debug', ['full'], 'test'],
        ['release', ['full'], 'production'],
      ],
      ['betadebug', 'betarelease', 'fulldebug', 'fullrelease'],
    ],
    [
      'one has no stage',
      [
        ['debug', [], 'test'],
        ['release', [], null],
      ],
      undefined,
    ],
  ] as const)('keep their stages apart by the coarsest source sets: %s', (_, rows, sets) => {
    const variants = rows.map(([type, flavours, stage]) => ({
      name: [...flavours, type].join(''),
      type,
      flavours: [...flavours],
      stage,
      stageWhy: '',
    }));
    expect(stageSets(variants)?.map(({ sourceSet }) => sourceSet)).toEqual(sets);
  });
});

describe('values in Gradle', () => {
  const level = (expression: string, more: Record<string, string> = {}, script = gradle()) => {
    const { facts: all, unresolved } = survey({
      ...build(script.replace('minSdk = 24', `minSdk = ${expression}`)),
      ...more,
    });
    return (
      all.find(({ kind }) => kind === 'min-sdk')?.value ??
      unresolved.find(({ kind }) => kind === 'min-sdk')?.reason
    );
  };
  const properties = { 'gradle.properties': '# levels\nminLevel = 26\n' };
  it.each([
    ['a number', '24', {}, '24'],
    [
      'a property of gradle.properties',
      'project.findProperty("minLevel").toString().toInt()',
      properties,
      '26',
    ],
    ['a provider', 'providers.gradleProperty("minLevel").get().toInt()', properties, '26'],
    ['an absent property with another value', 'project.findProperty("absent") ?: 25', {}, '25'],
    ['a present property with another value', 'findProperty("minLevel") ?: 25', properties, '26'],
    [
      'the root script’s extra',
      'rootProject.extra["low"]',
      { 'build.gradle.kts': 'extra["low"] = 27\n' },
      '27',
    ],
    [
      'the root script’s ext block',
      'rootProject.ext.low',
      { 'build.gradle.kts': 'buildscript {\n  ext { low = 28 }\n}\n' },
      '28',
    ],
    ['a value by extra', 'low', { 'build.gradle.kts': 'val low by extra(29)\n' }, '29'],
    [
      'the catalogue',
      'libs.versions.low.get().toInt()',
      { 'gradle/libs.versions.toml': '[versions]\nlow = "30"\n' },
      '30',
    ],
    ['a cast', 'rootProject.ext.low as Integer', { 'build.gradle.kts': 'ext.low = 31\n' }, '31'],
    ['a name that leads to another', 'a', { 'build.gradle.kts': 'val b = 32\nval a = b\n' }, '32'],
    ['a circle', 'a', { 'build.gradle.kts': 'val b = a\nval a = b\n' }, 'it refers to itself'],
    [
      'an environment variable',
      'System.getenv("LOW").toInt()',
      {},
      'it comes from the environment variable LOW',
    ],
    ['an unknown name', 'nowhere', {}, '“nowhere” is not set in any file of the tree'],
    [
      'an unknown property',
      'project.property("nowhere")',
      {},
      'the property nowhere is not set in any file of the tree',
    ],
    ['a computed value', 'levels(3)', {}, 'it is computed when the build runs'],
    ['a list', '[1, 2]', {}, 'it is a computed expression'],
  ])('%s', (_, expression, more, expected) => {
    expect(level(expression, more)).toBe(expected);
  });

  it('join strings, with the evidence of every part', () => {
    const { facts: all } = survey({
      ...build(
        gradle().replace('applicationId = "example.brine.kelp"', 'applicationId = "${base}.kelp" + tail'),
      ),
      'build.gradle.kts': 'val base = "example.brine"\nval tail = ".one"\n',
    });
    const identifier = all.find(({ kind }) => kind === 'identifier');
    expect(identifier?.value).toBe('example.brine.kelp.one');
    expect(identifier?.chain.map(({ place }) => `${place?.path}:${place?.line}`)).toEqual([
      'app/build.gradle.kts:11',
      'build.gradle.kts:1',
      'build.gradle.kts:2',
    ]);
  });
});

describe('effective app IDs', () => {
  const value = (files: Record<string, string>) => facts(survey(files), 'app-id');
  const via = (android: string) =>
    androidFiles({
      'app/src/main/AndroidManifest.xml': manifest(appIdMetaData('${heron}')),
      'app/build.gradle.kts': gradle(android),
    });
  it.each([
    ['by index', 'defaultConfig { manifestPlaceholders["heron"] = "A" }'],
    ['as a map', 'defaultConfig { manifestPlaceholders += mapOf("heron" to "A") }'],
    ['as a list', 'defaultConfig { manifestPlaceholders = [heron: "A"] }'],
    ['put', 'defaultConfig { manifestPlaceholders.put("heron", "A") }'],
    ['put all', 'defaultConfig { manifestPlaceholders.putAll(mapOf("heron" to "A")) }'],
    ['added', 'defaultConfig { addManifestPlaceholders(mapOf("heron" to "A")) }'],
    ['named arguments', 'defaultConfig { manifestPlaceholders(heron: "A") }'],
  ])('through a placeholder set %s', (_, android) => {
    expect(value(via(`    ${android}`))).toEqual([['debug release', 'A']]);
  });

  it('take the strongest placeholder: build type over flavour over default', () => {
    const android =
      '    defaultConfig { manifestPlaceholders["heron"] = "D" }\n    productFlavors { create("free") { manifestPlaceholders["heron"] = "F" }\n create("paid") {} }\n    buildTypes { release { manifestPlaceholders["heron"] = "R" } }';
    expect(value(via(android))).toEqual([
      ['freeDebug', 'F'],
      ['freeRelease paidRelease', 'R'],
      ['paidDebug', 'D'],
    ]);
  });

  it('follow manifest, resource and overlay, each with its place', () => {
    const { facts: all } = survey(androidFiles());
    const release = all.find((fact) => fact.kind === 'app-id' && fact.variants[0] === 'release');
    expect(release).toMatchObject({
      value: 'CH-A-310772-QK4T8W2N',
      carrier: 'manifest',
      effective: true,
      network: 'cobalt-heron',
    });
    expect(release?.chain).toMatchObject([
      {
        what: 'manifest',
        value: '@string/heron',
        place: { path: 'app/src/main/AndroidManifest.xml', line: 7 },
      },
      {
        what: 'string heron',
        value: 'CH-A-310772-QK4T8W2N',
        place: { path: 'app/src/release/res/values/ids.xml', line: 2 },
      },
    ]);
  });

  it('take the strongest manifest and the strongest resource', () => {
    const files = androidFiles({
      'app/src/main/res/values/strings.xml': '<resources><string name="heron">MAIN</string></resources>',
      'app/src/release/res/values/ids.xml': null,
      'app/src/debug/AndroidManifest.xml': manifest(appIdMetaData('DEBUG')),
    });
    expect(value(files)).toEqual([
      ['debug', 'DEBUG'],
      ['release', 'MAIN'],
    ]);
  });

  it('take the resource of the first dimension before that of the second, and of a build type before both', () => {
    const text = gradle(
      '    flavorDimensions += listOf("tier", "store")\n    productFlavors {\n create("north") { dimension = "store" }\n create("free") { dimension = "tier" }\n create("paid") { dimension = "tier" }\n }\n',
    );
    const strings = (id: string) => `<resources><string name="heron">${id}</string></resources>`;
    const files = androidFiles({
      'app/build.gradle.kts': text,
      'app/src/release/res/values/ids.xml': null,
      'app/src/debug/res/values/ids.xml': strings('DEBUG'),
      'app/src/north/res/values/ids.xml': strings('NORTH'),
      'app/src/free/res/values/ids.xml': strings('FREE'),
    });
    expect(value(files)).toEqual([
      ['freeNorthDebug paidNorthDebug', 'DEBUG'],
      ['freeNorthRelease', 'FREE'],
      ['paidNorthRelease', 'NORTH'],
    ]);
    const whole = { ...files, 'app/src/freeNorth/res/values/ids.xml': strings('BOTH') };
    expect(value(whole)).toContainEqual(['freeNorthRelease', 'BOTH']);
  });

  it('leave resources of other configurations out', () => {
    const files = androidFiles({
      'app/src/release/res/values/ids.xml': null,
      'app/src/release/res/values-de/ids.xml': '<resources><string name="heron">DE</string></resources>',
    });
    expect(survey(files).unresolved).toMatchObject([
      { variants: ['release'], reason: 'no source set of this variant has a string heron' },
    ]);
  });
});

describe('real trees', () => {
  it('the React Native template: what a person reading its files would say', () => {
    const files = filesBelow(`${root}/node_modules/@react-native-community/template/template`);
    const {
      editions,
      facts: all,
      unresolved,
      problems,
    } = runSurvey(treeOf(files), { name: 'template', profiles, title: null }).survey;
    expect(problems).toEqual([]);
    expect(
      unresolved
        .filter(({ platform }) => platform === 'android')
        .map(({ kind, reason, place }) => [kind, reason, `${place.path}:${place.line}`]),
    ).toEqual([['kotlin', 'the class path names the plugin without a version', 'android/build.gradle:17']]);
    expect(
      editions.map(({ platform, module, identifier, variants }) => [
        platform,
        module,
        identifier,
        variants.map(({ name }) => name),
      ]),
    ).toEqual([
      ['android', 'android/app', 'com.helloworld', ['debug', 'release']],
      ['ios', 'HelloWorld', 'org.reactjs.native.example.HelloWorld', ['Debug', 'Release']],
    ]);
    const of = (kind: Fact['kind']) =>
      all
        .filter((fact) => fact.kind === kind)
        .map(({ value, place }) => `${value} ${place.path}:${place.line}`);
    expect(of('min-sdk')).toEqual(['24 android/app/build.gradle:83']);
    expect(of('compile-sdk')).toEqual(['37 android/app/build.gradle:78']);
    expect(of('permission')).toEqual([
      'android.permission.INTERNET android/app/src/main/AndroidManifest.xml:3',
    ]);
    expect(of('deployment-target')[0]).toContain('15.1 ios/HelloWorld.xcodeproj/project.pbxproj');
    const minSdk = all.find(({ kind }) => kind === 'min-sdk');
    expect(minSdk?.chain.at(-1)).toMatchObject({
      value: '24',
      place: { path: 'android/build.gradle', line: 4 },
    });
  });
});
