import { describe, expect, it } from 'vitest';
import { runSurvey } from '../../../src/core/surveying.js';
import { androidFiles, kelp, manifest, profiles, treeOf } from '../../support/trees.js';

// Paths in Gradle scripts that are put together: from folders of the build, from names, by concatenation.

const survey = (files: Record<string, string>) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title: kelp() } }).survey;
const script = 'app/build.gradle';
const plugin = "apply plugin: 'com.android.application'\n";
const levels = 'android { defaultConfig { minSdk 27 } }\n';
const tree = (text: string, more: Record<string, string> = {}) =>
  androidFiles({ 'app/build.gradle.kts': null, [script]: `${plugin}${text}`, ...more });
const levelOf = (text: string, path = 'gradle/levels.gradle') =>
  survey(tree(text, { [path]: levels })).facts.find(({ kind }) => kind === 'min-sdk')?.value;

describe('scripts that are applied by a path that is put together', () => {
  it.each([
    'apply from: "$rootDir/gradle/levels.gradle"',
    'apply from: "${rootDir}/gradle/levels.gradle"',
    'apply from: "${rootProject.projectDir}/gradle/levels.gradle"',
    'apply from: "${project.rootDir}/gradle/levels.gradle"',
    'apply from: "${rootDir.path}/gradle/levels.gradle"',
    'apply from: rootDir.toString() + "/gradle/levels.gradle"',
    'apply from: rootDir.absolutePath + "/gradle" + "/levels.gradle"',
    'apply from: new File(rootDir, "gradle/levels.gradle")',
    'apply from: file("../gradle/levels.gradle")',
    'apply from: "../gradle/levels.gradle"',
    'apply from: "$projectDir/../gradle/levels.gradle"',
    'apply from: rootProject.file("gradle/levels.gradle")',
    'apply from: rootDir.resolve("gradle/levels.gradle")',
    'def shared = "$rootDir/gradle"\napply from: "$shared/levels.gradle"',
    'ext.shared = "${rootDir}/gradle"\napply from: "${ext.shared}/levels.gradle"',
    'def shared = new File(rootDir, "gradle")\napply from: new File(shared, "levels.gradle")',
    'def shared = file("../gradle")\napply from: "$shared/levels.gradle"',
    'apply { from "../gradle/levels.gradle" }',
    '["levels"].each { apply from: "$rootDir/gradle/${it}.gradle" }',
    'listOf("levels").forEach { apply(from = "$rootDir/gradle/${it}.gradle") }',
  ])('%s', (text) => {
    expect(levelOf(text)).toBe('27');
  });

  it.each([
    ['a path that a method gives', 'apply from: whereItIs()', /its path is computed/],
    ['a name that nothing declares', 'apply from: "$shared/levels.gradle"', /its path is computed/],
    [
      'a condition',
      'if (project.hasProperty("x")) { apply from: "../gradle/levels.gradle" }',
      /under a condition/,
    ],
    [
      'a loop over what only the build knows',
      'things.each { apply from: "../gradle/levels.gradle" }',
      /under a condition/,
    ],
    ['a file that is not there', 'apply from: "$rootDir/gradle/other.gradle"', /not in the tree/],
    ['an address', 'apply from: "https://brine.example/levels.gradle"', /not in the tree/],
    ['a way out of the tree', 'apply from: "$rootDir/../../levels.gradle"', /computed|not in the tree/],
  ])('%s is said, with its place', (_, text, reason) => {
    const { unresolved, facts } = survey(tree(text, { 'gradle/levels.gradle': levels }));
    expect(facts.filter(({ kind }) => kind === 'min-sdk')).toEqual([]);
    const [found] = unresolved.filter(({ kind }) => kind === 'build-plugin');
    expect(found?.reason).toMatch(reason);
    expect(found?.place).toMatchObject({ path: script });
  });

  it('names that refer to each other in a circle come to nothing', () => {
    const text = 'def a = "$b/x"\ndef b = "$a/y"\napply from: "$a.gradle"';
    expect(survey(tree(text)).unresolved.map(({ reason }) => reason)).toContain('its path is computed');
  });
});

describe('source sets that are moved by a path that is put together', () => {
  const moved = manifest('').replace(
    '<application ',
    '<application android:name="example.brine.kelp.Moved" ',
  );
  it.each([
    ['manifest.srcFile "$projectDir/../common/AndroidManifest.xml"'],
    ['manifest.srcFile file("../common/AndroidManifest.xml")'],
    ['manifest.srcFile new File(rootDir, "common/AndroidManifest.xml")'],
    ['manifest.srcFile base + "/AndroidManifest.xml"'],
    ['root = base'],
  ])('%s', (line) => {
    const text = `def base = "$rootDir/common"\nandroid { sourceSets { main { ${line} } } }\n`;
    const { facts } = survey(tree(text, { 'common/AndroidManifest.xml': moved }));
    expect(facts.find(({ kind }) => kind === 'application-class')?.value).toBe('example.brine.kelp.Moved');
  });
});

describe('modules whose folder is put together', () => {
  it.each([
    'project(":core").projectDir = new File(rootDir, "libraries/core")',
    'project(":core").projectDir = new File(settingsDir, "./libraries/core")',
    'project(":core").projectDir = file("$rootDir/libraries/core")',
    'project(":core").projectDir = rootDir.resolve("libraries/core")',
    'project(":core").projectDir = File(settingsDir, "libraries/core")',
  ])('%s', (line) => {
    const files = androidFiles({
      'app/build.gradle.kts': null,
      [script]: `${plugin}dependencies { implementation project(':core') }\n`,
      'settings.gradle.kts': null,
      'settings.gradle': `include ':app', ':core'\n${line}\n`,
      'libraries/core/build.gradle': "apply plugin: 'com.android.library'\n",
      'libraries/core/src/main/AndroidManifest.xml': manifest(
        '<service android:name="example.ferrowick.zones.NoticeService" />',
      ),
    });
    const found = survey(files).facts.filter(({ kind }) => kind === 'component');
    expect(found.map(({ value }) => value)).toEqual(['example.ferrowick.zones.NoticeService']);
  });
});
