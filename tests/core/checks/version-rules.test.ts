import { expect } from 'vitest';
import { dependencyMissing } from '../../../src/core/checks/rules/build-dependency-missing.js';
import { versionForced } from '../../../src/core/checks/rules/build-version-forced.js';
import { versionsMixed } from '../../../src/core/checks/rules/build-versions-mixed.js';
import { flutterFiles, pubspec } from '../../support/flutter.js';
import { reactNativeFiles, packageJson } from '../../support/react-native.js';
import { ruleCases } from '../../support/rules.js';
import { androidFiles, gradle, iosFiles, profiles } from '../../support/trees.js';

const sdk = 'example.cobaltheron:ads-sdk';
const script = (dependencies: string, more = '', files: Record<string, string | null> = {}) =>
  androidFiles({ 'app/build.gradle.kts': `${gradle('', dependencies)}${more}`, ...files });
const groovy = (dependencies: string, more = '') =>
  androidFiles({
    'app/build.gradle.kts': null,
    'app/build.gradle': `apply plugin: 'com.android.application'\nandroid {\n    defaultConfig {\n        applicationId 'example.brine.kelp'\n    }\n}\n${more}\ndependencies {\n    ${dependencies}\n}\n`,
  });
const declared = `implementation("${sdk}:6.2.0")`;

ruleCases(versionForced, {
  clean: [
    { name: 'nothing forced', files: script(declared) },
    {
      name: 'the version that is declared',
      files: script(declared, `configurations.all {\n    resolutionStrategy.force("${sdk}:6.2.0")\n}\n`),
    },
    {
      name: 'another library',
      files: script(
        declared,
        'configurations.all {\n    resolutionStrategy.force("example.other:lib:1.0")\n}\n',
      ),
    },
    {
      name: 'a rule for another group',
      files: groovy(
        `implementation '${sdk}:6.2.0'`,
        "configurations.all {\n    resolutionStrategy.eachDependency { details ->\n        if (details.requested.group == 'example.other') details.useVersion('1.0')\n    }\n}",
      ),
    },
    {
      name: 'an SDK that is not declared',
      files: script('', `configurations.all {\n    resolutionStrategy.force("${sdk}:6.1.0")\n}\n`),
    },
  ],
  faulty: [
    {
      name: 'force in a block',
      files: script(
        declared,
        `configurations.all {\n    resolutionStrategy {\n        force("${sdk}:6.1.0")\n    }\n}\n`,
      ),
      findings: [
        {
          variants: ['debug', 'release'],
          place: expect.objectContaining({ path: 'app/build.gradle.kts', line: 22 }),
        },
      ],
    },
    {
      name: 'force in a line',
      files: script(
        declared,
        `configurations.configureEach {\n    resolutionStrategy.force("${sdk}:7.0.0")\n}\n`,
      ),
      findings: [{ message: expect.stringContaining('7.0.0') }],
    },
    {
      name: 'force in Groovy',
      files: groovy(
        `implementation '${sdk}:6.2.0'`,
        `configurations {\n    all {\n        resolutionStrategy {\n            force '${sdk}:6.1.0'\n        }\n    }\n}`,
      ),
      findings: [{ network: 'cobalt-heron' }],
    },
    {
      name: 'for all projects',
      files: script(declared, '', {
        'build.gradle.kts': `allprojects {\n    configurations.all {\n        resolutionStrategy.force("${sdk}:6.1.0")\n    }\n}\n`,
      }),
      findings: [{ place: expect.objectContaining({ path: 'build.gradle.kts', line: 3 }) }],
    },
    {
      name: 'a constraint',
      files: script(`${declared}\n    constraints {\n        implementation("${sdk}:6.3.0")\n    }`),
      findings: [{ message: expect.stringContaining('constraints') }],
    },
    {
      name: 'a constraint with a strict version',
      files: script(
        `${declared}\n    constraints {\n        implementation("${sdk}") {\n            version { strictly("6.1.0") }\n        }\n    }`,
      ),
      findings: [{ message: expect.stringContaining('6.1.0') }],
    },
    {
      name: 'a rule for its group',
      files: groovy(
        `implementation '${sdk}:6.2.0'`,
        "configurations.all {\n    resolutionStrategy.eachDependency { details ->\n        if (details.requested.group == 'example.cobaltheron') {\n            details.useVersion('6.1.0')\n        }\n    }\n}",
      ),
      findings: [{ network: 'cobalt-heron' }],
    },
    {
      name: 'overrides of npm',
      files: reactNativeFiles({
        'package.json': packageJson().replace(
          /\}\s*$/,
          ', "overrides": { "@cobaltheron.example/react-native": "4.9.0" } }\n',
        ),
      }),
      findings: [{ platform: null, message: expect.stringContaining('overrides') }],
    },
    {
      name: 'resolutions of Yarn',
      files: reactNativeFiles({
        'package.json': packageJson().replace(
          /\}\s*$/,
          ', "resolutions": { "**/@cobaltheron.example/react-native": "4.9.0" } }\n',
        ),
      }),
      findings: [{ platform: null, message: expect.stringContaining('resolutions') }],
    },
    {
      name: 'overrides of pub',
      files: flutterFiles({
        'pubspec.yaml': `${pubspec()}\ndependency_overrides:\n  cobalt_heron_ads: 4.0.0\n`,
      }),
      findings: [{ platform: null, message: expect.stringContaining('dependency_overrides') }],
    },
  ],
});

const [heron] = profiles.filter(({ id }) => id === 'cobalt-heron');
const twoArtifacts = profiles.map((profile) =>
  profile !== heron || !heron.android
    ? profile
    : {
        ...heron,
        android: {
          ...heron.android,
          dependencies: [
            ...heron.android.dependencies,
            { coordinate: 'example.cobaltheron:ads-native', version: '6.2.0', why: 'Native ads.' },
          ],
        },
      },
);
const native = (version: string) =>
  `${declared}\n    implementation("example.cobaltheron:ads-native:${version}")`;
ruleCases(versionsMixed, {
  clean: [
    { name: 'one version', files: script(native('6.2.0')), profiles: twoArtifacts },
    { name: 'one artifact', files: script(declared), profiles: twoArtifacts },
    {
      name: 'in variants that never meet',
      files: script(
        `debugImplementation("${sdk}:6.2.0")\n    releaseImplementation("example.cobaltheron:ads-native:6.1.0")`,
      ),
      profiles: twoArtifacts,
    },
  ],
  faulty: [
    {
      name: 'two versions',
      byHand: { edits: [['app/build.gradle.kts', 'ads-native:6.1.0', 'ads-native:6.2.0']] },
      files: script(native('6.1.0')),
      profiles: twoArtifacts,
      findings: [{ variants: ['debug', 'release'], place: expect.objectContaining({ line: 19 }) }],
    },
    {
      name: 'the first one older',
      files: script(native('6.3.0')),
      profiles: twoArtifacts,
      findings: [{ message: expect.stringContaining('6.3.0'), place: expect.objectContaining({ line: 18 }) }],
    },
  ],
});

const at = (path: string, line: number) => ({ place: expect.objectContaining({ path, line }) });
ruleCases(dependencyMissing, {
  clean: [
    { name: 'for the app', files: script(declared) },
    {
      name: 'for each variant',
      files: script(`debugImplementation("${sdk}:6.2.0")\n    releaseImplementation("${sdk}:6.2.0")`),
    },
  ],
  faulty: [
    {
      name: 'nowhere',
      files: script(''),
      findings: [{ ...at('app/build.gradle.kts', 17), variants: ['debug', 'release'] }],
    },
    {
      name: 'in debug builds only',
      files: script(`debugImplementation("${sdk}:6.2.0")`),
      findings: [
        {
          ...at('app/build.gradle.kts', 18),
          variants: ['release'],
          mend: expect.stringContaining(`implementation("${sdk}:6.2.0")`),
        },
      ],
    },
    {
      name: 'in tests only',
      files: script(`testImplementation("${sdk}:6.2.0")`),
      findings: [
        { ...at('app/build.gradle.kts', 18), message: expect.stringContaining('only by testImplementation') },
      ],
    },
    {
      name: 'for the compiler only',
      files: groovy(`compileOnly '${sdk}:6.2.0'`),
      findings: [{ mend: expect.stringContaining(`implementation '${sdk}`) }],
    },
    {
      name: 'in development only',
      files: flutterFiles({
        'pubspec.yaml': pubspec('').replace(/$/, '\ndev_dependencies:\n  cobalt_heron_ads: ^4.1.0\n'),
      }),
      findings: ['android', 'ios'].map((platform) => ({
        platform: platform as 'android',
        message: expect.stringContaining('dev_dependencies') as string,
      })),
    },
    {
      name: 'no pod',
      files: iosFiles({ Podfile: "target 'Kelp' do\nend\n", 'Podfile.lock': null }),
      findings: [{ ...at('Podfile', 1), platform: 'ios' }],
    },
  ],
});
