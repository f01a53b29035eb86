import { describe, expect, it } from 'vitest';
import { brackwater, onBrackwater } from '../../support/brackwater.js';
import { findingsOf } from '../../support/rules.js';
import { androidFiles, gradle, manifest } from '../../support/trees.js';
import { comesBack, holds, plan, text, type Files } from '../../support/wiring.js';

// What a profile may ask of an Android build beyond the usual: read, checked, wired and taken out again.

const profiles = [brackwater()];
const title = onBrackwater();
const main = 'app/src/main/AndroidManifest.xml';
const script = 'app/build.gradle.kts';
const options = `    compileOptions {
        sourceCompatibility = JavaVersion.VERSION_1_8
        targetCompatibility = JavaVersion.VERSION_1_8
    }
    kotlinOptions { jvmTarget = "1.8" }
`;
const shrunk = `    buildTypes {
        release {
            isMinifyEnabled = true
            proguardFiles(getDefaultProguardFile("proguard-android-optimize.txt"), "rules.pro")
        }
    }
`;
const files = (more: Record<string, string | null> = {}) =>
  androidFiles({
    'settings.gradle.kts':
      'dependencyResolutionManagement {\n    repositories {\n        google()\n    }\n}\ninclude(":app")\n',
    [script]: gradle(options + shrunk, 'implementation("example.brine:shore:1.0")'),
    [main]: manifest('').replace('<application ', '<application android:allowBackup="true" '),
    'app/src/main/java/example/brine/kelp/KelpApp.java': null,
    'app/src/debug/res/values/ids.xml': null,
    'app/src/release/res/values/ids.xml': null,
    'app/rules.pro': '# ours\n-keep class example.brine.kelp.Api\n',
    ...more,
  });
const rulesOf = (tree: Files, on = title) => [
  ...new Set(findingsOf(tree as Record<string, string>, on, undefined, { profiles }).map(({ rule }) => rule)),
];
const asked = [
  'app-id/missing',
  'build/dependency-missing',
  'build/desugaring-missing',
  'build/java-level-too-low',
  'build/shrinker-rule-missing',
  'manifest/component-missing',
  'manifest/merge-directive-missing',
  'manifest/meta-data-missing',
];

describe('a network that asks a lot of an Android build', () => {
  it('has everything missing named, wired, and taken out again', () => {
    const tree = files();
    expect(rulesOf(tree)).toEqual(expect.arrayContaining(asked));
    const made = holds(tree, title, { profiles });
    expect(rulesOf(made.after).filter((rule) => asked.includes(rule))).toEqual([]);
    const wired = text(made.after[main]);
    expect(wired).toContain('xmlns:tools="http://schemas.android.com/tools"');
    expect(wired).toContain('tools:replace="android:allowBackup"');
    expect(wired).toContain('android:name="example.brackwater.permission.PHONE" tools:node="remove"');
    expect(wired).toContain('android:resource="@xml/brackwater_services"');
    expect(text(made.after['app/rules.pro'])).toContain('-keep class example.brackwater.bridge.** { *; }\n');
    const build = text(made.after[script]);
    expect(build).toContain('JavaVersion.VERSION_11');
    expect(build).toContain('jvmTarget = "11"');
    expect(build).toContain('isCoreLibraryDesugaringEnabled = true');
    // Raising the level is left in: other code may be written for it by then.
    comesBack(
      { ...tree, [script]: tree[script]?.replaceAll('1_8', '11').replace('"1.8"', '"11"') ?? '' },
      title,
      made,
      profiles,
    );
  });

  it('in a manifest that binds the prefix of directives already', () => {
    const own = manifest('').replace(
      '<application ',
      '<application xmlns:tools="http://schemas.android.com/tools" tools:replace="android:label" android:allowBackup="true" ',
    );
    const bound = own
      .replace(' xmlns:tools="http://schemas.android.com/tools"', '')
      .replace('<manifest ', '<manifest xmlns:tools="http://schemas.android.com/tools" ');
    const made = holds(files({ [main]: bound }), title, { profiles });
    expect(text(made.after[main])).toContain('tools:replace="android:label,android:allowBackup"');
  });

  it.each([
    [
      'another value',
      '<meta-data android:name="example.brackwater.MEASURE" android:value="true" />',
      'manifest/meta-data-differs',
    ],
    [
      'a value where a resource belongs',
      '<meta-data android:name="example.brackwater.SERVICES" android:value="@xml/brackwater_services" />',
      'manifest/meta-data-differs',
    ],
    [
      'in an activity',
      '<activity android:name=".A"><meta-data android:name="example.brackwater.MEASURE" android:value="false" /></activity>',
      'manifest/meta-data-missing',
    ],
    [
      'another theme',
      '<activity android:name="example.brackwater.FullScreen" android:theme="@style/Ours" />',
      'manifest/component-differs',
    ],
  ])('meta-data and components: %s', (_, line, rule) => {
    const tree = files({ [main]: manifest(line) });
    const at = manifest(line).slice(0, manifest(line).indexOf(line)).split('\n').length;
    const found = findingsOf(tree, title, undefined, { profiles }).filter((one) => one.rule === rule);
    expect(found.map(({ place }) => place?.line)).toContain(at);
    holds(tree, title, { profiles });
  });

  it.each([
    ['a tool chain', `${shrunk}}\nkotlin { jvmToolchain(17)`, true],
    ['nothing, which is level 8', shrunk, false],
    [
      'a constant of a catalogue',
      `    compileOptions { targetCompatibility = JavaVersion.toVersion(libs.versions.java.get()) }\n`,
      true,
    ],
    ['17 in words', '    compileOptions { targetCompatibility = JavaVersion.VERSION_17 }\n', true],
    ['1.8 in quotes', '    compileOptions { targetCompatibility = "1.8" }\n', false],
  ])('the Java level: %s', (_, block, isEnough) => {
    const tree = files({
      [script]: gradle(block, ''),
      'gradle/libs.versions.toml': '[versions]\njava = "17"\n',
    });
    expect(rulesOf(tree).includes('build/java-level-too-low')).toBe(!isEnough);
  });

  it('asks for no shrinker rule where nothing is shrunk, and finds one whatever blanks are in it', () => {
    expect(rulesOf(files({ [script]: gradle(options, '') }))).not.toContain('build/shrinker-rule-missing');
    const spaced = '-keep   class example.brackwater.bridge.** {\n    *;\n}\n';
    expect(rulesOf(files({ 'app/rules.pro': spaced }))).not.toContain('build/shrinker-rule-missing');
    expect(rulesOf(files({ 'app/rules.pro': `# ${spaced.replaceAll('\n', ' ')}\n` }))).toContain(
      'build/shrinker-rule-missing',
    );
  });

  it('leaves dependencies for formats that a title does not use', () => {
    const { after } = plan2(files(), onBrackwater({ rewarded: false }));
    expect(after).toContain('example.brackwater:core:3.1.0');
    expect(after).not.toContain('example.brackwater:reward');
  });

  it('writes the version that others of the same group have, and says when they differ', () => {
    const held = files({ [script]: gradle(options, 'implementation("example.brackwater:core:3.4.2")') });
    expect(plan2(held, title).after).toContain('example.brackwater:reward:3.4.2');
    const mixed =
      'implementation("example.brackwater:core:3.4.2")\n    implementation("example.brackwater:reward:3.1.0")';
    expect(rulesOf(files({ [script]: gradle(options, mixed) }))).toContain('build/versions-mixed');
  });
});

function plan2(tree: Files, on: typeof title) {
  const { patch } = plan(tree, on, { profiles });
  return { after: patch };
}
