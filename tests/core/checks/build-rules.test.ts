import { expect } from 'vitest';
import { dependencyMissing } from '../../../src/core/checks/rules/build-dependency-missing.js';
import { dependencyTooOld } from '../../../src/core/checks/rules/build-dependency-too-old.js';
import { dependencyTwice } from '../../../src/core/checks/rules/build-dependency-twice.js';
import { binaryMissing } from '../../../src/core/checks/rules/build-binary-missing.js';
import { installNotRun } from '../../../src/core/checks/rules/build-install-not-run.js';
import { kotlinTooNew } from '../../../src/core/checks/rules/build-kotlin-too-new.js';
import { kotlinTooOld } from '../../../src/core/checks/rules/build-kotlin-too-old.js';
import { notLocked } from '../../../src/core/checks/rules/build-not-locked.js';
import { pluginMissing } from '../../../src/core/checks/rules/build-plugin-missing.js';
import { repositoryForbidden } from '../../../src/core/checks/rules/build-repository-forbidden.js';
import { repositoryMissing } from '../../../src/core/checks/rules/build-repository-missing.js';
import { repositoryPassedOver } from '../../../src/core/checks/rules/build-repository-passed-over.js';
import { versionHeldBack } from '../../../src/core/checks/rules/build-version-held-back.js';
import { versionsDifferAcrossPlatforms } from '../../../src/core/checks/rules/build-versions-differ-across-platforms.js';
import { companionOutsideTarget } from '../../../src/core/checks/rules/companion-outside-target.js';
import { applicationClassMissing } from '../../../src/core/checks/rules/manifest-application-class-missing.js';
import { bannerNotAnchored } from '../../../src/core/checks/rules/manifest-banner-not-anchored.js';
import { componentMissing } from '../../../src/core/checks/rules/manifest-component-missing.js';
import { layoutNamespace } from '../../../src/core/checks/rules/manifest-layout-namespace.js';
import { mergeConflict } from '../../../src/core/checks/rules/manifest-merge-conflict.js';
import { ruleCases } from '../../support/rules.js';
import {
  androidFiles,
  appIdMetaData,
  gradle,
  heronRepository,
  iosFiles,
  kelp,
  manifest,
  pbxproj,
  withResource,
} from '../../support/trees.js';

const kotlin = (version: string) =>
  androidFiles({ 'app/build.gradle.kts': gradle().replace('version "2.1.0"', `version "${version}"`) });
const onBoth = kelp({
  networks: { 'cobalt-heron': {}, marlstone: {} },
});
const enrolled = (network: string) => kelp({ networks: { [network]: {} } });
const script = (dependencies: string, more: Record<string, string | null> = {}) =>
  androidFiles({ 'app/build.gradle.kts': gradle('', dependencies), ...more });
const sdk = 'implementation("example.cobaltheron:ads-sdk:6.2.0")';
const pods = (lines: string, lock?: string) =>
  iosFiles({
    Podfile: `target 'Kelp' do\n${lines}\nend\n`,
    'Podfile.lock': lock ?? null,
  });
const lock = (version: string) =>
  `PODS:\n  - CobaltHeronAds (${version})\nDEPENDENCIES:\n  - CobaltHeronAds (~> 6.2)\n`;
const pod = "  pod 'CobaltHeronAds', '~> 6.2'";
const url = 'https://maven.cobaltheron.example/release';
const quincebury = enrolled('quincebury');
const ferrowick = enrolled('ferrowick');
const main = 'app/src/main/AndroidManifest.xml';

ruleCases(kotlinTooOld, {
  clean: [
    { name: 'the lowest version that is allowed', files: kotlin('1.8.0') },
    { name: 'a network that is not enrolled', files: kotlin('1.6.0'), title: kelp({ networks: {} }) },
  ],
  faulty: [
    {
      name: 'below the range',
      byHand: { edits: [['app/build.gradle.kts', '1.7.22', '1.9.24']] },
      files: kotlin('1.7.22'),
      findings: [{ place: expect.objectContaining({ path: 'app/build.gradle.kts' }) }],
    },
  ],
});

ruleCases(kotlinTooNew, {
  clean: [
    { name: 'just below the bound', files: kotlin('2.3.99'), title: onBoth },
    { name: 'a network without a bound', files: kotlin('2.4.0') },
  ],
  faulty: [
    {
      name: 'the bound itself',
      byHand: { edits: [['app/build.gradle.kts', '2.4.0', '2.3.20']] },
      files: kotlin('2.4.0'),
      title: onBoth,
      findings: [{ network: 'marlstone' }],
    },
  ],
});

ruleCases(repositoryMissing, {
  clean: [
    { name: 'in the settings', files: androidFiles() },
    {
      name: 'with a slash at its end',
      files: androidFiles({ 'settings.gradle.kts': heronRepository.replace('/release"', '/release/"') }),
    },
    {
      name: 'no dependency that would need it',
      files: script('', { 'settings.gradle.kts': 'include(":app")\n' }),
    },
  ],
  faulty: [
    {
      name: 'for plugins only',
      byHand: { edits: [['settings.gradle.kts', 'include(":app")\n', heronRepository]] },
      files: androidFiles({
        'settings.gradle.kts': `pluginManagement { repositories { maven("${url}") } }\ninclude(":app")\n`,
      }),
      findings: [{ network: 'cobalt-heron', variants: ['debug', 'release'] }],
    },
  ],
});

const forbidding = (mode: string, module = '') => ({
  'settings.gradle.kts': `dependencyResolutionManagement {\n repositoriesMode.set(RepositoriesMode.${mode})\n repositories { google() }\n}\ninclude(":app")\n`,
  'app/build.gradle.kts': `${gradle()}\n${module}`,
});
const ownRepository = `repositories { maven("${url}") }`;

ruleCases(repositoryForbidden, {
  clean: [
    { name: 'projects may have their own', files: androidFiles(forbidding('PREFER_PROJECT', ownRepository)) },
    {
      name: 'another repository',
      files: androidFiles(forbidding('FAIL_ON_PROJECT_REPOS', 'repositories { mavenCentral() }')),
    },
  ],
  faulty: [
    {
      name: 'in the module',
      byHand: {
        edits: [
          ['app/build.gradle.kts', ownRepository, ''],
          ['settings.gradle.kts', 'google()', `google()\n maven("${url}")`],
        ],
      },
      files: androidFiles(forbidding('FAIL_ON_PROJECT_REPOS', ownRepository)),
      findings: [{ place: expect.objectContaining({ path: 'app/build.gradle.kts' }) }],
    },
  ],
});

ruleCases(repositoryPassedOver, {
  clean: [
    { name: 'the settings, and no project names any', files: androidFiles() },
    {
      name: 'named again where it counts',
      files: androidFiles({ 'app/build.gradle.kts': `${gradle()}\n${ownRepository}` }),
    },
  ],
  faulty: [
    {
      name: 'a project that names others',
      byHand: { edits: [['app/build.gradle.kts', 'repositories { mavenCentral() }', '']] },
      files: androidFiles({ 'app/build.gradle.kts': `${gradle()}\nrepositories { mavenCentral() }` }),
      findings: [{ message: expect.stringContaining('uses only those') }],
    },
    {
      name: 'settings that win',
      files: androidFiles(forbidding('PREFER_SETTINGS', ownRepository)),
      findings: [{ message: expect.stringContaining('use only their own') }],
    },
  ],
});

ruleCases(dependencyMissing, {
  clean: [
    {
      name: 'through a module of the tree',
      files: script('implementation(project(":core"))', {
        'settings.gradle.kts': `${heronRepository}include(":app", ":core")\n`,
        'core/build.gradle.kts': `plugins { id("com.android.library") }\ndependencies { ${sdk} }\n`,
      }),
    },
  ],
  faulty: [
    {
      name: 'for the compiler only',
      files: script(sdk.replace('implementation', 'compileOnly')),
      findings: [{}],
    },
  ],
});

ruleCases(dependencyTwice, {
  clean: [
    { name: 'once', files: androidFiles() },
    {
      name: 'once per build type',
      files: script(
        `${sdk.replace('implementation', 'debugImplementation')}\n    releaseImplementation("example.cobaltheron:ads-sdk:6.3.0")`,
      ),
    },
    { name: 'twice the same line', files: script(`${sdk}\n    ${sdk}`) },
  ],
  faulty: [
    {
      name: 'two versions',
      byHand: {
        edits: [['app/build.gradle.kts', 'implementation("example.cobaltheron:ads-sdk:6.3.0")', '']],
      },
      files: script(`${sdk}\n    implementation("example.cobaltheron:ads-sdk:6.3.0")`),
      findings: [{ variants: ['debug', 'release'], message: expect.stringContaining('6.3.0') }],
    },
  ],
});

ruleCases(dependencyTooOld, {
  clean: [
    { name: 'the version of the profile', files: androidFiles() },
    { name: 'a newer one', files: script(sdk.replace('6.2.0', '7.0.0')) },
    { name: 'the beginning of a newer one', files: script(sdk.replace('6.2.0', '6.3.0-beta1')) },
    { name: 'a pod at less depth', files: iosFiles() },
    { name: 'a lower bound says nothing', files: pods("  pod 'CobaltHeronAds', '>= 5.0'", lock('6.2.0')) },
  ],
  faulty: [
    {
      name: 'an old library',
      byHand: { edits: [['app/build.gradle.kts', '6.1.9', '6.2.0']] },
      files: script(sdk.replace('6.2.0', '6.1.9')),
      findings: [{ network: 'cobalt-heron' }],
    },
    { name: 'an old pod', files: pods("  pod 'CobaltHeronAds', '~> 5.4'"), findings: [{ platform: 'ios' }] },
    {
      name: 'a pre-release of the version',
      byHand: { edits: [['app/build.gradle.kts', '6.2.0-beta1', '6.2.0']] },
      files: script(sdk.replace('6.2.0', '6.2.0-beta1')),
      findings: [{ message: expect.stringContaining('6.2.0-beta1') }],
    },
  ],
});

ruleCases(binaryMissing, {
  clean: [
    {
      name: 'named and there',
      files: script('implementation(files("libs/quincebury-client-2.8.aar"))', {
        'app/libs/quincebury-client-2.8.aar': 'x',
      }),
      title: quincebury,
    },
    { name: 'a network without a file', files: androidFiles() },
  ],
  faulty: [
    {
      name: 'never named',
      files: androidFiles(),
      title: quincebury,
      findings: [{ message: expect.stringContaining('no dependency') }],
    },
    {
      name: 'named and not there',
      byHand: { edits: [['app/libs/quincebury-client-2.8.aar', '', 'x']] },
      files: script('implementation(files("libs/quincebury-client-2.8.aar"))'),
      title: quincebury,
      findings: [
        {
          message: expect.stringContaining(
            'app/libs/quincebury-client-2.8.aar, which the build names, does not exist',
          ),
        },
      ],
    },
  ],
});

ruleCases(installNotRun, {
  clean: [
    { name: 'installed', files: iosFiles() },
    { name: 'no lock at all', files: pods(pod) },
  ],
  faulty: [
    {
      name: 'a lock without the pod',
      byHand: {
        edits: [['Podfile.lock', 'PODS:\n  - Other (1.0)\nDEPENDENCIES:\n  - Other\n', lock('6.2.0')]],
      },
      files: pods(pod, 'PODS:\n  - Other (1.0)\nDEPENDENCIES:\n  - Other\n'),
      findings: [{ place: expect.objectContaining({ path: 'Podfile' }) }],
    },
  ],
});

ruleCases(notLocked, {
  clean: [{ name: 'a lock beside the Podfile', files: iosFiles() }],
  faulty: [
    {
      name: 'no lock',
      byHand: { edits: [['Podfile.lock', '', lock('6.2.0')]] },
      files: pods(pod),
      findings: [{ variants: ['Debug', 'Release'] }],
    },
  ],
});

ruleCases(versionHeldBack, {
  clean: [
    { name: 'at what is asked for', files: pods(pod, lock('6.2.0')) },
    { name: 'above it', files: pods(pod, lock('6.9.1')) },
  ],
  faulty: [
    {
      name: 'below it',
      byHand: { edits: [['Podfile.lock', '6.0.4', '6.2.0']] },
      files: pods(pod, lock('6.0.4')),
      findings: [{ place: expect.objectContaining({ path: 'Podfile.lock', line: 2 }) }],
    },
    {
      name: 'at a pre-release of it',
      byHand: { edits: [['Podfile.lock', '6.2.0.beta1', '6.2.0']] },
      files: pods(pod, lock('6.2.0.beta1')),
      findings: [{ place: expect.objectContaining({ path: 'Podfile.lock', line: 2 }) }],
    },
  ],
});

ruleCases(versionsDifferAcrossPlatforms, {
  clean: [
    { name: 'the same generation', files: { ...androidFiles(), ...iosFiles() } },
    { name: 'one platform alone', files: androidFiles() },
  ],
  faulty: [
    {
      name: 'a generation apart',
      byHand: { edits: [['app/build.gradle.kts', '7.1.0', '6.2.0']] },
      files: { ...script(sdk.replace('6.2.0', '7.1.0')), ...iosFiles() },
      findings: [{ network: 'cobalt-heron', message: expect.stringContaining('7.1.0 on Android') }],
    },
  ],
});

ruleCases(pluginMissing, {
  clean: [
    {
      name: 'applied',
      files: androidFiles({
        'app/build.gradle.kts': gradle().replace(
          'plugins {',
          'plugins {\n    id("example.ferrowick.notice")',
        ),
      }),
      title: ferrowick,
    },
    { name: 'not needed', files: androidFiles() },
  ],
  faulty: [
    {
      name: 'named, and not applied',
      files: androidFiles({
        'app/build.gradle.kts': gradle().replace(
          'plugins {',
          'plugins {\n    id("example.ferrowick.notice") version "1.9.3" apply false',
        ),
      }),
      title: ferrowick,
      findings: [{ network: 'ferrowick' }],
    },
  ],
});

const withRule = (rule: string) =>
  androidFiles({
    [main]: manifest(appIdMetaData('MAIN')),
    'app/src/debug/AndroidManifest.xml': manifest(
      appIdMetaData('DEBUG').replace(' />', ` ${rule}/>`),
    ).replace('<manifest ', '<manifest xmlns:tools="http://schemas.android.com/tools" '),
  });
ruleCases(mergeConflict, {
  clean: [
    { name: 'a value that is replaced', files: withRule('tools:replace="android:value" ') },
    { name: 'one manifest', files: androidFiles() },
  ],
  faulty: [{ name: 'two values', files: withRule(''), findings: [{ variants: ['debug'] }] }],
});

const service = '        <service android:name="example.ferrowick.zones.NoticeService" />';
ruleCases(componentMissing, {
  clean: [{ name: 'declared', files: androidFiles({ [main]: manifest(service) }), title: ferrowick }],
  faulty: [
    {
      name: 'forgotten',
      files: androidFiles(),
      title: ferrowick,
      findings: [{ variants: ['debug', 'release'] }],
    },
    {
      name: 'in the debug manifest only',
      files: androidFiles({ 'app/src/debug/AndroidManifest.xml': manifest(service) }),
      title: ferrowick,
      findings: [{ variants: ['release'] }],
    },
  ],
});

const ownClass = (name: string, code = '') =>
  androidFiles({
    [main]: manifest('').replace('<application ', `<application android:name="${name}" `),
    'app/src/main/java/example/brine/kelp/KelpApp.java': code || null,
  });
ruleCases(applicationClassMissing, {
  clean: [
    {
      name: 'declared',
      files: ownClass('example.quincebury.client.QuinceburyApplication'),
      title: quincebury,
    },
    {
      name: 'extended by the title’s own',
      files: ownClass('.KelpApp', 'class KelpApp extends QuinceburyApplication { }'),
      title: quincebury,
    },
  ],
  faulty: [
    {
      name: 'none at all',
      files: androidFiles({ [main]: manifest(appIdMetaData('@string/heron')) }),
      title: quincebury,
      findings: [{ message: expect.stringContaining('none is declared') }],
    },
    {
      name: 'another one',
      files: ownClass('.KelpApp', 'class KelpApp extends Application { }'),
      title: quincebury,
      findings: [{ message: expect.stringContaining('example.brine.kelp.KelpApp') }],
    },
  ],
});

const layout = (attributes: string, namespaces = 'xmlns:app="http://schemas.android.com/apk/res-auto"') =>
  androidFiles({
    'app/src/main/res/layout/main.xml': `<FrameLayout xmlns:android="http://schemas.android.com/apk/res/android" ${namespaces}><example.cobaltheron.ads.BannerView ${attributes} /></FrameLayout>`,
  });
ruleCases(layoutNamespace, {
  clean: [{ name: 'bound', files: layout('app:heronUnit="CH-U-310772-BBBB1111"') }],
  faulty: [
    {
      name: 'not bound',
      byHand: { edits: [['app/src/main/res/layout/main.xml', 'ads:heronUnit', 'app:heronUnit']] },
      files: layout('ads:heronUnit="CH-U-310772-BBBB1111"'),
      findings: [{ message: expect.stringContaining('ads') }],
    },
  ],
});

ruleCases(bannerNotAnchored, {
  clean: [
    { name: 'at the bottom', files: layout('android:layout_gravity="bottom"') },
    {
      name: 'in a list, which moves as a whole',
      files: androidFiles({
        'app/src/main/res/layout/main.xml': '<ScrollView><example.cobaltheron.ads.BannerView /></ScrollView>',
      }),
    },
  ],
  faulty: [
    {
      name: 'in the middle',
      byHand: { edits: [['app/src/main/res/layout/main.xml', '"center"', '"bottom"']] },
      files: layout('android:layout_gravity="center"'),
      findings: [{ severity: 'note' }],
    },
  ],
});

const notice = '<plist><dict><key>BundleIdentifier</key><string>example.brine.kelp</string></dict></plist>';
const xcodeProject = 'Kelp.xcodeproj/project.pbxproj';
const plainProject = iosFiles()[xcodeProject] ?? '';
ruleCases(companionOutsideTarget, {
  clean: [
    {
      name: 'copied by the target',
      files: iosFiles({
        'Kelp.xcodeproj/project.pbxproj': withResource(pbxproj(), 'Ferrowick-Notice.plist'),
        'Kelp/Ferrowick-Notice.plist': notice,
      }),
      title: ferrowick,
    },
    { name: 'a network that is not enrolled', files: iosFiles({ 'Kelp/Ferrowick-Notice.plist': notice }) },
  ],
  faulty: [
    {
      name: 'only lying there',
      byHand: { edits: [[xcodeProject, plainProject, withResource(plainProject, 'Ferrowick-Notice.plist')]] },
      files: iosFiles({ 'Kelp/Ferrowick-Notice.plist': notice }),
      title: ferrowick,
      findings: [{ place: expect.objectContaining({ path: 'Kelp/Ferrowick-Notice.plist' }) }],
    },
  ],
});
