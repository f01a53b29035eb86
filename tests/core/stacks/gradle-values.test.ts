import { describe, expect, it } from 'vitest';
import { runSurvey } from '../../../src/core/surveying.js';
import { findingsOf } from '../../support/rules.js';
import { androidFiles, gradle, kelp, profiles, treeOf } from '../../support/trees.js';

type Files = Record<string, string | null>;

const survey = (files: Files) =>
  runSurvey(
    treeOf(
      Object.fromEntries(
        Object.entries(files).filter((entry): entry is [string, string] => entry[1] !== null),
      ),
    ),
    { name: 'kelp', profiles, title: { id: 'kelp', title: kelp() } },
  ).survey;

/** The level that an expression comes to in the script of the app, or the reason why it cannot be told. */
function level(expression: string, more: Files = {}, before = ''): string | undefined {
  const script = `${before}\n${gradle().replace('minSdk = 24', `minSdk = ${expression}`)}`;
  const { facts, unresolved } = survey({ ...androidFiles({ 'app/build.gradle.kts': script }), ...more });
  return (
    facts.find(({ kind }) => kind === 'min-sdk')?.value ??
    unresolved.find(({ kind }) => kind === 'min-sdk')?.reason
  );
}

const rootScript = (text: string) => ({ 'build.gradle.kts': text });

describe('where scripts keep values', () => {
  it.each([
    ['a map in ext', 'rootProject.ext.versions.min', rootScript('ext.versions = [min: 21, target: 34]\n')],
    ['an ext block', 'versions.min', rootScript('ext {\n  versions = [\n    min: 21,\n  ]\n}\n')],
    ['project.ext', 'project.ext.low', rootScript('project.ext.low = 21\n')],
    ['a map by index', 'rootProject.ext.versions["min"]', rootScript("ext.versions = ['min': 21]\n")],
    ['an entry set later', 'versions.min', rootScript('ext.versions = [:]\nversions.min = 21\n')],
    [
      'an entry set later by its holder',
      'versions.min',
      rootScript('ext.versions = [:]\next.versions.min = 21\n'),
    ],
    ['an entry set by index', 'versions.min', rootScript('ext.versions = [:]\nversions["min"] = 21\n')],
    ['an entry that is put', 'versions.min', rootScript('ext.versions = [:]\nversions.put("min", 21)\n')],
    ['a map of maps', 'levels.android.min', rootScript('ext.levels = [android: [min: 21]]\n')],
    ['a list', 'levels[1]', rootScript('ext.levels = [20, 21]\n')],
    [
      'a map under another name',
      'mine.min',
      rootScript('ext.versions = [min: 21]\next.mine = rootProject.ext.versions\n'),
    ],
    ['ext.set', 'low', rootScript('ext.set("low", 21)\n')],
    ['set in an ext block', 'low', rootScript('ext {\n  set("low", 21)\n}\n')],
    ['extra of the root', 'rootProject.extra["low"]', rootScript('extra["low"] = 21\n')],
    ['a value by extra with a block', 'low', rootScript('val low by extra { 21 }\n')],
    ['Kotlin maps', 'levels["min"]', rootScript('val levels by extra(mapOf("min" to 21))\n')],
    ['a typed Groovy name', 'low', rootScript('int low = 21\next.other = low\n')],
    [
      'extra of Gradle itself',
      'gradle.ext.low',
      { 'settings.gradle.kts': 'gradle.ext.low = 21\ninclude(":app")\n' },
    ],
    [
      'a script that is applied',
      'versions.min',
      { ...rootScript('apply(from = "gradle/v.gradle")\n'), 'gradle/v.gradle': 'ext.versions = [min: 21]\n' },
    ],
    ['a property with a prefix', 'findProperty("brine.min")', { 'gradle.properties': 'brine.min : 21\n' }],
    ['a property over two lines', 'findProperty("low")', { 'gradle.properties': 'low = \\\n    21\n' }],
    ['a system property', 'System.getProperty("low")', { 'gradle.properties': 'systemProp.low=21\n' }],
    [
      'an object of buildSrc',
      'Levels.MIN',
      { 'buildSrc/src/main/kotlin/Levels.kt': 'object Levels {\n  const val MIN = 21\n}\n' },
    ],
    [
      'an object in an object',
      'Levels.Android.min',
      {
        'buildSrc/src/main/java/Levels.kt':
          'internal object Levels {\n  object Android {\n    const val base = 21\n    const val min = base\n  }\n}\n',
      },
    ],
    [
      'a class of an included build',
      'Levels.MIN',
      {
        'settings.gradle.kts': 'pluginManagement { includeBuild("build-logic") }\ninclude(":app")\n',
        'build-logic/src/main/java/Levels.java':
          'package x;\npublic class Levels {\n  public static final int MIN = 21;\n}\n',
      },
    ],
  ] as [string, string, Files][])('%s', (_, expression, more) => {
    expect(level(expression, more)).toBe('21');
  });

  const load = (file: string) =>
    `val props = java.util.Properties()\nval propsFile = rootProject.file("${file}")\nif (propsFile.exists()) { propsFile.inputStream().use { props.load(it) } }\n`;
  it.each([
    [
      'from a file that a script loads',
      'props.getProperty("low")',
      { 'levels.properties': 'low=21\n' },
      '21',
    ],
    ['by index', 'props["low"]', { 'levels.properties': 'low=21\n' }, '21'],
    ['with a stand-in', 'props.getProperty("low") ?: 21', { 'levels.properties': 'other=1\n' }, '21'],
    [
      'from a file without it',
      'props.getProperty("low")',
      { 'levels.properties': '' },
      'low is not set in levels.properties',
    ],
    [
      'from a file that is elsewhere',
      'props.getProperty("low")',
      {},
      'low comes from levels.properties, which is not in the tree',
    ],
  ] as [string, string, Files, string][])('properties %s', (_, expression, more, expected) => {
    expect(level(expression, more, load('levels.properties'))).toBe(expected);
  });
});

describe('why a value cannot be told', () => {
  it.each([
    ['a condition', 'low', rootScript('if (x) { ext.low = 21 }\n'), 'it is set under a condition'],
    ['nothing', 'nowhere', {}, '“nowhere” is not set in any file of the tree'],
    [
      'a script that is not in the tree',
      'rootProject.ext.low',
      rootScript('apply(from = "../outside.gradle")\n'),
      '“low” may be set in ../outside.gradle, which cannot be read: its path is computed',
    ],
    [
      'code of the build',
      'Levels.MIN',
      { 'buildSrc/src/main/kotlin/Levels.kt': 'object Levels {\n  val MIN: Int\n    get() = read()\n}\n' },
      '“Levels.MIN” is computed in buildSrc/src/main/kotlin/Levels.kt',
    ],
  ] as [string, string, Files, string][])('%s', (_, expression, more, expected) => {
    expect(level(expression, more)).toBe(expected);
  });
});

describe('plugins of the build’s own code', () => {
  const plain =
    'plugins {\n  id("brine.app")\n}\nandroid {\n  defaultConfig {\n    applicationId = "example.brine.kelp"\n  }\n}\n';

  it('are part of the script that applies them when they are scripts', () => {
    const found = survey({
      ...androidFiles({ 'app/build.gradle.kts': plain }),
      'buildSrc/src/main/kotlin/brine.app.gradle.kts':
        'plugins {\n  id("com.android.application")\n}\nandroid {\n  compileSdk = 35\n  defaultConfig {\n    minSdk = 21\n  }\n}\ndependencies {\n  implementation("example.cobaltheron:ads-sdk:6.2.0")\n}\n',
    });
    expect(found.editions).toHaveLength(1);
    expect(found.facts.find(({ kind }) => kind === 'min-sdk')).toMatchObject({
      value: '21',
      place: { path: 'buildSrc/src/main/kotlin/brine.app.gradle.kts', line: 7 },
    });
  });

  it('leave open what they set when they are classes', () => {
    const found = survey({
      ...androidFiles({ 'app/build.gradle.kts': plain }),
      'settings.gradle.kts': 'pluginManagement {\n  includeBuild("build-logic")\n}\ninclude(":app")\n',
      'build-logic/build.gradle.kts':
        'gradlePlugin {\n  plugins {\n    register("app") {\n      id = "brine.app"\n      implementationClass = "AppPlugin"\n    }\n  }\n}\n',
      'build-logic/src/main/kotlin/AppPlugin.kt':
        'class AppPlugin : Plugin<Project> {\n  override fun apply(target: Project) {\n    target.pluginManager.apply("com.android.application")\n  }\n}\n',
    });
    expect(found.editions).toMatchObject([{ identifier: 'example.brine.kelp' }]);
    expect(found.unresolved).toContainEqual(
      expect.objectContaining({
        kind: 'build-plugin',
        reason: 'it is a plugin class (build-logic/src/main/kotlin/AppPlugin.kt)',
        place: { path: 'app/build.gradle.kts', line: 2, column: 3, endLine: 2, endColumn: 18 },
      }),
    );
  });
});

describe('scripts that cannot be read', () => {
  const files = (head: string, more: Record<string, string> = {}) => ({
    ...androidFiles({
      'app/build.gradle.kts': gradle()
        .replace(/^.*ads-sdk.*$/m, '')
        .replace('android {', `${head}\nandroid {`),
    }),
    ...more,
  });
  const rules = (given: Record<string, string>) => findingsOf(given, kelp()).map(({ rule }) => rule);

  it('leave open what is missing', () => {
    const given = files('apply(from = "https://build.brine.example/ads.gradle")');
    expect(rules(files(''))).toContain('build/dependency-missing');
    expect(rules(given)).not.toContain('build/dependency-missing');
    expect(rules(given)).toContain('tree/cannot-tell');
  });

  const build = (source: string) => ({
    'buildSrc/build.gradle.kts':
      'gradlePlugin {\n  plugins {\n    register("more") {\n      id = "brine.more"\n      implementationClass = "x.More"\n    }\n  }\n}\n',
    'buildSrc/src/main/kotlin/x/More.kt': `package x\nclass More : Plugin<Project> {\n  ${source}\n}\n`,
  });
  it('leave it open when a plugin class names the SDK, and only then', () => {
    const head = 'apply(plugin = "brine.more")';
    expect(rules(files(head, build('val sdk = "example.cobaltheron:ads-sdk:6.2.0"')))).not.toContain(
      'build/dependency-missing',
    );
    expect(rules(files(head, build('val other = 1')))).toContain('build/dependency-missing');
  });
});
