import { locksDisagree } from '../../../src/core/checks/rules/build-locks-disagree.js';
import { packageNotLinked } from '../../../src/core/checks/rules/build-package-not-linked.js';
import { keptBeyondScreen } from '../../../src/core/checks/rules/code-kept-beyond-screen.js';
import { listenerKept } from '../../../src/core/checks/rules/code-listener-kept.js';
import { madeWhileBuilding } from '../../../src/core/checks/rules/code-made-while-building.js';
import { startWithoutLimit } from '../../../src/core/checks/rules/code-start-without-limit.js';
import { caseMissing } from '../../../src/core/checks/rules/platform-case-missing.js';
import { branchesSwapped } from '../../../src/core/checks/rules/platform-branches-swapped.js';
import { oneIdForBoth } from '../../../src/core/checks/rules/platform-one-id-for-both.js';
import { handWrittenFlag } from '../../../src/core/checks/rules/stage-hand-written-flag.js';
import { kelpWithBanner } from '../../support/flutter.js';
import { app, reactNativeFiles, screen } from '../../support/react-native.js';
import type { Place } from '../../../src/core/facts/evidence.js';
import { expect } from 'vitest';
import { ruleCases } from '../../support/rules.js';
import { gradle } from '../../support/trees.js';

// Rules over JavaScript that is bundled for both platforms, and over what its packages need of native builds.

const title = kelpWithBanner();
const at = (place: { path: string; line?: number }) => expect.objectContaining(place) as Place;
const [android, ios] = ["'CH-U-310772-BBBB1111'", "'CH-U-310772-CCCC2222'"];
const sample = "'CH-U-100001-BANNER0A'";
const reef = (unit: string, more = '') => reactNativeFiles({ 'src/Reef.tsx': screen(unit, more) });
const config = (platforms: string) =>
  reactNativeFiles({
    'react-native.config.js': `module.exports = {\n  dependencies: {\n    '@cobaltheron.example/react-native': { platforms: ${platforms} },\n  },\n};\n`,
  });

ruleCases(packageNotLinked, {
  clean: [
    { name: 'everything is linked', title, files: reactNativeFiles() },
    {
      name: 'another package is left out',
      title,
      files: reactNativeFiles({
        'react-native.config.js':
          'module.exports = { dependencies: { "other": { platforms: { ios: null } } } };\n',
      }),
    },
    {
      name: 'the package is configured, not left out',
      title,
      files: config('{ ios: { scriptPhases: [] } }'),
    },
    {
      name: 'an older way of linking',
      title,
      files: reactNativeFiles({
        'android/app/build.gradle.kts': `${gradle('', '')}apply(from = file("../../node_modules/@react-native-community/cli-platform-android/native_modules.gradle"))\napplyNativeModulesAppBuildGradle(project)\n`,
      }),
    },
  ],
  faulty: [
    {
      name: 'left out on one platform',
      byHand: { edits: [['react-native.config.js', '{ android: null }', '{}']] },
      title,
      files: config('{ android: null }'),
      findings: [
        {
          platform: 'android',
          network: 'cobalt-heron',
          place: { path: 'react-native.config.js', line: 3, column: 42, endLine: 3, endColumn: 74 },
        },
      ],
    },
    {
      name: 'left out on both',
      title,
      files: config('{ android: null, ios: null }'),
      findings: [{ network: 'cobalt-heron' }, { network: 'cobalt-heron' }],
    },
    {
      name: 'a Podfile that links none',
      title,
      files: reactNativeFiles({ 'ios/Podfile': "target 'Kelp' do\n  # use_native_modules!\nend\n" }),
      findings: [{ platform: 'ios', place: at({ path: 'ios/Podfile' }) }],
    },
    {
      name: 'a build script that links none',
      title,
      files: reactNativeFiles({ 'android/app/build.gradle.kts': gradle('', '') }),
      findings: [{ platform: 'android', place: at({ path: 'android/app/build.gradle.kts' }) }],
    },
  ],
});

const yarn = (version: string) =>
  `# yarn lockfile v1\n\n\n"@cobaltheron.example/react-native@^5.0.2":\n  version "${version}"\n`;
ruleCases(locksDisagree, {
  clean: [
    { name: 'one lock', title, files: reactNativeFiles() },
    { name: 'two that agree', title, files: reactNativeFiles({ 'yarn.lock': yarn('5.0.2') }) },
  ],
  faulty: [
    {
      name: 'two that do not',
      byHand: { removes: ['yarn.lock'] },
      title,
      files: reactNativeFiles({ 'yarn.lock': yarn('5.1.0') }),
      findings: [{ platform: null, network: 'cobalt-heron' }],
    },
  ],
});

ruleCases(caseMissing, {
  clean: [
    { name: 'both platforms', title, files: reef(`Platform.select({ android: ${android}, ios: ${ios} })!`) },
    { name: 'a default', title, files: reef(`Platform.select({ ios: ${ios}, default: ${android} })`) },
    {
      name: 'a choice without an ID',
      title,
      files: reef(android, 'const gap = Platform.select({ ios: 4 });'),
    },
    {
      name: 'the other platform is not built',
      title: { ...title, editions: { ios: { identifier: 'example.brine.kelp' } } },
      files: reef(`Platform.select({ ios: ${ios} })!`),
    },
  ],
  faulty: [
    {
      name: 'one platform alone',
      title,
      files: reef(`Platform.select({ ios: ${ios} })!`),
      findings: [
        { platform: 'android', network: 'cobalt-heron', place: at({ path: 'src/Reef.tsx', line: 10 }) },
      ],
    },
    {
      name: 'an object that is chosen from',
      title,
      files: reef('UNITS[Platform.OS]', `const UNITS = { android: ${android}, web: '' };`),
      findings: [{ platform: 'ios' }],
    },
  ],
});

ruleCases(startWithoutLimit, {
  clean: [
    { name: 'a race with a timer', title, files: reactNativeFiles() },
    {
      name: 'a helper that bounds it',
      title,
      files: reactNativeFiles({ 'App.tsx': app('await withTimeout(CobaltHeron.start(), 4000);') }),
    },
    { name: 'nobody waits', title, files: reactNativeFiles({ 'App.tsx': app('void CobaltHeron.start();') }) },
  ],
  faulty: [
    {
      name: 'waited for',
      byHand: {
        edits: [
          [
            'App.tsx',
            'await CobaltHeron.start();',
            'await Promise.race([CobaltHeron.start(), timeout(3000)]);',
          ],
        ],
      },
      title,
      files: reactNativeFiles({ 'App.tsx': app('await CobaltHeron.start();\n      setReady(true);') }),
      findings: [{ platform: null, network: 'cobalt-heron', place: at({ path: 'App.tsx', line: 9 }) }],
    },
    {
      name: 'with something after it',
      title,
      files: reactNativeFiles({ 'App.tsx': app('CobaltHeron.start().then(() => setReady(true));') }),
      findings: [{ platform: null }],
    },
  ],
});

const listening = (end: string) =>
  `export function watch(): void {\n  HeronEvents.listen(show);\n  ${end}\n}\nconst show = () => {};\n`;
ruleCases(listenerKept, {
  clean: [
    {
      name: 'taken back',
      title,
      files: reef(android, `${listening('')}export const stop = () => HeronEvents.unlisten(show);`),
    },
    { name: 'a listener of something else', title, files: reef(android, 'Dimensions.listen(print);') },
  ],
  faulty: [
    {
      name: 'never taken back',
      byHand: {
        edits: [
          [
            'src/Reef.tsx',
            'const show = () => {};',
            'export const stop = () => HeronEvents.unlisten(show);\nconst show = () => {};',
          ],
        ],
      },
      title,
      files: reef(android, listening('')),
      findings: [{ platform: null, network: 'cobalt-heron', place: at({ path: 'src/Reef.tsx', line: 6 }) }],
    },
  ],
});

ruleCases(madeWhileBuilding, {
  clean: [
    { name: 'in an effect that runs once', title, files: reef(android) },
    {
      name: 'where something is pressed',
      title,
      files: reactNativeFiles({ 'App.tsx': app('', 'const press = () => HeronBanner.load(unit);') }),
    },
    {
      name: 'in a class, when its screen is there',
      title,
      files: reactNativeFiles({
        'src/Old.tsx':
          "import { HeronBanner } from '@cobaltheron.example/react-native';\nexport class Old extends React.Component {\n  componentDidMount() {\n    HeronBanner.load(unit);\n  }\n  render() {\n    return null;\n  }\n}\n",
      }),
    },
  ],
  faulty: [
    {
      name: 'in the body of a component',
      byHand: {
        edits: [
          ['App.tsx', 'HeronBanner.load(unit);', 'useEffect(() => {\n    HeronBanner.load(unit);\n  }, []);'],
        ],
      },
      title,
      files: reactNativeFiles({ 'App.tsx': app('', 'HeronBanner.load(unit);') }),
      findings: [{ platform: null, place: at({ path: 'App.tsx', line: 13 }) }],
    },
    {
      name: 'in an effect that runs after each drawing',
      title,
      files: reactNativeFiles({ 'App.tsx': app('', 'useEffect(() => {\n    CobaltHeron.start();\n  });') }),
      findings: [{ platform: null, place: at({ path: 'App.tsx', line: 14 }) }],
    },
    {
      name: 'for each row',
      title,
      files: reactNativeFiles({
        'src/List.tsx':
          "import { HeronBanner } from '@cobaltheron.example/react-native';\nexport const List = () => (\n  <FlatList\n    data={rows}\n    renderItem={({ item }) => {\n      HeronBanner.load(unit);\n      return <Row item={item} />;\n    }}\n  />\n);\n",
      }),
      findings: [{ platform: null, place: at({ path: 'src/List.tsx', line: 6 }) }],
    },
  ],
});

const pressed = screen(android).replace(
  'return () => banner.current?.release();\n  }, []);',
  '}, []);\n  const close = () => banner.current?.release();',
);
ruleCases(keptBeyondScreen, {
  clean: [{ name: 'the effect gives back what lets it go', title, files: reef(android) }],
  faulty: [
    {
      name: 'let go when something is pressed',
      byHand: {
        edits: [
          [
            'src/Reef.tsx',
            '  }, []);\n  const close',
            '    return () => banner.current?.release();\n  }, []);\n  const close',
          ],
        ],
      },
      title,
      files: reactNativeFiles({ 'src/Reef.tsx': pressed }),
      findings: [{ platform: null, place: at({ path: 'src/Reef.tsx', line: 10 }) }],
    },
  ],
});

ruleCases(branchesSwapped, {
  clean: [
    {
      name: 'a selection that is right',
      title,
      files: reef(`Platform.select({ ios: ${ios}, android: ${android} })!`),
    },
  ],
  faulty: [
    {
      name: 'a selection',
      title,
      files: reef(`Platform.select({ ios: ${android}, default: ${ios} })!`),
      findings: [{ platform: 'android' }, { platform: 'ios' }],
    },
    {
      name: 'two files of one name',
      title,
      files: reactNativeFiles({
        'src/unit.ios.ts': `export const unit = ${ios};\n`,
        'src/unit.android.ts': `export const unit = ${android};\n`,
        'src/Reef.tsx': screen(`Platform.OS !== 'ios' ? ${ios} : ${android}`),
      }),
      findings: [{ platform: 'android' }, { platform: 'ios' }],
    },
  ],
});

ruleCases(oneIdForBoth, {
  clean: [
    {
      name: 'a file for each platform',
      title,
      files: reactNativeFiles({
        'src/unit.ios.ts': `export const unit = ${ios};\n`,
        'src/unit.android.ts': `export const unit = ${android};\n`,
      }),
    },
  ],
  faulty: [{ name: 'one literal', title, files: reef(ios), findings: [{ platform: 'android' }] }],
});

ruleCases(handWrittenFlag, {
  clean: [{ name: 'the build says it', title, files: reef(`__DEV__ ? ${sample} : ${android}`) }],
  faulty: [
    {
      name: 'a constant',
      title,
      files: reef(`LIVE ? ${android} : ${sample}`, 'const LIVE = false;'),
      findings: [{ platform: null, place: at({ path: 'src/Reef.tsx', line: 5 }) }],
    },
  ],
});
