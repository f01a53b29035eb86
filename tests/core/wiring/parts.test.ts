import { describe, expect, it } from 'vitest';
import type { Title } from '../../../src/core/roster/model.js';
import {
  androidFiles,
  appIdKey,
  appIdMetaData,
  attributionKey,
  gradle,
  heronRepository,
  iosFiles,
  kelp,
  manifest,
  pbxproj,
  placement,
  plist,
  trackingText,
} from '../../support/trees.js';
import { asked, comesBack, handedOut, holds, plan, text, titleOn, type Files } from '../../support/wiring.js';

const both = { android: 'example.brine.kelp', ios: 'example.brine.kelp' };
const script = 'app/build.gradle.kts';
const main = 'app/src/main/AndroidManifest.xml';
const project = 'Kelp.xcodeproj/project.pbxproj';
const [testId, liveId] = ['CH-A-100001-SAMPLE0A', 'CH-A-310772-QK4T8W2N'];
const androidOnly = kelp({ editions: { android: { identifier: both.android } } });
const iosOnly = kelp({
  editions: { ios: { identifier: both.ios, tracking: 'Kelp is paid for by ads.' } },
});
const withoutStrings = {
  'app/src/debug/res/values/ids.xml': null,
  'app/src/release/res/values/ids.xml': null,
};
const changed = (files: Files, after: Files) =>
  Object.keys(after)
    .filter((path) => text(after[path]) !== text(files[path]))
    .sort();

describe('an app ID keeps the form that the tree has for it', () => {
  const cases: [string, Files, Record<string, string[]>][] = [
    [
      'literals in manifests of build types',
      androidFiles({
        ...withoutStrings,
        [main]: manifest(''),
        'app/src/debug/AndroidManifest.xml': manifest(appIdMetaData(liveId)),
        'app/src/release/AndroidManifest.xml': manifest(appIdMetaData('CH-A-310772-AAAABBBB')),
      }),
      { 'app/src/debug/AndroidManifest.xml': [testId], 'app/src/release/AndroidManifest.xml': [liveId] },
    ],
    [
      'a placeholder that each build type sets',
      androidFiles({
        ...withoutStrings,
        [main]: manifest(appIdMetaData('${heron}')),
        [script]: gradle(`    buildTypes {
        debug { manifestPlaceholders["heron"] = "${liveId}" }
        release { manifestPlaceholders["heron"] = "x" }
    }`),
      }),
      { [script]: [testId, liveId] },
    ],
    [
      'a placeholder that is set for all',
      androidFiles({
        ...withoutStrings,
        [main]: manifest(appIdMetaData('${heron}')),
        [script]: gradle(`    defaultConfig { manifestPlaceholders["heron"] = "${liveId}" }
    buildTypes {
        debug {
            isMinifyEnabled = false
        }
    }`),
      }),
      { [script]: [`manifestPlaceholders["heron"] = "${testId}"`] },
    ],
    [
      'a placeholder that nobody sets',
      androidFiles({
        ...withoutStrings,
        [main]: manifest(appIdMetaData('${heron}')),
      }),
      { [script]: [testId, liveId, 'getByName("debug")', 'getByName("release")'] },
    ],
    [
      'a resource that a script makes',
      androidFiles({
        ...withoutStrings,
        [main]: manifest(appIdMetaData('@string/heron')),
        [script]: gradle(`    defaultConfig { resValue("string", "heron", "${liveId}") }
    buildTypes {
        debug { }
    }`),
      }),
      { [script]: [`resValue("string", "heron", "${testId}")`] },
    ],
    [
      'a string under a name of its own, for all',
      androidFiles({
        ...withoutStrings,
        'app/src/main/res/values/ids.xml': `<resources>\n    <string name="heron">${liveId}</string>\n</resources>\n`,
      }),
      {
        'app/src/debug/res/values/syndexa.xml': [`name="heron"`, testId],
        'app/src/release/res/values/syndexa.xml': [`name="heron"`, liveId],
      },
    ],
    [
      'a property that only one build type reads',
      androidFiles({
        ...withoutStrings,
        'gradle.properties': 'heronDebug=CH-A-100001-WRONG000\n',
        [main]: manifest(appIdMetaData('${heron}')),
        [script]: gradle(`    buildTypes {
        debug { manifestPlaceholders["heron"] = project.property("heronDebug") }
        release { manifestPlaceholders["heron"] = "${liveId}" }
    }`),
      }),
      { 'gradle.properties': [testId] },
    ],
  ];
  it.each(cases)('%s', (_, files, expected) => {
    const { after, plan: made } = holds(files, androidOnly);
    expect(changed(files, after)).toEqual(Object.keys(expected).sort());
    for (const [path, parts] of Object.entries(expected))
      for (const part of parts) expect(text(after[path])).toContain(part);
    expect(made.remaining.filter(({ rule }) => /^(app-id|stage)\//.test(rule))).toEqual([]);
  });

  it('and a build setting under a name of its own', () => {
    const list = plist(`${appIdKey('$(HERON)')}\n${trackingText}\n${attributionKey()}`);
    const files = iosFiles({
      [project]: pbxproj('', '', 'HERON = "CH-I-310772-M6R9V3XC";'),
      'Kelp/Info.plist': list,
    });
    const { after } = holds(files, iosOnly);
    expect(changed(files, after)).toEqual([project]);
    expect(text(after[project])).toContain('HERON = "CH-I-100001-SAMPLE0I";');
    expect(text(after[project])).not.toContain('COBALT_HERON_APP_ID');
  });
});

describe('a base configuration file', () => {
  const reference = (id: string, path: string) =>
    `\t\t${id} /* base */ = {isa = PBXFileReference; lastKnownFileType = text.xcconfig; path = "${path}"; sourceTree = "<group>"; };\n`;
  /** A project whose configurations are based on files. */
  const based = (debug: string, release: string) =>
    pbxproj()
      .replace(
        '\t\tAA0000000000000000000003 = {',
        `${reference('AA00000000000000000000B1', debug)}${reference('AA00000000000000000000B2', release)}\t\tAA0000000000000000000003 = {`,
      )
      .replace(
        '\t\t\tchildren = (\n',
        '\t\t\tchildren = (\n\t\t\t\tAA00000000000000000000B1,\n\t\t\t\tAA00000000000000000000B2,\n',
      )
      .replace(
        'AA0000000000000000000008 /* Debug */ = {\n\t\t\tisa = XCBuildConfiguration;\n',
        `AA0000000000000000000008 /* Debug */ = {\n\t\t\tisa = XCBuildConfiguration;\n\t\t\tbaseConfigurationReference = AA00000000000000000000B1 /* ${debug.split('/').at(-1)} */;\n`,
      )
      .replace(
        'AA0000000000000000000009 /* Release */ = {\n\t\t\tisa = XCBuildConfiguration;\n',
        `AA0000000000000000000009 /* Release */ = {\n\t\t\tisa = XCBuildConfiguration;\n\t\t\tbaseConfigurationReference = AA00000000000000000000B2 /* ${release.split('/').at(-1)} */;\n`,
      );
  const list = plist(trackingText);
  const noPod = { Podfile: "target 'Kelp' do\nend\n", 'Podfile.lock': null };
  const title = kelp({ editions: { ios: { identifier: both.ios } } });

  it('of each configuration takes its settings', () => {
    const files = iosFiles({
      ...noPod,
      [project]: based('Debug.xcconfig', 'Release.xcconfig'),
      'Debug.xcconfig': '// for people\nPRODUCT_NAME = Kelp',
      'Release.xcconfig': 'PRODUCT_NAME = Kelp\n',
      'Kelp/Info.plist': list,
    });
    const { after, plan: made } = holds(files, title);
    comesBack(files, title, { after, plan: made });
    expect(text(after['Debug.xcconfig'])).toBe(
      '// for people\nPRODUCT_NAME = Kelp\nCOBALT_HERON_APP_ID = CH-I-100001-SAMPLE0I',
    );
    expect(text(after['Release.xcconfig'])).toBe(
      'PRODUCT_NAME = Kelp\nCOBALT_HERON_APP_ID = CH-I-310772-M6R9V3XC\n',
    );
    expect(after[project]).toBe(files[project]);
  });

  it('of both says which configuration a value is for', () => {
    const files = iosFiles({
      ...noPod,
      [project]: based('All.xcconfig', 'All.xcconfig'),
      'All.xcconfig': 'PRODUCT_NAME = Kelp\n',
      'Kelp/Info.plist': list,
    });
    const { after, plan: made } = holds(files, title);
    comesBack(files, title, { after, plan: made });
    expect(text(after['All.xcconfig'])).toBe(
      'PRODUCT_NAME = Kelp\nCOBALT_HERON_APP_ID[config=Debug] = CH-I-100001-SAMPLE0I\nCOBALT_HERON_APP_ID[config=Release] = CH-I-310772-M6R9V3XC\n',
    );
  });

  it('that an install of pods makes is included, not written to', () => {
    const pods = (name: string) => `Pods/Target Support Files/Pods-Kelp/Pods-Kelp.${name}.xcconfig`;
    const files = iosFiles({
      ...noPod,
      [project]: based(pods('debug'), pods('release')),
      'Kelp/Info.plist': list,
    });
    const { after, plan: made } = holds(files, title);
    comesBack(files, title, { after, plan: made });
    expect(text(after['Syndexa/Kelp.Debug.xcconfig'])).toBe(
      `// Base configuration file, written by Syndexa.\n#include? "../${pods('debug')}"\nCOBALT_HERON_APP_ID = CH-I-100001-SAMPLE0I\n`,
    );
    expect(text(after[project])).toMatch(
      /baseConfigurationReference = \w{24} \/\* Kelp\.Debug\.xcconfig \*\/;/,
    );
    expect(text(after[project])).not.toContain('COBALT_HERON_APP_ID');
  });
});

describe('a property list that the build makes', () => {
  const generated = pbxproj()
    .replace(/\t*INFOPLIST_FILE.*\n/g, '')
    .replace(
      /PRODUCT_BUNDLE_IDENTIFIER/g,
      'GENERATE_INFOPLIST_FILE = YES;\n\t\t\t\tPRODUCT_BUNDLE_IDENTIFIER',
    );
  it('gets a file for what the build cannot generate', () => {
    const files = iosFiles({ [project]: generated, 'Kelp/Info.plist': null });
    const { after, plan: made } = holds(files, iosOnly);
    comesBack(
      { ...files, Podfile: "target 'Kelp' do\nend\n" },
      iosOnly,
      holds({ ...files, Podfile: "target 'Kelp' do\nend\n" }, iosOnly),
    );
    const list = text(after['Kelp-Info.plist']);
    expect(list).toContain('\t<key>CobaltHeronAppID</key>\n\t<string>$(COBALT_HERON_APP_ID)</string>');
    expect(list).toContain('<string>Kelp is paid for by ads.</string>');
    expect(list.match(/skadnetwork</g)).toHaveLength(2);
    expect(text(after[project]).match(/INFOPLIST_FILE = "Kelp-Info.plist";/g)).toHaveLength(2);
    expect(made.remaining.filter(({ rule }) => /^(app-id|plist|attribution|privacy)\//.test(rule))).toEqual(
      [],
    );
  });
});

describe('an SDK without a Podfile', () => {
  const phase = pbxproj()
    .replace(
      'AA0000000000000000000007 /* Sources */,\n',
      'AA0000000000000000000007 /* Sources */,\n\t\t\t\tAA00000000000000000000D1 /* Frameworks */,\n',
    )
    .replace(
      '\n\t\tAA0000000000000000000008 /* Debug */ = {',
      '\n\t\tAA00000000000000000000D1 /* Frameworks */ = {\n\t\t\tisa = PBXFrameworksBuildPhase;\n\t\t\tfiles = (\n\t\t\t);\n\t\t};\n\t\tAA0000000000000000000008 /* Debug */ = {',
    );
  const bare = { Podfile: null, 'Podfile.lock': null };

  it('comes as a Swift package, with the flag that its linker needs', () => {
    const files = iosFiles({ ...bare, [project]: phase });
    const { after, plan: made } = holds(files, iosOnly);
    const clean = { ...files, 'Kelp/Info.plist': plist(trackingText) };
    comesBack(clean, iosOnly, holds(clean, iosOnly));
    const made_ = text(after[project]);
    expect(made_).toContain('repositoryURL = "https://packages.cobaltheron.example/ads-ios";');
    expect(made_).toMatch(
      /packageReferences = \(\n\s+\w{24} \/\* XCRemoteSwiftPackageReference "ads-ios" \*\/,/,
    );
    expect(made_).toMatch(/packageProductDependencies = \(\n\s+\w{24} \/\* CobaltHeronAds \*\/,/);
    expect(made_.match(/OTHER_LDFLAGS = "\$\(inherited\) -ObjC";/g)).toHaveLength(2);
    const rules = made.remaining.map(({ rule }) => rule);
    expect(rules).not.toContain('build/dependency-missing');
    expect(rules).not.toContain('plist/linker-flag-missing');
    expect(made.byHand.map(({ what }) => what)).toContain(
      'Open the project once, so that its packages are resolved, and commit Package.resolved.',
    );
  });

  it('is left to a person where the target links nothing', () => {
    const made = plan(iosFiles(bare), iosOnly);
    expect(made.byHand.map(({ what }) => what)).toContain(
      'Add the package https://packages.cobaltheron.example/ads-ios from 6.2.0, and its product CobaltHeronAds to the target Kelp.',
    );
  });
});

describe('the application class', () => {
  const own = 'app/src/main/java/example/brine/kelp/KelpApp.java';
  const bare = androidFiles({ [own]: null, [main]: manifest(appIdMetaData('@string/heron')) });

  it('is made where there is none, and starts what nothing starts', () => {
    const { after, plan: made } = holds(bare, androidOnly);
    expect(text(after[main])).toContain('android:name=".ads.KelpApplication"');
    const kotlin = text(after['app/src/main/java/example/brine/kelp/ads/KelpApplication.kt']);
    expect(kotlin).toContain('class KelpApplication : Application() {');
    expect(kotlin).toContain('        CobaltHeron.start(this)');
    expect(made.remaining.map(({ rule }) => rule)).not.toContain('code/never-started');
  });

  it('is declared where it is there', () => {
    const text_ = 'package example.brine.kelp;\n\nclass KelpApp extends Application {\n}\n';
    const { after, plan: made } = holds(androidFiles({ [own]: text_ }), androidOnly);
    expect(text(after[main])).toContain('android:name=".KelpApp"');
    expect(made.byHand.map(({ what }) => what)).toContain('Start it in onCreate: CobaltHeron.start(this)');
  });

  it('of a network is declared as it is, and extended when more is asked for', () => {
    const alone = holds(bare, titleOn(['quincebury'], { android: both.android }), handedOut);
    expect(text(alone.after[main])).toContain(
      'android:name="example.quincebury.client.QuinceburyApplication"',
    );
    const more = holds(
      alone.after,
      titleOn(['quincebury', 'cobalt-heron'], { android: both.android }),
      handedOut,
    );
    expect(text(more.after[main])).toContain('android:name=".ads.KelpApplication"');
    expect(text(more.after['app/src/main/java/example/brine/kelp/ads/KelpApplication.kt'])).toContain(
      'class KelpApplication : QuinceburyApplication() {',
    );
  });

  it('that the tree declares itself is left to a person', () => {
    const files = androidFiles({
      [own]: null,
      [main]: manifest(appIdMetaData('@string/heron')).replace(
        '<application',
        '<application android:name=".Own"',
      ),
    });
    const made = plan(files, androidOnly);
    expect(made.edits.some(({ path }) => path.includes('Application'))).toBe(false);
    expect(made.byHand.map(({ what, where }) => [what, where])).toContainEqual([
      'Start it in onCreate: CobaltHeron.start(this)',
      '.Own',
    ]);
  });
});

describe('files that networks hand out', () => {
  it('are copied when they are named, known by their hash', () => {
    const title = titleOn(['quincebury', 'ferrowick'], both);
    const files = { ...androidFiles(), ...iosFiles() };
    const { plan: made } = holds(files, title, handedOut);
    const copied = made.edits.find(({ source }) => source);
    expect(copied?.path).toBe('app/libs/quincebury-client-2.8.aar');
    expect(made.patch).not.toContain('.aar b/');
    expect(made.edits.map(({ path }) => path)).toContain('app/ferrowick-notice.json');
  });

  it('are asked for when they are not', () => {
    const made = plan(androidFiles(), titleOn(['quincebury'], { android: both.android }));
    expect(made.byHand.map(({ rule }) => rule)).toContain('build/binary-missing');
    expect(made.edits.some(({ source }) => source)).toBe(false);
  });
});

describe('a build plugin', () => {
  const title = titleOn(['ferrowick'], { android: both.android });
  it('is applied by its alias, with an entry in the catalogue, where the others are', () => {
    const files = androidFiles({
      'gradle/libs.versions.toml':
        '[plugins]\nandroid = { id = "com.android.application", version = "8.7.0" }\n',
      'build.gradle.kts': 'plugins {\n    alias(libs.plugins.android) apply false\n}\n',
      [script]: gradle().replace('id("com.android.application")', 'alias(libs.plugins.android)'),
    });
    const made = holds(files, title, handedOut);
    comesBack(files, title, made);
    expect(text(made.after['build.gradle.kts'])).toContain('    alias(libs.plugins.ferrowick) apply false\n');
    expect(text(made.after['gradle/libs.versions.toml'])).toContain(
      'ferrowick = { id = "example.ferrowick.notice", version = "1.9.3" }',
    );
  });
  it('is put on the class path and applied by name where the others are', () => {
    const files = androidFiles({
      [script]: null,
      'settings.gradle.kts': null,
      'settings.gradle': "include ':app'\n",
      'build.gradle':
        "buildscript {\n    dependencies {\n        classpath 'com.android.tools.build:gradle:8.7.0'\n    }\n}\n",
      'app/build.gradle':
        "apply plugin: 'com.android.application'\n\nandroid {\n    namespace 'example.brine.kelp'\n    defaultConfig { applicationId 'example.brine.kelp' }\n}\n\ndependencies {\n}\n",
    });
    const made = holds(files, title, handedOut);
    comesBack(files, title, made);
    expect(text(made.after['build.gradle'])).toContain(
      "        classpath 'example.ferrowick.notice:example.ferrowick.notice.gradle.plugin:1.9.3'\n",
    );
    expect(text(made.after['app/build.gradle'])).toContain("\napply plugin: 'example.ferrowick.notice'\n");
    expect(made.plan.remaining.map(({ rule }) => rule)).not.toContain('build/plugin-missing');
  });
});

describe('SDK levels', () => {
  const low = androidFiles({ [script]: gradle().replace('minSdk = 24', 'minSdk = 21').replace('35', '33') });
  it('stay as they are unless it is asked', () => {
    expect(plan(low, androidOnly).edits.some(({ path }) => path === script)).toBe(false);
  });
  it('are raised to what is needed, and no further', () => {
    const { after } = holds(low, androidOnly, asked({ levels: true }));
    expect(text(after[script])).toContain('minSdk = 23\n');
    expect(text(after[script])).toContain('compileSdk = 34\n');
    const ios = iosFiles({ [project]: pbxproj().replace(/15\.0/g, '12.4') });
    expect(text(holds(ios, iosOnly, asked({ levels: true })).after[project])).not.toContain('12.4');
  });
});

describe('IDs in layouts', () => {
  it('become references to a string of each stage', () => {
    const layout = 'app/src/main/res/layout/home.xml';
    const files = androidFiles({
      [layout]: `<LinearLayout xmlns:android="http://schemas.android.com/apk/res/android" xmlns:app="http://schemas.android.com/apk/res-auto">
    <example.cobaltheron.ads.BannerView app:heronUnit="CH-U-310772-BBBB1111" />
</LinearLayout>\n`,
    });
    const title = kelp({
      editions: { android: { identifier: both.android } },
      placements: { footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222') },
    });
    const { after } = holds(files, title);
    expect(text(after[layout])).toContain('app:heronUnit="@string/cobalt_heron_footer"');
    expect(text(after['app/src/debug/res/values/syndexa.xml'])).toContain('>CH-U-100001-BANNER0A<');
    expect(text(after['app/src/release/res/values/syndexa.xml'])).toContain('>CH-U-310772-BBBB1111<');
  });
});

describe('IDs in code', () => {
  const title: Title = kelp({
    placements: { footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222') },
  });
  const cases: [string, Files, string, string[]][] = [
    [
      'Kotlin',
      androidFiles({
        'app/src/main/java/example/brine/kelp/Home.kt':
          'package example.brine.kelp\n\nimport example.cobaltheron.ads.BannerView\n\nconst val UNIT = "CH-U-310772-BBBB1111"\nval banner = BannerView(context, "CH-U-310772-BBBB1111")\n',
      }),
      'app/src/main/java/example/brine/kelp/Home.kt',
      [
        'import example.brine.kelp.ads.Placebook\n',
        '\nval UNIT = Placebook.footer.unit(Placebook.Network.COBALT_HERON)\n',
        'BannerView(context, Placebook.footer.unit(Placebook.Network.COBALT_HERON))',
      ],
    ],
    [
      'Java',
      androidFiles({
        [script]: gradle().replace(/.*kotlin.*\n/, ''),
        'app/src/main/java/example/brine/kelp/Home.java':
          'package example.brine.kelp;\n\nclass Home {\n    static final String UNIT = "CH-U-310772-BBBB1111";\n}\n',
      }),
      'app/src/main/java/example/brine/kelp/Home.java',
      [
        'import example.brine.kelp.ads.Placebook;\n',
        'UNIT = Placebook.FOOTER.unit(Placebook.Network.COBALT_HERON);',
      ],
    ],
    [
      'Swift',
      iosFiles({
        'Kelp/App.swift': 'func launch() {\n    CobaltHeron.start()\n    show("CH-U-310772-CCCC2222")\n}\n',
      }),
      'Kelp/App.swift',
      ['show(Placebook.footer.unit(.cobaltHeron))'],
    ],
    [
      'Swift, from a raw string',
      iosFiles({
        'Kelp/App.swift':
          'func launch() {\n    CobaltHeron.start()\n    show(##"CH-U-310772-CCCC2222"##)\n}\n',
      }),
      'Kelp/App.swift',
      ['show(Placebook.footer.unit(.cobaltHeron))'],
    ],
    [
      'Objective-C',
      iosFiles({
        [project]: pbxproj()
          .replaceAll('App.swift', 'App.m')
          .replaceAll('sourcecode.swift', 'sourcecode.c.objc'),
        'Kelp/App.swift': null,
        'Kelp/App.m':
          '#import "App.h"\n\nvoid launch(void) {\n    [CobaltHeron start];\n    show(@"CH-U-310772-CCCC2222");\n}\n',
      }),
      'Kelp/App.m',
      [
        '#import "App.h"\n#import "Placebook.h"\n',
        'show([Placebook.footer unitFor:PlacebookNetworkCobaltHeron])',
      ],
    ],
  ];
  it.each([
    [
      'the ID of the other platform',
      androidFiles({ 'app/src/main/java/example/brine/kelp/Home.kt': 'val UNIT = "CH-U-310772-CCCC2222"\n' }),
      'app/src/main/java/example/brine/kelp/Home.kt',
      'unit-id/wrong-platform',
    ],
    [
      'a unit that a call of another format loads',
      androidFiles({
        'app/src/main/java/example/brine/kelp/Home.kt':
          'import example.cobaltheron.ads.HeronInterstitial\n\nfun open() {\n    HeronInterstitial.load(this, "CH-U-310772-BBBB1111")\n}\n',
      }),
      'app/src/main/java/example/brine/kelp/Home.kt',
      'code/wrong-format',
    ],
    [
      'a constant named after another placement',
      iosFiles({ 'Kelp/App.swift': 'let levelEndUnit = "CH-U-310772-CCCC2222"\n' }),
      'Kelp/App.swift',
      'code/unit-of-another-placement',
    ],
  ])('stay where a reference would hide a mistake: %s', (_, files, path, rule) => {
    const more = kelp({
      placements: {
        ...title.placements,
        'level-end': placement('banner', 'CH-U-310772-DDDD3333', 'CH-U-310772-EEEE4444'),
      },
    });
    const { after, plan: made } = holds(files, more, asked({ callSites: true }));
    expect(after[path]).toBe(files[path]);
    expect(made.remaining.map((finding) => finding.rule)).toContain(rule);
  });

  it('stay in the call of another format alone, when a right call loads the same unit', () => {
    const path = 'app/src/main/java/example/brine/kelp/Home.kt';
    const files = androidFiles({
      [path]:
        'import example.cobaltheron.ads.BannerView\nimport example.cobaltheron.ads.HeronInterstitial\n\nval banner = BannerView(context, "CH-U-310772-BBBB1111")\n\nfun open() {\n    HeronInterstitial.load(this, "CH-U-310772-BBBB1111")\n}\n',
    });
    const after = text(holds(files, title, asked({ callSites: true })).after[path]);
    expect(after).toContain('BannerView(context, Placebook.footer.unit(');
    expect(after).toContain('HeronInterstitial.load(this, "CH-U-310772-BBBB1111")');
  });

  it.each(cases)('become references to the placebook: %s', (_, files, path, parts) => {
    const untouched = holds(files, title).after;
    expect(untouched[path]).toBe(files[path]);
    const { after } = holds(files, title, asked({ callSites: true }));
    for (const part of parts) expect(text(after[path])).toContain(part);
    expect(text(after[path])).not.toMatch(/CH-U-/);
  });
});

describe('a wiring is narrowed', () => {
  const files = {
    ...androidFiles({
      ...withoutStrings,
      [main]: manifest('').replace(/ *<uses-permission.*\n/g, ''),
      [script]: gradle('', ''),
      'settings.gradle.kts': heronRepository,
    }),
    ...iosFiles({ 'Kelp/Info.plist': plist('') }),
  };
  const title = titleOn(['cobalt-heron', 'marlstone'], both);
  const paths = (choice: Parameters<typeof plan>[2]) =>
    holds(files, title, choice).plan.groups.map(({ id }) => id);

  it('to a rule', () => {
    expect(paths({ choice: { rules: ['manifest/permission-missing'] } })).toEqual([
      'android/cobalt-heron/permissions',
    ]);
  });
  it('to a rule, with what that needs so that nothing else breaks', () => {
    const { plan: made } = holds(files, title, { choice: { rules: ['app-id/missing'] } });
    expect(made.edits.map(({ path }) => path)).toContain('app/src/release/res/values/syndexa.xml');
    const known = new Set(made.findings.map(({ fingerprint }) => fingerprint));
    expect(made.remaining.filter(({ fingerprint }) => !known.has(fingerprint))).toEqual([]);
  });
  it('to a network', () => {
    const groups = paths({ choice: { networks: ['marlstone'] } });
    expect(groups).toContain('android/marlstone/dependency');
    expect(groups.some((id) => id.includes('cobalt-heron'))).toBe(false);
  });
  it('to a variant', () => {
    const { plan: made } = holds(files, title, {
      choice: { variants: ['release'], groups: ['android/cobalt-heron/app-id'] },
    });
    expect(made.edits.map(({ path }) => path)).toEqual([main, 'app/src/release/res/values/syndexa.xml']);
  });
  it('to groups, and the groups are the whole', () => {
    const all = plan(files, title);
    for (const { id, paths: own } of all.groups)
      expect(plan(files, title, { choice: { groups: [id] } }).edits.map(({ path }) => path)).toEqual(own);
  });
});

describe('what stands is kept', () => {
  const body = (step: string, quote = '"') =>
    `<manifest xmlns:tools="http://schemas.android.com/tools" xmlns:android="http://schemas.android.com/apk/res/android">\n${step}<application\n${step}${step}tools:targetApi=${quote}34${quote}\n${step}${step}android:label = ${quote}Kelp${quote}\n${step}${step}android:allowBackup=${quote}false${quote}>\n${step}${step}<activity tools:node="merge" android:name=".Main"/>\n${step}</application>\n</manifest>`;
  const bare = (text_: string) => androidFiles({ ...withoutStrings, [main]: text_ });
  const after = (text_: string) => text(holds(bare(text_), androidOnly).after[main]);

  it('the order of attributes, their quotes, and blanks around their signs', () => {
    const made = after(body('    ', "'"));
    for (const line of body('    ', "'").split('\n')) expect(made).toContain(line.replace(/>$/, ''));
  });
  it.each([
    ['two blanks', '  '],
    ['three blanks', '   '],
    ['a tab', '\t'],
  ])('the width of indentation: %s', (_, step) => {
    expect(after(body(step))).toContain(`\n${step}${step}<meta-data\n${step}${step}${step}android:name=`);
  });
  it('the missing line end at the end of a file', () => {
    expect(after(body('  '))).toMatch(/<\/manifest>$/);
    expect(after(`${body('  ')}\n`)).toMatch(/<\/manifest>\n$/);
  });
  it('line ends, all of one kind or mixed', () => {
    const made = after(body('  ').replace(/\n/g, '\r\n'));
    expect(made.replace(/\r\n/g, '')).not.toMatch(/[\r\n]/);
    const mixed = body('  ').replace('\n', '\r\n');
    expect(after(mixed).split('\n')[0]).toBe(mixed.split('\n')[0]);
  });
  it('the byte order mark', () => {
    const marked = bare(`\ufeff${body('  ')}`);
    const bytes = holds(marked, androidOnly).after[main];
    expect(Buffer.from(bytes as Uint8Array).subarray(0, 3)).toEqual(Buffer.from([0xef, 0xbb, 0xbf]));
  });
});
