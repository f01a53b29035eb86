import { expect } from 'vitest';
import { appIdDiffersFromRoster } from '../../../src/core/checks/rules/app-id-differs-from-roster.js';
import { appIdDuplicated } from '../../../src/core/checks/rules/app-id-duplicated.js';
import { appIdMalformed } from '../../../src/core/checks/rules/app-id-malformed.js';
import { appIdMissing } from '../../../src/core/checks/rules/app-id-missing.js';
import { appIdNestedTooDeep } from '../../../src/core/checks/rules/app-id-nested-too-deep.js';
import { appIdNotInRoster } from '../../../src/core/checks/rules/app-id-not-in-roster.js';
import { appIdUnitIdInPlace } from '../../../src/core/checks/rules/app-id-unit-id-in-place.js';
import { appIdWrongPlatform } from '../../../src/core/checks/rules/app-id-wrong-platform.js';
import { dependencyMissing } from '../../../src/core/checks/rules/build-dependency-missing.js';
import { platformLevelTooLow } from '../../../src/core/checks/rules/build-platform-level-too-low.js';
import { identifierDiffersFromRoster } from '../../../src/core/checks/rules/identifier-differs-from-roster.js';
import { editionNotFound } from '../../../src/core/checks/rules/identifier-edition-not-found.js';
import { permissionMissing } from '../../../src/core/checks/rules/manifest-permission-missing.js';
import { productionIdInTest } from '../../../src/core/checks/rules/stage-production-id-in-test.js';
import { testIdInProduction } from '../../../src/core/checks/rules/stage-test-id-in-production.js';
import { variantUnmatched } from '../../../src/core/checks/rules/stage-variant-unmatched.js';
import { brokenFile } from '../../../src/core/checks/rules/tree-broken-file.js';
import { cannotTell } from '../../../src/core/checks/rules/tree-cannot-tell.js';
import { fileNotRead } from '../../../src/core/checks/rules/tree-file-not-read.js';
import { unitIdNotInBuild } from '../../../src/core/checks/rules/unit-id-not-in-build.js';
import { unitIdNotInRoster } from '../../../src/core/checks/rules/unit-id-not-in-roster.js';
import { Tree } from '../../../src/core/tree/tree.js';
import { ruleCases } from '../../support/rules.js';
import { placebookMark } from '../../../src/core/languages/common/placebook.js';
import {
  androidFiles,
  appIdKey,
  appIdMetaData,
  gradle,
  iosFiles,
  kelp,
  manifest,
  pbxproj,
  placement,
  plist,
  syntax,
} from '../../support/trees.js';

const mainManifest = 'app/src/main/AndroidManifest.xml';
const debugStrings = 'app/src/debug/res/values/ids.xml';
const releaseStrings = 'app/src/release/res/values/ids.xml';
const project = 'Kelp.xcodeproj/project.pbxproj';
const strings = (value: string) => `<resources>\n    <string name="heron">${value}</string>\n</resources>\n`;
const withManifest = (body: string, head?: string) => androidFiles({ [mainManifest]: manifest(body, head) });
const withPlist = (entries: string) => iosFiles({ 'Kelp/Info.plist': plist(entries) });
const inActivity = (value: string) =>
  `        <activity android:name=".Main">\n${appIdMetaData(value)}\n        </activity>`;
const footer = { footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222') };
const bannerInCode = (id: string) => `package example.brine.kelp\n\nval footer = "${id}"\n`;

ruleCases(appIdMissing, {
  clean: [
    { name: 'an Android tree that is right', files: androidFiles() },
    { name: 'an iOS tree that is right', files: iosFiles() },
    { name: 'a title that is on no network', files: withManifest(''), title: kelp({ networks: {} }) },
    {
      name: 'a value that cannot be told is not missing',
      files: withManifest(appIdMetaData('${fromEnvironment}')),
    },
  ],
  faulty: [
    {
      name: 'no meta-data at all',
      files: withManifest(''),
      findings: [
        {
          platform: 'android',
          variants: ['debug', 'release'],
          network: 'cobalt-heron',
          place: { path: mainManifest, line: 6, column: 5, endLine: 6, endColumn: 51 },
        },
      ],
    },
    {
      name: 'declared in the debug manifest only',
      files: androidFiles({
        [mainManifest]: manifest(''),
        'app/src/debug/AndroidManifest.xml': manifest(appIdMetaData('CH-A-100001-SAMPLE0A')),
      }),
      findings: [{ variants: ['release'] }],
    },
    {
      name: 'declared only inside an activity',
      files: withManifest(inActivity('@string/heron')),
      findings: [{ variants: ['debug', 'release'] }],
    },
    {
      name: 'no key in the property list',
      files: withPlist(''),
      findings: [{ platform: 'ios', variants: ['Debug', 'Release'] }],
    },
    {
      name: 'a network that takes its app ID in code, and no code hands it over',
      files: androidFiles({}),
      title: kelp({
        editions: { android: { identifier: 'example.brine.kelp' } },
        networks: { marlstone: { android: { production: { app: 'mrl1-0123456789abcdef01234567' } } } },
      }),
      findings: [{ network: 'marlstone', message: expect_('No code passes the app key of Marlstone') }],
    },
  ],
});

ruleCases(appIdNestedTooDeep, {
  clean: [
    { name: 'in the application element', files: androidFiles() },
    {
      name: 'another key inside an activity',
      files: withManifest(
        `${appIdMetaData('@string/heron')}\n<activity android:name=".A"><meta-data android:name="other" android:value="x" /></activity>`,
      ),
    },
  ],
  faulty: [
    {
      name: 'in an activity',
      files: withManifest(inActivity('CH-A-310772-QK4T8W2N')),
      findings: [
        {
          variants: ['debug', 'release'],
          message: expect_('inside activity .Main'),
          place: { path: mainManifest, line: 8, column: 9, endLine: 8, endColumn: 105 },
        },
      ],
    },
    {
      name: 'in a service, without a title',
      files: withManifest(`<service android:name=".S">${appIdMetaData('x')}</service>`),
      title: null,
      findings: [{ message: expect_('service .S') }],
    },
    {
      name: 'above the application element',
      files: withManifest('', appIdMetaData('@string/heron')),
      findings: [{ message: expect_('inside manifest') }],
    },
  ],
});

ruleCases(appIdDuplicated, {
  clean: [
    { name: 'once', files: androidFiles() },
    {
      name: 'a stronger manifest replaces it',
      files: androidFiles({
        'app/src/debug/AndroidManifest.xml': manifest(appIdMetaData('CH-A-100001-SAMPLE0A')),
      }),
    },
    {
      name: 'different keys',
      files: withPlist(`${appIdKey('$(HERON)')}\n\t<key>CobaltHeronAppIDNote</key>\n\t<string>x</string>`),
    },
  ],
  faulty: [
    {
      name: 'twice in one manifest',
      files: withManifest(`${appIdMetaData('@string/heron')}\n${appIdMetaData('@string/heron')}`),
      findings: [
        {
          variants: ['debug', 'release'],
          place: { path: mainManifest, line: 8, column: 9, endLine: 8, endColumn: 98 },
        },
      ],
    },
    {
      name: 'twice in the property list',
      files: withPlist(`${appIdKey('$(HERON)')}\n${appIdKey('$(HERON)')}`),
      findings: [{ platform: 'ios' }],
    },
  ],
});

ruleCases(appIdWrongPlatform, {
  clean: [
    { name: 'the right platform', files: androidFiles() },
    {
      name: 'a network whose IDs name no platform',
      files: androidFiles({ 'app/src/main/java/K.kt': bannerInCode('mrl1-0123456789abcdef01234567') }),
    },
  ],
  faulty: [
    {
      name: 'the iOS ID in the manifest',
      files: withManifest(appIdMetaData('CH-I-310772-M6R9V3XC')),
      findings: [{ platform: 'android', variants: ['debug', 'release'] }],
    },
    {
      name: 'the Android ID in the property list',
      files: withPlist(appIdKey('CH-A-310772-QK4T8W2N')),
      findings: [{ platform: 'ios' }],
    },
    {
      name: 'only in one configuration',
      files: iosFiles({
        [project]: pbxproj('HERON = "CH-A-100001-SAMPLE0A";', 'HERON = "CH-I-310772-M6R9V3XC";'),
      }),
      findings: [{ variants: ['Debug'] }],
    },
    {
      name: 'the sample of the other platform, of a network whose IDs name none',
      files: { ...androidFiles(), 'app/src/main/java/K.kt': bannerInCode('mrl1-0000000000000000000000b2') },
      findings: [{ network: 'marlstone' }],
    },
  ],
});

ruleCases(appIdUnitIdInPlace, {
  clean: [{ name: 'an app ID', files: androidFiles() }],
  faulty: [
    {
      name: 'a unit ID in the manifest',
      files: withManifest(appIdMetaData('CH-U-310772-BBBB1111')),
      findings: [{ network: 'cobalt-heron', variants: ['debug', 'release'] }],
    },
    {
      name: 'a unit ID in the release resources',
      files: androidFiles({ [releaseStrings]: strings('CH-U-310772-BBBB1111') }),
      findings: [{ variants: ['release'] }],
    },
    {
      name: 'a unit ID in the property list, without a title',
      files: withPlist(appIdKey('CH-U-310772-BBBB1111')),
      title: null,
      findings: [{ platform: 'ios' }],
    },
  ],
});

ruleCases(appIdMalformed, {
  clean: [
    { name: 'an ID', files: androidFiles() },
    {
      name: 'white space in a resource is folded by the build',
      files: androidFiles({ [releaseStrings]: strings('\n        CH-A-310772-QK4T8W2N\n    ') }),
    },
  ],
  faulty: [
    {
      name: 'white space in the manifest',
      files: withManifest(appIdMetaData(' CH-A-310772-QK4T8W2N')),
      findings: [{ message: expect_('white space') }],
    },
    {
      name: 'white space in the property list',
      files: withPlist(appIdKey('CH-I-310772-M6R9V3XC\n')),
      findings: [{ platform: 'ios', message: expect_('white space') }],
    },
    {
      name: 'text that stands for an ID',
      files: withManifest(appIdMetaData('YOUR_APP_ID')),
      findings: [{ message: expect_('a placeholder, not an app ID') }],
    },
    {
      name: 'an empty value',
      files: withManifest(appIdMetaData('')),
      findings: [{ message: expect_('a placeholder, not an app ID') }],
    },
    {
      name: 'a cut ID',
      files: withManifest(appIdMetaData('CH-A-310772-QK4T8W2')),
      findings: [{ message: expect_('does not look like') }],
    },
  ],
});

ruleCases(appIdDiffersFromRoster, {
  clean: [
    { name: 'the roster’s ID', files: androidFiles() },
    {
      name: 'a sample is another rule’s',
      files: androidFiles({ [releaseStrings]: strings('CH-A-100001-SAMPLE0A') }),
    },
  ],
  faulty: [
    {
      name: 'another account’s ID',
      files: androidFiles({ [releaseStrings]: strings('CH-A-999999-QK4T8W2N') }),
      findings: [{ variants: ['release'], message: expect_('CH-A-310772-QK4T8W2N') }],
    },
    {
      name: 'another ID in a configuration',
      files: iosFiles({
        [project]: pbxproj('HERON = "CH-I-555555-M6R9V3XC";', 'HERON = "CH-I-310772-M6R9V3XC";'),
      }),
      findings: [{ variants: ['Debug'] }],
    },
  ],
});

ruleCases(appIdNotInRoster, {
  clean: [{ name: 'every ID is there', files: androidFiles() }],
  faulty: [
    {
      name: 'an enrolment without a production ID',
      byHand: { title: kelp() },
      files: androidFiles(),
      title: kelp({ networks: { 'cobalt-heron': { android: { test: { app: 'CH-A-100001-SAMPLE0A' } } } } }),
      findings: [{ platform: 'android', place: null }],
    },
    {
      name: 'units, but no app ID',
      files: iosFiles(),
      title: kelp({ networks: {}, placements: footer }),
      findings: [{ platform: 'ios' }],
    },
  ],
});

ruleCases(unitIdNotInRoster, {
  clean: [{ name: 'every unit is there', files: androidFiles(), title: kelp({ placements: footer }) }],
  faulty: [
    {
      name: 'a placement without its Android unit',
      byHand: { title: kelp({ placements: footer }) },
      files: androidFiles(),
      title: kelp({
        placements: { footer: { format: 'banner', settings: {}, units: { 'cobalt-heron': {} } } },
      }),
      findings: [{ placement: 'footer', platform: 'android' }],
    },
  ],
});

ruleCases(unitIdNotInBuild, {
  clean: [
    { name: 'no placements', files: androidFiles() },
    {
      name: 'each stage has its own',
      files: androidFiles({
        'app/src/debug/java/K.kt': bannerInCode('CH-U-100001-BANNER0A'),
        'app/src/release/java/K.kt': bannerInCode('CH-U-310772-BBBB1111'),
      }),
      title: kelp({ placements: footer }),
    },
    {
      name: 'in string resources',
      files: androidFiles({
        [debugStrings]:
          '<resources><string name="heron">CH-A-100001-SAMPLE0A</string><string name="footer">CH-U-100001-BANNER0A</string></resources>',
        [releaseStrings]:
          '<resources><string name="heron">CH-A-310772-QK4T8W2N</string><string name="footer">CH-U-310772-BBBB1111</string></resources>',
      }),
      title: kelp({ placements: footer }),
    },
    {
      name: 'chosen at run time: it cannot be told',
      files: androidFiles({
        'app/src/main/java/K.kt':
          'val footer = if (BuildConfig.DEBUG) "CH-U-100001-BANNER0A" else "CH-U-310772-BBBB1111"\n',
      }),
      title: kelp({ placements: footer }),
    },
    {
      name: 'Swift branches that the configurations settle',
      files: iosFiles({
        'Kelp/App.swift':
          '#if DEBUG\nlet unit = "CH-U-100001-BANNER0I"\n#else\nlet unit = "CH-U-310772-CCCC2222"\n#endif\n',
      }),
      title: kelp({ placements: footer }),
    },
  ],
  faulty: [
    {
      name: 'in the placebook alone',
      files: androidFiles({
        'app/src/main/java/Placebook.kt': `// ${placebookMark}\nobject Placebook {\n    val footer = Placement(name = "footer", unit = "CH-U-310772-BBBB1111")\n}\n`,
        'app/src/debug/java/K.kt': bannerInCode('CH-U-100001-BANNER0A'),
      }),
      title: kelp({ placements: footer }),
      findings: [
        {
          variants: ['release'],
          message:
            'No code and no resource uses the unit of footer on Cobalt Heron (production CH-U-310772-BBBB1111); in code it is Placebook.footer.unit(Placebook.Network.COBALT_HERON).',
        },
      ],
    },
    {
      name: 'nowhere',
      files: androidFiles(),
      title: kelp({ placements: footer }),
      findings: [{ placement: 'footer', variants: ['debug', 'release'] }],
    },
    {
      name: 'in a comment only',
      files: androidFiles({ 'app/src/main/java/K.kt': '// "CH-U-310772-BBBB1111"\n' }),
      title: kelp({ placements: footer }),
      findings: [{ variants: ['debug', 'release'] }],
    },
    {
      name: 'in one stage only',
      byHand: { edits: [['app/src/debug/java/K.kt', '', bannerInCode('CH-U-100001-BANNER0A')]] },
      files: androidFiles({ 'app/src/release/java/K.kt': bannerInCode('CH-U-310772-BBBB1111') }),
      title: kelp({ placements: footer }),
      findings: [{ variants: ['debug'] }],
    },
  ],
});

ruleCases(testIdInProduction, {
  clean: [
    { name: 'samples in debug only', files: androidFiles() },
    {
      name: 'a sample that is nested is not used at all',
      files: withManifest(`${appIdMetaData('@string/heron')}\n${inActivity('CH-A-100001-SAMPLE0A')}`),
    },
    {
      name: 'a sample in a comment',
      files: androidFiles({ 'app/src/main/java/K.kt': '/* "CH-U-100001-BANNER0A" */\n' }),
    },
  ],
  faulty: [
    {
      name: 'a sample app ID in release',
      files: androidFiles({ [releaseStrings]: strings('CH-A-100001-SAMPLE0A') }),
      findings: [{ variants: ['release'] }],
    },
    {
      name: 'a sample app ID for every variant',
      files: withManifest(appIdMetaData('CH-A-100001-SAMPLE0A')),
      findings: [{ variants: ['release'] }],
    },
    {
      name: 'a sample unit in main code',
      files: androidFiles({ 'app/src/main/java/K.kt': bannerInCode('CH-U-100001-BANNER0A') }),
      findings: [{ variants: ['release'], mend: expect_('placebook') }],
    },
    {
      name: 'a sample in a Swift branch of release',
      files: iosFiles({ 'Kelp/App.swift': '#if !DEBUG\nlet unit = "CH-U-100001-BANNER0I"\n#endif\n' }),
      findings: [{ variants: ['Release'] }],
    },
    {
      name: 'an ID that the roster keeps for testing',
      files: androidFiles({ [releaseStrings]: strings('CH-A-310772-TESTTEST') }),
      title: kelp({
        networks: {
          'cobalt-heron': {
            android: { test: { app: 'CH-A-310772-TESTTEST' }, production: { app: 'CH-A-310772-QK4T8W2N' } },
          },
        },
      }),
      findings: [{ variants: ['release'] }],
    },
  ],
});

ruleCases(productionIdInTest, {
  clean: [
    { name: 'production IDs in release only', files: androidFiles() },
    {
      name: 'a Swift branch that debug leaves out',
      files: iosFiles({ 'Kelp/App.swift': '#if DEBUG\n#else\nlet unit = "CH-U-310772-CCCC2222"\n#endif\n' }),
      title: kelp({ placements: footer }),
    },
  ],
  faulty: [
    {
      name: 'one value for every variant',
      files: withManifest(appIdMetaData('CH-A-310772-QK4T8W2N')),
      findings: [{ variants: ['debug'] }],
    },
    {
      name: 'through a placeholder',
      files: androidFiles({
        [mainManifest]: manifest(appIdMetaData('${heron}')),
        'app/build.gradle.kts': gradle(
          '    defaultConfig { manifestPlaceholders["heron"] = "CH-A-310772-QK4T8W2N" }',
        ),
      }),
      findings: [{ variants: ['debug'] }],
    },
    {
      name: 'a unit in main code',
      files: androidFiles({ 'app/src/main/java/K.kt': bannerInCode('CH-U-310772-BBBB1111') }),
      title: kelp({ placements: footer }),
      findings: [{ variants: ['debug'], placement: 'footer' }],
    },
  ],
});

ruleCases(variantUnmatched, {
  clean: [
    { name: 'debug and release', files: androidFiles() },
    { name: 'case does not matter', files: iosFiles() },
  ],
  faulty: [
    {
      name: 'a build type that nobody named',
      byHand: { title: kelp({ stages: { test: ['debug', 'benchmark'], production: ['release'] } }) },
      files: androidFiles({ 'app/build.gradle.kts': gradle('    buildTypes { create("benchmark") {} }') }),
      findings: [{ variants: ['benchmark'] }],
    },
    {
      name: 'named on both sides',
      files: androidFiles({}),
      title: kelp({ stages: { test: ['debug', 'release'], production: ['release'] } }),
      findings: [{ variants: ['release'], message: expect_('says test') }],
    },
  ],
});

ruleCases(permissionMissing, {
  clean: [
    { name: 'declared', files: androidFiles() },
    {
      name: 'declared in a stronger manifest of each variant',
      files: androidFiles({
        [mainManifest]: manifest(appIdMetaData('@string/heron')).replace(
          / *<uses-permission.*NETWORK_STATE.*\n/,
          '',
        ),
        'app/src/debug/AndroidManifest.xml': manifest(''),
        'app/src/release/AndroidManifest.xml': manifest(''),
      }),
    },
    { name: 'iOS has no permissions', files: iosFiles() },
  ],
  faulty: [
    {
      name: 'not declared',
      files: androidFiles({
        [mainManifest]: manifest(appIdMetaData('@string/heron')).replace(
          / *<uses-permission.*NETWORK_STATE.*\n/,
          '',
        ),
      }),
      findings: [{ message: expect_('ACCESS_NETWORK_STATE'), variants: ['debug', 'release'] }],
    },
    {
      name: 'declared for debug only',
      files: androidFiles({
        [mainManifest]: manifest(appIdMetaData('@string/heron')).replace(
          / *<uses-permission.*INTERNET.*\n/,
          '',
        ),
        'app/src/debug/AndroidManifest.xml': manifest(''),
      }),
      findings: [{ variants: ['release'] }],
    },
  ],
});

ruleCases(platformLevelTooLow, {
  clean: [
    { name: 'high enough', files: androidFiles() },
    {
      name: 'exactly enough',
      files: androidFiles({ 'app/build.gradle.kts': gradle().replace('minSdk = 24', 'minSdk = 23') }),
    },
    { name: 'iOS high enough', files: iosFiles() },
    {
      name: 'computed when the build runs',
      files: androidFiles({ 'app/build.gradle.kts': gradle().replace('minSdk = 24', 'minSdk = levels()') }),
    },
  ],
  faulty: [
    {
      name: 'minSdk',
      files: androidFiles({ 'app/build.gradle.kts': gradle().replace('minSdk = 24', 'minSdk = 21') }),
      findings: [
        {
          network: 'cobalt-heron',
          place: { path: 'app/build.gradle.kts', line: 12, column: 18, endLine: 12, endColumn: 20 },
        },
      ],
    },
    {
      name: 'compileSdk in its method form',
      files: androidFiles({
        'app/build.gradle.kts': gradle().replace('compileSdk = 35', 'compileSdkVersion(33)'),
      }),
      findings: [{ message: expect_('compileSdk 34') }],
    },
    {
      name: 'one deployment target for all is one finding',
      files: iosFiles({
        [project]: pbxproj('HERON = "CH-I-100001-SAMPLE0I";', 'HERON = "CH-I-310772-M6R9V3XC";').replace(
          /IPHONEOS_DEPLOYMENT_TARGET = 15.0/g,
          'IPHONEOS_DEPLOYMENT_TARGET = 12.4',
        ),
      }),
      findings: [{ variants: ['Debug', 'Release'] }],
    },
  ],
});

ruleCases(dependencyMissing, {
  clean: [
    { name: 'a string', files: androidFiles() },
    {
      name: 'the map form',
      files: androidFiles({
        'app/build.gradle.kts': null,
        'app/build.gradle':
          "apply plugin: 'com.android.application'\nandroid { defaultConfig { applicationId 'example.brine.kelp' } }\ndependencies { implementation group: 'example.cobaltheron', name: 'ads-sdk', version: '6.2.0' }\n",
      }),
    },
    {
      name: 'a bundle of the catalogue',
      files: androidFiles({
        'gradle/libs.versions.toml':
          '[libraries]\nheron-ads = "example.cobaltheron:ads-sdk:6.2.0"\n[bundles]\nads = ["heron-ads"]\n',
        'app/build.gradle.kts': gradle('', 'implementation(libs.bundles.ads)'),
      }),
    },
    { name: 'a pod', files: iosFiles() },
    {
      name: 'one per build type',
      files: androidFiles({
        'app/build.gradle.kts': gradle(
          '',
          'debugImplementation("example.cobaltheron:ads-sdk:6.2.0")\n    releaseImplementation("example.cobaltheron:ads-sdk:6.2.0")',
        ),
      }),
    },
  ],
  faulty: [
    {
      name: 'none',
      files: androidFiles({ 'app/build.gradle.kts': gradle('', '') }),
      findings: [{ message: expect_('example.cobaltheron:ads-sdk') }],
    },
    {
      name: 'for debug only',
      files: androidFiles({
        'app/build.gradle.kts': gradle('', 'debugImplementation("example.cobaltheron:ads-sdk:6.2.0")'),
      }),
      findings: [{ variants: ['release'] }],
    },
    {
      name: 'a pod of another target',
      files: iosFiles({ Podfile: "target 'Other' do\n  pod 'CobaltHeronAds'\nend\n" }),
      findings: [{ platform: 'ios' }],
    },
    {
      name: 'a pod that is commented out',
      files: iosFiles({ Podfile: "target 'Kelp' do\n  # pod 'CobaltHeronAds'\nend\n" }),
      findings: [{ platform: 'ios' }],
    },
  ],
});

ruleCases(identifierDiffersFromRoster, {
  clean: [
    { name: 'the same', files: androidFiles() },
    {
      name: 'a suffix on debug',
      files: androidFiles({
        'app/build.gradle.kts': gradle('    buildTypes { debug { applicationIdSuffix = ".debug" } }'),
      }),
    },
  ],
  faulty: [
    {
      name: 'a few letters off',
      files: iosFiles({ [project]: pbxproj().replace(/example\.brine\.kelp/g, 'example.brine.kelps') }),
      findings: [{ platform: 'ios', variants: ['Release'] }],
    },
    {
      name: 'a suffix on release',
      byHand: { edits: [['app/build.gradle.kts', 'applicationIdSuffix = ".store"', '']] },
      files: androidFiles({
        'app/build.gradle.kts': gradle('    buildTypes { release { applicationIdSuffix = ".store" } }'),
      }),
      findings: [{ message: expect_('example.brine.kelp.store') }],
    },
  ],
});

const twoApps = androidFiles({
  'wear/build.gradle.kts': gradle().replace(
    'applicationId = "example.brine.kelp"',
    'applicationId = "example.brine.wear"',
  ),
});
ruleCases(editionNotFound, {
  clean: [
    {
      name: 'one app is the edition whatever it is called',
      files: androidFiles(),
      title: kelp({ editions: { android: { identifier: 'example.brine.other' } } }),
    },
    { name: 'one of two bears the identifier', files: twoApps },
  ],
  faulty: [
    {
      name: 'neither of two',
      byHand: { title: kelp() },
      files: twoApps,
      title: kelp({ editions: { android: { identifier: 'example.brine.other' } } }),
      findings: [{ platform: 'android', message: expect_('example.brine.wear (wear)') }],
    },
  ],
});

ruleCases(brokenFile, {
  clean: [
    { name: 'whole files', files: androidFiles() },
    {
      name: 'odd but right XML',
      files: withManifest(
        `<![CDATA[ ]]><!-- a > b & c -->\n${appIdMetaData('@string/heron').replace(/"/g, "'")}`,
      ),
    },
  ],
  faulty: [
    {
      name: 'an element that is never closed',
      byHand: { edits: [[mainManifest, '<application>\n', '<application></application>\n']] },
      files: androidFiles({ [mainManifest]: '<manifest>\n  <application>\n</manifest>\n' }),
      findings: [{ place: { path: mainManifest, line: 2, column: 3 } }],
    },
    {
      name: 'a property list with a key without a value',
      files: withPlist('\t<key>Lonely</key>'),
      findings: [{ place: { path: 'Kelp/Info.plist', line: 7, column: 2 } }],
    },
    {
      name: 'a project file that ends early',
      files: iosFiles({ [project]: '// !$*UTF8*$!\n{ objects = { A = {' }),
      findings: [{ place: { path: project, line: 2, column: 20 } }],
    },
  ],
});

const androidTree = Object.entries(androidFiles()).map(([path, text]) => ({
  path,
  hash: '',
  bytes: new TextEncoder().encode(text),
}));
ruleCases(fileNotRead, {
  clean: [{ name: 'everything was read', files: androidFiles() }],
  faulty: [
    {
      name: 'what the collector left out',
      files: new Tree(androidTree, {
        syntax,
        skipped: [{ path: 'app/src/main/res/values/huge.xml', reason: 'Not read: it has 52428800 bytes.' }],
      }),
      findings: [{ severity: 'warning' }],
    },
    {
      name: 'half a template in a build script',
      byHand: { edits: [['app/build.gradle.kts', 'minSdk = {{ min_sdk }\n  label = "', 'minSdk = 24']] },
      files: androidFiles({
        'app/build.gradle.kts': gradle().replace('minSdk = 24', 'minSdk = {{ min_sdk }\n  label = "'),
      }),
      findings: [{}],
    },
  ],
});

ruleCases(cannotTell, {
  clean: [
    { name: 'everything can be told', files: androidFiles() },
    {
      name: 'a network that the title is not on',
      files: withManifest(appIdMetaData('${absent}')),
      title: kelp({ networks: {} }),
    },
  ],
  faulty: [
    {
      name: 'an environment variable',
      files: androidFiles({
        [mainManifest]: manifest(appIdMetaData('${heron}')),
        'app/build.gradle.kts': gradle(
          '    defaultConfig { manifestPlaceholders["heron"] = System.getenv("HERON_ID") }',
        ),
      }),
      findings: [
        {
          severity: 'note',
          message: expect_('environment variable HERON_ID'),
          variants: ['debug', 'release'],
        },
      ],
    },
    {
      name: 'a resource that no source set has',
      files: withManifest(appIdMetaData('@string/nowhere')),
      title: null,
      findings: [{ message: expect_('no source set of this variant has a string nowhere') }],
    },
    {
      name: 'a build setting that nothing sets',
      files: withPlist(appIdKey('$(ABSENT)')),
      title: null,
      findings: [{ message: expect_('nothing in the tree sets $(ABSENT)') }],
    },
  ],
});

/** Matches a text that holds another. */
function expect_(part: string): string {
  return expect.stringContaining(part) as string;
}
