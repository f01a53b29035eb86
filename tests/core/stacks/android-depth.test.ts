import { factDetail } from '../../../src/core/facts/show.js';
import { describe, expect, it } from 'vitest';
import type { Fact, Survey } from '../../../src/core/facts/model.js';
import { runSurvey } from '../../../src/core/surveying.js';
import {
  androidFiles,
  appIdMetaData,
  gradle,
  kelp,
  manifest,
  profiles,
  treeOf,
} from '../../support/trees.js';
import { holds } from '../../support/wiring.js';

function survey(files: Record<string, string>): Survey {
  return runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title: kelp() } }).survey;
}

const facts = (found: Survey, kind: Fact['kind']) =>
  found.facts
    .filter((fact) => fact.kind === kind && fact.effective === true)
    .map(({ variants, value }) => `${variants.join(' ')}: ${value}`);
const build = (text: string, more: Record<string, string> = {}) =>
  survey(androidFiles({ 'app/build.gradle.kts': text, ...more }));
const groovy = (text: string, more: Record<string, string | null> = {}) =>
  survey(
    androidFiles({
      'app/build.gradle.kts': null,
      'settings.gradle.kts': null,
      'settings.gradle': "include ':app'\n",
      'app/build.gradle': `plugins { id 'com.android.application' }\n${text}`,
      ...more,
    }),
  );
const mainManifest = 'app/src/main/AndroidManifest.xml';
const tools = 'xmlns:tools="http://schemas.android.com/tools"';
const app = (body: string, attributes = '', head = '') => `<?xml version="1.0" encoding="utf-8"?>
<manifest xmlns:android="http://schemas.android.com/apk/res/android" ${tools}>
${head}
    <application ${attributes}>
${body}
    </application>
</manifest>
`;

describe('scripts that are pulled in', () => {
  it.each([
    ["apply from: 'levels.gradle'", 'app/levels.gradle'],
    ["apply from: '../gradle/levels.gradle'", 'gradle/levels.gradle'],
    ['apply from: "$rootDir/gradle/levels.gradle"', 'gradle/levels.gradle'],
    ['apply from: "${rootProject.projectDir}/gradle/levels.gradle"', 'gradle/levels.gradle'],
    ["apply from: rootProject.file('gradle/levels.gradle')", 'gradle/levels.gradle'],
    ["apply from: rootDir + '/gradle/levels.gradle'", 'gradle/levels.gradle'],
  ])('%s', (line, path) => {
    const found = groovy(`${line}\nandroid { namespace 'example.brine.kelp' }\n`, {
      [path]: "android { defaultConfig { minSdkVersion 27 } }\next.unused = '1'\n",
    });
    expect(facts(found, 'min-sdk')).toEqual(['debug release: 27']);
    expect(found.facts.find(({ kind }) => kind === 'min-sdk')?.place.path).toBe(path);
  });

  it('give properties to those that pull them in, and to modules of the root', () => {
    const found = groovy('android { defaultConfig { minSdkVersion rootProject.ext.versions.minSdk } }', {
      'build.gradle': "apply from: 'gradle/versions.gradle'\n",
      'gradle/versions.gradle': 'ext.versions = [minSdk: 28, target: 35]\n',
    });
    expect(facts(found, 'min-sdk')).toEqual(['debug release: 28']);
  });

  it('are said when they are not in the tree', () => {
    const found = groovy("apply from: 'https://scripts.brine.example/ads.gradle'\nandroid { }");
    expect(found.unresolved).toMatchObject([
      { kind: 'identifier', reason: expect.stringContaining('https://scripts.brine.example/ads.gradle') },
      { what: 'what the script https://scripts.brine.example/ads.gradle adds to the build' },
    ]);
  });

  it('may pull each other in a circle', () => {
    const found = groovy("apply from: 'a.gradle'\nandroid { defaultConfig { minSdk 25 } }", {
      'app/a.gradle': "apply from: 'b.gradle'\n",
      'app/b.gradle': "apply from: 'a.gradle'\n",
    });
    expect(facts(found, 'min-sdk')).toEqual(['debug release: 25']);
  });
});

describe('forms of settings', () => {
  it.each([
    ['android { compileSdk { version = release(36) } }', 'compile-sdk', '36'],
    ["android { compileSdkVersion 'android-34' }", 'compile-sdk', '34'],
    ['android { compileSdkVersion(33) }', 'compile-sdk', '33'],
    ['android.compileSdk = 32', 'compile-sdk', '32'],
    ['android.defaultConfig.minSdk = 26', 'min-sdk', '26'],
    ['android { defaultConfig { setMinSdkVersion(21) } }', 'min-sdk', '21'],
    [
      "android { defaultConfig { minSdk project.hasProperty('low') ? low.toInteger() : 29 } }",
      'min-sdk',
      '29',
    ],
    [
      "ext.low = 22\nandroid { defaultConfig { minSdk project.hasProperty('low') ? low : 29 } }",
      'min-sdk',
      '22',
    ],
    ["android { defaultConfig { minSdk(project.findProperty('low') ?: 24) } }", 'min-sdk', '24'],
  ] as const)('%s', (text, kind, value) => {
    expect(facts(groovy(text), kind)).toEqual([`debug release: ${value}`]);
  });

  it.each([
    ['configure<com.android.build.api.dsl.ApplicationExtension> { compileSdk = 31 }', '31'],
    ['android { compileSdk = libs.versions.compile.get().toInt() }', '30'],
  ])('Kotlin: %s', (text, value) => {
    const found = build(`plugins { id("com.android.application") }\n${text}\n`, {
      'gradle/libs.versions.toml': '[versions]\ncompile = "30"\n',
    });
    expect(facts(found, 'compile-sdk')).toEqual([`debug release: ${value}`]);
  });
});

describe('build types and flavours', () => {
  const names = (found: Survey) => found.editions[0]?.variants.map(({ name }) => name);

  it.each([
    ['create("beta") { }'],
    ['register("beta")'],
    ['maybeCreate("beta").apply { }'],
    ['val beta by creating { initWith(getByName("release")) }'],
    ['getByName("debug") { }\ncreate("beta").initWith(getByName("debug"))'],
  ])('%s', (text) => {
    expect(names(build(gradle(`buildTypes { ${text} }`)))).toEqual(['debug', 'release', 'beta']);
  });

  it('all of them at once, and one by a dotted name', () => {
    const found = build(
      gradle('buildTypes { all { applicationIdSuffix = "x" }\n debug.applicationIdSuffix = "y" }'),
    );
    expect(facts(found, 'identifier')).toEqual(
      ['debug: example.brine.kelp.x.y', 'release: example.brine.kelp.x'].map((text) =>
        text.replace('.x.y', '.y'),
      ),
    );
  });
});

describe('source sets that were moved', () => {
  it('lead to manifests, resources and code where they lie', () => {
    const found = groovy(
      `android { namespace 'example.brine.kelp'
  sourceSets {
    main { manifest.srcFile 'AndroidManifest.xml'; java.srcDirs = ['src']; res.srcDirs = ['res'] }
    debug.setRoot('kinds/debug')
  } }`,
      {
        [mainManifest]: null,
        'app/src/debug/res/values/ids.xml': null,
        'app/src/release/res/values/ids.xml': null,
        'app/AndroidManifest.xml': manifest(appIdMetaData('@string/heron')),
        'app/res/values/ids.xml': '<resources><string name="heron">MAIN</string></resources>',
        'app/kinds/debug/res/values/ids.xml': '<resources><string name="heron">DEBUG</string></resources>',
        'app/src/example/A.kt': 'val a = "CH-U-310772-BBBB1111"',
      },
    );
    expect(facts(found, 'app-id')).toEqual(['debug: DEBUG', 'release: MAIN']);
    expect(facts(found, 'unit-id')).toEqual(['debug release: CH-U-310772-BBBB1111']);
  });
});

describe('merged manifests', () => {
  const merged = (main: string, release: string, attributes = '') =>
    survey(
      androidFiles({
        [mainManifest]: app(main),
        'app/src/release/AndroidManifest.xml': app(release, attributes),
      }),
    );
  const own = (value: string, rule = '') =>
    `<meta-data android:name="example.cobaltheron.ads.APP_ID" android:value="${value}" ${rule} />`;

  it.each([
    [
      'a value that is replaced',
      own('MAIN'),
      own('RELEASE', 'tools:replace="android:value"'),
      '',
      ['debug: MAIN', 'release: RELEASE'],
      0,
    ],
    ['two values without a word', own('MAIN'), own('RELEASE'), '', ['debug: MAIN', 'release: RELEASE'], 1],
    ['the same value twice', own('MAIN'), own('MAIN'), '', ['debug: MAIN', 'release: MAIN'], 0],
    [
      'an element that is taken out',
      own('MAIN'),
      '<meta-data android:name="example.cobaltheron.ads.APP_ID" tools:node="remove" />',
      '',
      ['debug: MAIN'],
      0,
    ],
    [
      'all elements of the kind taken out',
      own('MAIN'),
      '<meta-data tools:node="removeAll" />',
      '',
      ['debug: MAIN'],
      0,
    ],
    [
      'an element that replaces',
      own('MAIN'),
      own('RELEASE', 'tools:node="replace"'),
      '',
      ['debug: MAIN', 'release: RELEASE'],
      0,
    ],
    ['an application element that replaces', own('MAIN'), '', 'tools:node="replace"', ['debug: MAIN'], 0],
    [
      'an attribute that is added',
      '<meta-data android:name="example.cobaltheron.ads.APP_ID" />',
      own('RELEASE'),
      '',
      ['release: RELEASE'],
      0,
    ],
    [
      'a removal meant for one library',
      own('MAIN'),
      own('RELEASE', 'tools:node="remove" tools:selector="example.other"'),
      '',
      ['debug release: MAIN'],
      0,
    ],
  ])('%s', (_, main, release, attributes, ids, conflicts) => {
    const found = merged(main, release, attributes);
    expect(facts(found, 'app-id')).toEqual(ids);
    expect(facts(found, 'merge-conflict')).toHaveLength(conflicts);
  });

  it('show the evidence of a conflict on both sides', () => {
    const [conflict] = merged(own('MAIN'), own('RELEASE')).facts.filter(
      ({ kind }) => kind === 'merge-conflict',
    );
    expect(conflict?.chain.map(({ what, value }) => `${what}: ${value}`)).toEqual([
      'manifest of release: RELEASE',
      'manifest of main: MAIN',
    ]);
  });

  it('take permissions and components from modules that the application takes in, unless they are taken out', () => {
    const library = {
      'settings.gradle.kts':
        'include(":app")\ninclude(":ads:core")\nproject(":ads:core").projectDir = file("libraries/core")\n',
      'app/build.gradle.kts': gradle('', 'implementation(project(":ads:core"))'),
      'libraries/core/build.gradle.kts':
        'plugins { id("com.android.library") }\ndependencies { api("example.cobaltheron:ads-sdk:6.2.0") }\n',
      'libraries/core/src/main/AndroidManifest.xml': app(
        '<service android:name="example.ferrowick.zones.NoticeService" />',
        '',
        '<uses-permission android:name="android.permission.INTERNET" />',
      ),
      'libraries/core/src/main/kotlin/A.kt': 'val a = "CH-U-310772-BBBB1111"',
      [mainManifest]: app(own('MAIN')),
    };
    const found = survey(androidFiles(library));
    expect(facts(found, 'permission')).toEqual(['debug release: android.permission.INTERNET']);
    expect(facts(found, 'component')).toEqual(['debug release: example.ferrowick.zones.NoticeService']);
    expect(facts(found, 'dependency')).toEqual(['debug release: 6.2.0']);
    expect(facts(found, 'unit-id')).toEqual(['debug release: CH-U-310772-BBBB1111']);
    const without = survey(
      androidFiles({
        ...library,
        [mainManifest]: app(
          own('MAIN'),
          '',
          '<uses-permission android:name="android.permission.INTERNET" tools:node="remove" />',
        ),
      }),
    );
    expect(facts(without, 'permission')).toEqual([]);
  });

  it('follow matchingFallbacks into a module that lacks the build type', () => {
    const found = survey(
      androidFiles({
        'settings.gradle.kts': 'include(":app", ":core")\n',
        'app/build.gradle.kts': gradle(
          'buildTypes { create("beta") { initWith(getByName("debug")); matchingFallbacks += listOf("debug") } }',
          'implementation(projects.core)',
        ),
        'core/build.gradle.kts': 'plugins { id("com.android.library") }\n',
        'core/src/debug/java/A.java': 'class A { String a = "CH-U-310772-BBBB1111"; }',
      }),
    );
    expect(facts(found, 'unit-id')).toEqual(['debug beta: CH-U-310772-BBBB1111']);
  });

  it('name the application class in full', () => {
    const found = survey(androidFiles({ [mainManifest]: app('', 'android:name=".App"') }));
    expect(facts(found, 'application-class')).toEqual([
      'debug release: example.brine.kelp.App',
      'debug release: KelpApp',
    ]);
  });
});

describe('values that scripts make', () => {
  it('resValue gives strings, buildConfigField constants', () => {
    const found = build(
      gradle(`buildTypes {
      getByName("debug") { resValue("string", "heron", "CH-A-100001-SAMPLE0A"); buildConfigField("String", "FOOTER", "\\"CH-U-100001-BANNER0A\\"") }
      getByName("release") { resValue("string", "heron", "CH-A-310772-QK4T8W2N"); buildConfigField("String", "FOOTER", "\\"CH-U-310772-BBBB1111\\"") }
    }`),
      {
        'app/src/debug/res/values/ids.xml': '<resources/>',
        'app/src/release/res/values/ids.xml': '<resources/>',
      },
    );
    expect(facts(found, 'app-id')).toEqual(['debug: CH-A-100001-SAMPLE0A', 'release: CH-A-310772-QK4T8W2N']);
    expect(facts(found, 'unit-id')).toEqual(['debug: CH-U-100001-BANNER0A', 'release: CH-U-310772-BBBB1111']);
  });

  it('a locale that overrides an ID is a fact of its own', () => {
    const found = survey(
      androidFiles({
        'app/src/main/res/values-de/ids.xml':
          '<resources><string name="heron">CH-A-310772-ZZZZ9999</string></resources>',
      }),
    );
    expect(facts(found, 'locale-override')).toEqual([
      'debug: CH-A-310772-ZZZZ9999',
      'release: CH-A-310772-ZZZZ9999',
    ]);
  });
});

describe('dependencies', () => {
  const sdk = 'example.cobaltheron:ads-sdk';
  it.each([
    ['a string', `implementation("${sdk}:6.2.0")`, ['debug release: 6.2.0']],
    [
      'named parts',
      'implementation(group = "example.cobaltheron", name = "ads-sdk", version = "6.1.0")',
      ['debug release: 6.1.0'],
    ],
    ['a build type of its own', `debugImplementation("${sdk}:6.2.0")`, ['debug: 6.2.0']],
    ['a configuration by a string', `"releaseImplementation"("${sdk}:6.2.0")`, ['release: 6.2.0']],
    ['add(…)', `add("implementation", "${sdk}:6.2.0")`, ['debug release: 6.2.0']],
    ['an alias', 'implementation(libs.heron)', ['debug release: 6.0.0']],
    ['a bundle', 'implementation(libs.bundles.ads)', ['debug release: 6.0.0']],
    ['another catalogue', 'implementation(deps.heron)', ['debug release: 5.0.0']],
    [
      'a platform that gives the version',
      `implementation(platform("example.cobaltheron:bom:6.3.0"))\n    implementation("${sdk}")`,
      ['debug release: '],
    ],
    ['a constraint', `implementation("${sdk}") { version { strictly("6.4.0") } }`, ['debug release: 6.4.0']],
    ['for the compiler only', `compileOnly("${sdk}:6.2.0")`, []],
    ['for tests only', `testImplementation("${sdk}:6.2.0")`, []],
    ['a version out of reach', `implementation("${sdk}:\${System.getenv("V")}")`, ['debug release: ']],
  ])('%s', (_, line, wanted) => {
    const found = build(gradle('', line), {
      'settings.gradle.kts':
        'dependencyResolutionManagement { versionCatalogs { create("deps") { from(files("gradle/deps.versions.toml")) } } }\ninclude(":app")\n',
      'gradle/libs.versions.toml': `[libraries]\nheron = "${sdk}:6.0.0"\n[bundles]\nads = ["heron"]\n`,
      'gradle/deps.versions.toml': `[libraries]\nheron = { module = "${sdk}", version = "5.0.0" }\n`,
    });
    expect(facts(found, 'dependency')).toEqual(wanted);
  });

  it('a platform stands in the evidence', () => {
    const found = build(
      gradle('', `implementation(platform("example.cobaltheron:bom:6.3.0"))\n    implementation("${sdk}")`),
    );
    expect(found.facts.find(({ kind }) => kind === 'dependency')?.chain.at(-1)).toMatchObject({
      what: 'platform',
      value: 'example.cobaltheron:bom:6.3.0',
    });
  });

  it('local libraries are there, or named and not there', () => {
    const line = (text: string, files: Record<string, string> = {}) =>
      build(gradle('', text), files)
        .facts.filter(({ kind }) => kind === 'binary')
        .map(({ value, effective }) => `${value} ${effective === true}`);
    const there = { 'app/libs/quincebury-client-2.8.aar': 'bytes' };
    expect(line('implementation(files("libs/quincebury-client-2.8.aar"))', there)).toEqual([
      'app/libs/quincebury-client-2.8.aar true',
    ]);
    expect(line('implementation(files("libs/quincebury-client-2.8.aar"))')).toEqual([
      'app/libs/quincebury-client-2.8.aar false',
    ]);
    expect(
      line('implementation(fileTree(mapOf("dir" to "libs", "include" to listOf("*.jar"))))', there),
    ).toEqual([]);
    expect(line('implementation(fileTree(mapOf("dir" to "libs")))', there)).toHaveLength(1);
    expect(line('implementation(fileTree("libs") { include("*.jar", "*.aar") })', there)).toHaveLength(1);
    expect(line('implementation(fileTree("libs") { include("*.jar") })', there)).toEqual([]);
  });
});

describe('repositories', () => {
  const url = 'https://maven.cobaltheron.example/release';
  const where = (settings: string, root: string, module: string) =>
    survey(
      androidFiles({
        'settings.gradle.kts': `${settings}\ninclude(":app")\n`,
        'build.gradle.kts': root,
        'app/build.gradle.kts': `${gradle()}\n${module}`,
      }),
    )
      .facts.filter(({ kind }) => kind === 'repository')
      .map((fact) => factDetail(fact));
  const managed = (mode = '') =>
    `dependencyResolutionManagement { ${mode}\n repositories { google()\n maven { url = uri("${url}") } } }`;
  const fail = 'repositoriesMode.set(RepositoriesMode.FAIL_ON_PROJECT_REPOS)';
  it.each([
    ['the settings', managed(), '', '', ['in settings']],
    ['all projects', '', `allprojects { repositories { maven("${url}/") } }`, '', ['in project']],
    ['the module', '', '', `repositories { maven { setUrl("${url}") } }`, ['in project']],
    [
      'only for content',
      managed().replace('maven {', 'exclusiveContent { forRepository { maven {').replace('") }', '") } } }'),
      '',
      '',
      ['in settings'],
    ],
    ['plugins only', `pluginManagement { repositories { maven("${url}") } }`, '', '', []],
    ['the root project only', '', `repositories { maven("${url}") }`, '', []],
    [
      'projects where that is forbidden',
      managed(fail),
      '',
      `repositories { maven("${url}") }`,
      ['in settings', 'in project, forbidden by Gradle'],
    ],
    [
      'a project passes over the settings',
      managed(),
      '',
      'repositories { mavenCentral() }',
      ['in settings, ignored by Gradle'],
    ],
    [
      'an address put together',
      '',
      `val host = "https://maven.cobaltheron.example"\nallprojects { repositories { maven("$host/release") } }`,
      '',
      ['in project'],
    ],
  ])('%s', (_, settings, root, module, wanted) => {
    expect(where(settings, root, module)).toEqual(wanted);
  });
});

describe('the Kotlin version', () => {
  const plain = gradle().replace(' version "2.1.0"', '');
  it.each([
    ['beside the plugin', gradle(), {}, '2.1.0'],
    [
      'in the root script',
      plain,
      { 'build.gradle.kts': 'plugins { id("org.jetbrains.kotlin.android") version "1.9.24" apply false }' },
      '1.9.24',
    ],
    [
      'in the short form',
      plain,
      { 'build.gradle.kts': 'plugins { kotlin("android") version "1.9.0" apply false }' },
      '1.9.0',
    ],
    [
      'in the catalogue',
      plain,
      {
        'build.gradle.kts': 'plugins { alias(libs.plugins.kotlin) apply false }',
        'gradle/libs.versions.toml':
          '[versions]\nk = "1.8.22"\n[plugins]\nkotlin = { id = "org.jetbrains.kotlin.android", version.ref = "k" }\n',
      },
      '1.8.22',
    ],
    [
      'in the settings',
      plain,
      {
        'settings.gradle.kts':
          'pluginManagement { plugins { id("org.jetbrains.kotlin.android") version "2.0.0" } }\ninclude(":app")',
      },
      '2.0.0',
    ],
    [
      'on the class path',
      plain,
      {
        'build.gradle':
          'buildscript { ext.kotlin_version = \'1.7.10\'\n dependencies { classpath "org.jetbrains.kotlin:kotlin-gradle-plugin:$kotlin_version" } }',
      },
      '1.7.10',
    ],
  ])('%s', (_, script, more, version) => {
    expect(facts(build(script, more), 'kotlin')).toEqual([`debug release: ${version}`]);
  });

  it('is no fact of a module in Java', () => {
    const found = groovy('android { }');
    expect(facts(found, 'kotlin')).toEqual([]);
    expect(found.unresolved.filter(({ kind }) => kind === 'kotlin')).toEqual([]);
  });
});

describe('layouts', () => {
  const layout = (
    attributes: string,
    root = 'FrameLayout',
    more = '',
    namespaces = 'xmlns:app="http://schemas.android.com/apk/res-auto"',
  ) =>
    survey(
      androidFiles({
        'app/src/main/res/layout/main.xml': `<${root} xmlns:android="http://schemas.android.com/apk/res/android" ${namespaces}>
  <example.cobaltheron.ads.BannerView ${attributes} />
${more}</${root}>`,
      }),
    );
  it.each([
    ['a literal', 'app:heronUnit="CH-U-310772-BBBB1111"', undefined, 'CH-U-310772-BBBB1111 in a layout'],
    [
      'another prefix',
      'ads:heronUnit="CH-U-310772-BBBB1111"',
      'xmlns:ads="http://schemas.android.com/apk/res-auto"',
      'CH-U-310772-BBBB1111 in a layout',
    ],
    [
      'a prefix that is not declared',
      'ads:heronUnit="CH-U-310772-BBBB1111"',
      undefined,
      'CH-U-310772-BBBB1111 in a layout, under the undeclared prefix ads',
    ],
    [
      'no prefix',
      'heronUnit="CH-U-310772-BBBB1111"',
      undefined,
      'CH-U-310772-BBBB1111 in a layout, without a namespace prefix',
    ],
    [
      'the wrong namespace',
      'android:heronUnit="CH-U-310772-BBBB1111"',
      undefined,
      'CH-U-310772-BBBB1111 in a layout, under the foreign prefix android',
    ],
  ])('unit IDs: %s', (_, attributes, namespaces, wanted) => {
    const found = layout(attributes, 'FrameLayout', '', namespaces);
    expect(
      found.facts.filter(({ kind }) => kind === 'unit-id').map((fact) => `${fact.value} ${factDetail(fact)}`),
    ).toEqual([wanted]);
  });

  it.each([
    ['FrameLayout', 'android:layout_gravity="bottom|center_horizontal"', '', 'bottom-edge'],
    ['RelativeLayout', 'android:layout_alignParentTop="true"', '', 'top-edge'],
    [
      'androidx.constraintlayout.widget.ConstraintLayout',
      'app:layout_constraintBottom_toBottomOf="parent"',
      '',
      'bottom-edge',
    ],
    ['LinearLayout', '', '<View/>', 'top-edge'],
    ['ScrollView', 'android:layout_gravity="bottom"', '', 'scrolling-view'],
    ['FrameLayout', 'android:layout_gravity="center"', '', 'no-edge'],
  ])('in %s with %s', (root, attributes, more, wanted) => {
    const found = layout(`app:heronSize="standard" ${attributes}`, root, more);
    expect(found.facts.filter(({ kind }) => kind === 'banner-view')).toMatchObject([
      { format: 'banner', size: 'standard', anchor: wanted, network: 'cobalt-heron' },
    ]);
  });

  it('a string that the layout refers to, per variant', () => {
    const found = survey(
      androidFiles({
        'app/src/main/res/layout/main.xml':
          '<example.cobaltheron.ads.BannerView xmlns:app="http://schemas.android.com/apk/res-auto" app:heronUnit="@string/footer" />',
        'app/src/debug/res/values/units.xml':
          '<resources><string name="footer">CH-U-100001-BANNER0A</string></resources>',
      }),
    );
    expect(
      found.facts
        .filter((fact) => fact.kind === 'unit-id' && fact.carrier === 'layout')
        .map(({ value, variants }) => [value, variants]),
    ).toEqual([['CH-U-100001-BANNER0A', ['debug']]]);
    expect(found.unresolved).toMatchObject([
      { variants: ['release'], what: expect.stringContaining('unit ID') },
    ]);
  });
});

describe('a script that is not in the tree', () => {
  it('may bring the SDK: wiring leaves the dependency to a person, and says which script', () => {
    const script = `${gradle('', 'implementation("example.brine:shore:1.0")')}\napply(from = "made-by-a-tool.gradle.kts")\n`;
    const files = androidFiles({ 'app/build.gradle.kts': script });
    const { plan: made, after } = holds(files, kelp());
    expect(after['app/build.gradle.kts']).toBe(script);
    const step = made.byHand.find(({ rule }) => rule === 'build/dependency-missing');
    expect(step?.what).toContain('unless made-by-a-tool.gradle.kts brings it');
    expect(step?.why).toContain('it is not in the tree');
  });
});
