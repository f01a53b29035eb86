import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readRoster } from '../../../src/core/roster/document.js';
import type { Title } from '../../../src/core/roster/model.js';
import {
  androidFiles,
  appIdKey,
  appIdMetaData,
  filesBelow,
  gradle,
  iosFiles,
  kelp,
  manifest,
  pbxproj,
  placement,
  plist,
  root,
} from '../../support/trees.js';
import { holds, plan, text, type Files } from '../../support/wiring.js';

const placements = {
  footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'),
  gift: {
    format: 'rewarded',
    where: 'after */ a dive',
    settings: {},
    units: {
      'cobalt-heron': {
        android: { production: 'CH-U-310772-EEEE4444' },
        ios: { production: 'CH-U-310772-FFFF5555' },
      },
      marlstone: { android: { production: 'mrl-KELP-1234567' }, ios: { production: 'mrl-KELP-1234568' } },
    },
  },
} as Title['placements'];
const full = kelp({
  placements,
  networks: {
    'cobalt-heron': {
      android: { production: { app: 'CH-A-310772-QK4T8W2N' } },
      ios: { production: { app: 'CH-I-310772-M6R9V3XC' } },
    },
    marlstone: {
      android: { production: { app: 'mrl1-0123456789abcdef01234567' } },
      ios: { production: { app: 'mrl1-0123456789abcdef01234568' } },
    },
  },
});

const bare = {
  ...androidFiles({
    'app/src/main/AndroidManifest.xml': manifest('').replace(/ *<uses-permission.*\n/g, ''),
    'app/src/debug/res/values/ids.xml': null,
    'app/src/release/res/values/ids.xml': null,
  }),
  ...iosFiles({ 'Kelp.xcodeproj/project.pbxproj': pbxproj(), 'Kelp/Info.plist': plist('') }),
};
const crlf = (files: Record<string, string>) =>
  Object.fromEntries(Object.entries(files).map(([path, content]) => [path, content.replace(/\n/g, '\r\n')]));
const marked = (files: Record<string, string>) =>
  Object.fromEntries(
    Object.entries(files).map(([path, content]) => [
      path,
      path.endsWith('.pbxproj') ? content : `\ufeff${content}`,
    ]),
  );

describe('the laws of wiring', () => {
  it.each<[string, Files, Title]>([
    ['trees without any ads', bare, full],
    ['one network', bare, kelp()],
    ['CRLF line ends', crlf(bare), full],
    ['byte order marks', marked(bare), full],
    [
      'no final newline',
      Object.fromEntries(Object.entries(bare).map(([path, content]) => [path, content.trimEnd()])),
      full,
    ],
    [
      'tabs',
      Object.fromEntries(
        Object.entries(bare).map(([path, content]) => [path, content.replace(/ {4}/g, '\t')]),
      ),
      full,
    ],
    [
      'an app ID in an activity, and again in a service',
      {
        ...bare,
        'app/src/main/AndroidManifest.xml': manifest(
          `<activity android:name=".A">\n${appIdMetaData('CH-A-310772-QK4T8W2N')}\n</activity>\n<service android:name=".S">${appIdMetaData('x')}</service>`,
        ),
      },
      full,
    ],
    [
      'duplicates',
      {
        ...bare,
        'app/src/main/AndroidManifest.xml': manifest(
          `${appIdMetaData('CH-U-310772-BBBB1111')}\n${appIdMetaData('YOUR_APP_ID')}`,
        ),
        'Kelp/Info.plist': plist(`${appIdKey('CH-A-310772-QK4T8W2N')}\n${appIdKey('x')}`),
      },
      full,
    ],
    [
      'an empty application element',
      {
        ...bare,
        'app/src/main/AndroidManifest.xml':
          '<manifest xmlns:android="http://schemas.android.com/apk/res/android">\n  <application/>\n</manifest>\n',
      },
      full,
    ],
    [
      'another prefix',
      {
        ...bare,
        'app/src/main/AndroidManifest.xml':
          '<manifest xmlns:a="http://schemas.android.com/apk/res/android">\n  <application a:label="x">\n  </application>\n</manifest>\n',
      },
      full,
    ],
    [
      'wrong resources in place',
      {
        ...bare,
        'app/src/main/AndroidManifest.xml': manifest(appIdMetaData('@string/cobalt_heron_app_id')),
        'app/src/debug/res/values/strings.xml':
          '<resources>\n  <string name="cobalt_heron_app_id">CH-A-310772-QK4T8W2N</string>\n</resources>\n',
        'app/src/release/res/values/syndexa.xml': '<resources>\n</resources>\n',
      },
      full,
    ],
    [
      'a resource attribute instead of a value',
      {
        ...bare,
        'app/src/main/AndroidManifest.xml': manifest(
          appIdMetaData('x').replace('android:value', 'android:resource'),
        ),
      },
      full,
    ],
    [
      'flavours that decide the stage',
      {
        ...bare,
        'app/build.gradle.kts': gradle('    productFlavors { create("beta") {}\n create("full") {} }'),
      },
      kelp({ placements, stages: { test: ['beta', 'debug'], production: ['full', 'release'] } }),
    ],
    [
      'whole variants that decide the stage',
      {
        ...bare,
        'app/build.gradle.kts': gradle('    productFlavors { create("beta") {}\n create("full") {} }'),
      },
      kelp({
        placements,
        stages: {
          test: ['betaDebug', 'fullDebug', 'betaRelease', 'debug'],
          production: ['fullRelease', 'release'],
        },
      }),
    ],
    ['a Kotlin source folder', { ...bare, 'app/src/main/kotlin/A.kt': 'class A\n' }, full],
    [
      'a configuration whose conditions are a list',
      {
        ...bare,
        'Kelp.xcodeproj/project.pbxproj': pbxproj(
          '',
          'SWIFT_ACTIVE_COMPILATION_CONDITIONS = (\n\t\t\t\t\tDEBUG,\n\t\t\t\t);',
        ),
      },
      full,
    ],
    ['trees that are right already', { ...androidFiles(), ...iosFiles() }, kelp()],
    [
      'IDs through placeholders that are right',
      {
        ...androidFiles({
          'app/src/main/AndroidManifest.xml': manifest(appIdMetaData('${heron}')),
          'app/build.gradle.kts': gradle(
            '    buildTypes { debug { manifestPlaceholders["heron"] = "CH-A-100001-SAMPLE0A" }\n release { manifestPlaceholders["heron"] = "CH-A-310772-QK4T8W2N" } }',
          ),
        }),
      },
      kelp(),
    ],
  ])('hold for %s', (_, files, title) => {
    holds(files, title);
  });

  it('hold for the demo, and its findings by hand are all that is left', () => {
    const { roster } = readRoster(readFileSync(join(root, 'demo/roster.yaml'), 'utf8'));
    const { plan: made } = holds(filesBelow(join(root, 'demo/trees/tidewick')), roster!.titles.tidewick!);
    expect([...new Set(made.remaining.map(({ rule }) => rule))].sort()).toEqual([
      'build/not-locked',
      'build/platform-level-too-low',
      'code/failure-not-handled',
      'code/hard-coded-id',
      'code/never-released',
      'code/never-started',
      'identifier/differs-from-roster',
      'platform/placement-on-one-side',
      'stage/production-id-in-test',
      'stage/test-id-in-production',
      'unit-id/not-in-build',
    ]);
    for (const { rule } of made.remaining.filter(({ severity }) => severity !== 'note'))
      expect(made.byHand.some((step) => step.rule === rule)).toBe(true);
  });

  it('hold for the real template', () => {
    const files = filesBelow(join(root, 'node_modules/@react-native-community/template/template'));
    const title: Title = {
      ...full,
      editions: {
        android: { identifier: 'com.helloworld' },
        ios: { identifier: 'org.reactjs.native.example.HelloWorld' },
      },
    };
    const { plan: made } = holds(files, title);
    expect(made.remaining.map(({ rule, platform }) => `${rule} ${platform}`).sort()).toEqual([
      'build/not-locked null',
      'build/not-locked null',
      'code/never-started android',
      'code/never-started android',
      'code/never-started ios',
      'code/never-started ios',
      'privacy/tracking-text-missing ios',
      'roster/rewarded-without-reward null',
      'tree/cannot-tell android',
      // The placebook is there, and no code uses it yet.
      ...['android', 'ios'].flatMap((platform) => Array<string>(3).fill(`unit-id/not-in-build ${platform}`)),
    ]);
  });

  it('hold for manifests of any make', () => {
    const line = fc.constantFrom(
      '        <activity android:name=".A" />',
      '<!-- note -->',
      '',
      appIdMetaData('x'),
      `<activity android:name=".B">${appIdMetaData('CH-A-310772-QK4T8W2N')}</activity>`,
      '\t\t<meta-data android:name="other" android:value="1"/>',
      appIdMetaData(' CH-A-310772-QK4T8W2N'),
      "<service android:name='.S'></service>",
    );
    fc.assert(
      fc.property(fc.array(line, { maxLength: 6 }), fc.constantFrom('\n', '\r\n'), (lines, end) => {
        const files = {
          ...bare,
          'app/src/main/AndroidManifest.xml': manifest(lines.join('\n')).replace(/\n/g, end),
        };
        const { after } = holds(files, kelp({ editions: { android: { identifier: 'example.brine.kelp' } } }));
        const written = text(after['app/src/main/AndroidManifest.xml']);
        for (const kept of [
          '<!-- note -->',
          'android:name="other"',
          "<service android:name='.S'></service>",
        ]) {
          expect(written.split(kept).length).toBe(lines.join('\n').split(kept).length);
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('what wiring will not do, it says', () => {
  const steps = (files: Files, title: Title) =>
    plan(files, title).byHand.map(({ rule, what }) => `${rule}: ${what}`);
  it.each<[string, Files, Title, string]>([
    [
      'a variant without a stage',
      { ...bare, 'app/build.gradle.kts': gradle('    buildTypes { create("beta") {} }') },
      full,
      'stage/variant-unmatched: Say which stage beta belongs to. Nothing is wired on Android until then.',
    ],
    [
      'a hole in the roster',
      bare,
      kelp({
        networks: { 'cobalt-heron': { android: {} } },
        editions: { android: { identifier: 'example.brine.kelp' } },
      }),
      'app-id/not-in-roster: Put the production app ID of Cobalt Heron for Android into the roster, then wire again.',
    ],
    [
      'a manifest without an application',
      {
        ...bare,
        'app/src/main/AndroidManifest.xml':
          '<manifest xmlns:android="http://schemas.android.com/apk/res/android"/>',
      },
      full,
      'null: Give app/src/main/AndroidManifest.xml an application element.',
    ],
    [
      'no property list at all',
      { ...bare, 'Kelp.xcodeproj/project.pbxproj': pbxproj().replace(/\t*INFOPLIST_FILE.*\n/g, '') },
      full,
      'app-id/missing: Give the target Kelp a property list (INFOPLIST_FILE, or GENERATE_INFOPLIST_FILE).',
    ],
    [
      'no namespace',
      { ...bare, 'app/build.gradle.kts': gradle().replace(/.*namespace.*\n/, '') },
      full,
      'unit-id/not-in-build: Name the module’s namespace in its build script.',
    ],
    [
      'a missing dependency',
      { ...bare, 'settings.gradle.kts': 'include(":app")\n', 'app/build.gradle.kts': gradle('', '') },
      kelp(),
      'build/dependency-missing: Add implementation("example.cobaltheron:ads-sdk:6.2.0") to dependencies. It comes from https://maven.cobaltheron.example/release, which must be among the tree’s repositories.',
    ],
    [
      'a pod for a target that the Podfile does not have',
      { ...bare, Podfile: "target 'Other' do\nend\n" },
      kelp(),
      "build/dependency-missing: Add pod 'CobaltHeronAds', '~> 6.2' to the target Kelp, then run pod install and open the workspace.",
    ],
  ])('%s', (_, files, title, step) => {
    expect(steps(files, title)).toContain(step);
  });

  it('and leaves the edition alone where a stage is missing', () => {
    const files = { ...bare, 'app/build.gradle.kts': gradle('    buildTypes { create("beta") {} }') };
    expect(plan(files, full).edits.some(({ path }) => path.startsWith('app/'))).toBe(false);
  });
});

describe('placebooks', () => {
  it('are compiled into the target, once, and pick the stage by the build’s own condition', () => {
    const { after, plan: made } = holds(bare, full);
    const project = text(after['Kelp.xcodeproj/project.pbxproj']);
    expect(project.match(/Placebook\.swift in Sources \*\/ = \{/g)).toHaveLength(1);
    expect(text(after['Kelp/Placebook.swift'])).toContain('#if DEBUG');
    expect(made.edits.map(({ path }) => path).filter((path) => path.endsWith('Placebook.kt'))).toEqual([
      'app/src/debug/java/example/brine/kelp/ads/Placebook.kt',
      'app/src/release/java/example/brine/kelp/ads/Placebook.kt',
    ]);
    for (const [stage, other] of [
      ['debug', 'CH-U-310772'],
      ['release', 'CH-U-100001'],
    ])
      expect(text(after[`app/src/${stage}/java/example/brine/kelp/ads/Placebook.kt`])).not.toContain(other);
  });

  it('need no entry in the project file where the folder itself is synchronised', () => {
    const synchronised = pbxproj()
      .replace(/\t\tAA0000000000000000000001 .*\n\t\tAA0000000000000000000002 .*\n/, '')
      .replace(
        /\t\tAA0000000000000000000004 \/\* Kelp \*\/ = \{[^}]*\};\n/,
        '\t\tAA0000000000000000000004 /* Kelp */ = {isa = PBXFileSystemSynchronizedRootGroup; path = Kelp; sourceTree = "<group>"; };\n',
      )
      .replace('\t\t\t\tAA0000000000000000000001 /* App.swift in Sources */,\n', '')
      .replace(
        'name = Kelp;\n',
        'fileSystemSynchronizedGroups = (AA0000000000000000000004);\n\t\t\tname = Kelp;\n',
      );
    const { after } = holds({ ...bare, 'Kelp.xcodeproj/project.pbxproj': synchronised }, full);
    expect(text(after['Kelp/Placebook.swift'])).toContain('enum Placebook');
    expect(text(after['Kelp.xcodeproj/project.pbxproj'])).not.toContain('Placebook');
  });

  it('use a condition of their own where DEBUG does not tell the stages apart', () => {
    const { after } = holds(
      {
        ...bare,
        'Kelp.xcodeproj/project.pbxproj': pbxproj().replace(
          'SWIFT_ACTIVE_COMPILATION_CONDITIONS = DEBUG;',
          '',
        ),
      },
      full,
    );
    expect(text(after['Kelp/Placebook.swift'])).toContain('#if SYNDEXA_TEST');
    expect(
      text(after['Kelp.xcodeproj/project.pbxproj']).match(/"\$\(inherited\) SYNDEXA_TEST"/g),
    ).toHaveLength(1);
  });

  it('follow the roster, and stay where a person moved them', () => {
    const { after } = holds(bare, full);
    const moved = 'app/src/debug/java/example/brine/kelp/money/Placebook.kt';
    const from = 'app/src/debug/java/example/brine/kelp/ads/Placebook.kt';
    const { [from]: book, ...rest } = after;
    const files = {
      ...rest,
      [moved]: text(book).replace('package example.brine.kelp.ads', 'package example.brine.kelp.money'),
    };
    expect(plan(files, full).edits).toEqual([]);
    const changed = {
      ...full,
      placements: {
        ...placements,
        footer: placement('banner', 'CH-U-310772-ZZZZ9999', 'CH-U-310772-CCCC2222'),
      },
    };
    expect(plan(files, changed).edits.map(({ path }) => path)).toEqual([
      'app/src/release/java/example/brine/kelp/ads/Placebook.kt',
    ]);
  });
});
