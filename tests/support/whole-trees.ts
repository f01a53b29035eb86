import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Title } from '../../src/core/roster/model.js';
import { readRoster } from '../../src/core/roster/document.js';
import { appJson, expoFiles, expoPackage, expoStages } from './expo.js';
import { flutterFiles, pubspec } from './flutter.js';
import { androidManifest, csproj, manifestPath, mauiFiles, program } from './maui.js';
import { npmLock, packageJson, reactNativeFiles } from './react-native.js';
import { androidFiles, filesBelow, gradle, iosFiles, manifest, pbxproj, plist, root } from './trees.js';
import { assetPath, packageManifest, playerSettings, unityFiles } from './unity.js';
import { unplan, written, type Files } from './wiring.js';

/** Small trees without any ads. */
const small: Files = {
  ...androidFiles({
    'settings.gradle.kts':
      'dependencyResolutionManagement {\n    repositories {\n        google()\n    }\n}\ninclude(":app")\n',
    'app/build.gradle.kts': gradle('', 'implementation("androidx.core:core-ktx:1.13.1")'),
    'app/src/main/AndroidManifest.xml': manifest('        <activity android:name=".Main" />'),
    'app/src/main/java/example/brine/kelp/KelpApp.java': null,
    'app/src/debug/res/values/ids.xml': null,
    'app/src/release/res/values/ids.xml': null,
  }),
  ...iosFiles({
    'Kelp.xcodeproj/project.pbxproj': pbxproj(),
    'Kelp/Info.plist': plist(''),
    'Kelp/App.swift': 'func launch() {}\n',
    Podfile: "target 'Kelp' do\n  pod 'Seaweed'\nend\n",
    'Podfile.lock': null,
  }),
};
const kelpIds = { android: 'example.brine.kelp', ios: 'example.brine.kelp' };
const helloIds = { android: 'com.helloworld', ios: 'org.reactjs.native.example.HelloWorld' };
const threeStages = { test: ['debug', 'staging'], production: ['release'] };
const template = (path: string) => filesBelow(join(root, 'node_modules', path));
const fixture = (name: string) => filesBelow(join(root, 'tests', 'fixtures', name));

/** The files of a Cordova template where its tool puts them when it makes a project. */
const laidOut = (files: Files): Files =>
  Object.fromEntries(
    Object.entries(files).map(([path, content]) => [
      path.replace(/^(AndroidManifest\.xml|res\/)/, 'app/src/main/$1').replace(/^tools\//, ''),
      content,
    ]),
  );
const withCrlf = (files: Files): Files =>
  Object.fromEntries(
    Object.entries(files).map(([path, content]) => [path, String(content).replace(/\n/g, '\r\n')]),
  );

/** A tree of the demo, its networks taken out of what was wired there half and wrongly. */
function demoWithoutAds(name: string): Files {
  const { roster } = readRoster(readFileSync(join(root, 'demo/roster.yaml'), 'utf8'));
  const title = roster?.titles[name];
  if (!title) throw new Error(`The demo has no title ${name}.`);
  const files: Files = filesBelow(join(root, 'demo/trees', name));
  let left = files;
  for (const network of ['cobalt-heron', 'marlstone', 'ferrowick'])
    left = written(left, unplan(left, title, network));
  return left;
}

/** A whole tree, and what a title has to be for it. */
export interface WholeTree {
  files: Files;
  ids: { android?: string; ios?: string };
  stages?: Title['stages'];
}

/** A Flutter project as it was before any network was heard of. */
function withoutPackages(files: Record<string, string>): Files {
  const { 'lib/main.dart': _, ...rest } = files;
  return {
    ...rest,
    'pubspec.yaml': pubspec('  intl: any # of the SDK\n'),
    'pubspec.lock': 'packages: {}\n',
    'lib/main.dart':
      "import 'package:flutter/material.dart';\n\nvoid main() => runApp(const Text('kelp'));\n",
    'android/app/src/main/AndroidManifest.xml': manifest(''),
    'android/app/src/debug/res/values/ids.xml': '<resources />\n',
    'android/app/src/release/res/values/ids.xml': '<resources />\n',
    'ios/Kelp.xcodeproj/project.pbxproj': pbxproj(),
    'ios/Kelp/Info.plist': plist(''),
  };
}

/** A React Native project as it was before any network was heard of. */
function withoutScriptPackages(files: Record<string, string>): Files {
  return {
    ...files,
    'package.json': packageJson('    "left": "1.0.0",\n'),
    'package-lock.json': npmLock(null),
    'App.tsx': "import { Text } from 'react-native';\n\nexport const App = () => <Text>kelp</Text>;\n",
    'android/app/src/main/AndroidManifest.xml': manifest(''),
    'android/app/src/debug/res/values/ids.xml': '<resources />\n',
    'android/app/src/release/res/values/ids.xml': '<resources />\n',
    'ios/Kelp.xcodeproj/project.pbxproj': pbxproj(),
    'ios/Kelp/Info.plist': plist(''),
  };
}

/** An Expo project as it was before any network was heard of, its files changed as given. */
function withoutPlugins(changes: Record<string, string | null> = {}): Files {
  return expoFiles({
    'package.json': expoPackage(''),
    'package-lock.json': npmLock(null),
    'app.json': appJson(null, '"UIRequiresFullScreen": true'),
    'app.config.js': null,
    'eas.json':
      '{\n  "build": {\n    "development": {\n      "developmentClient": true\n    },\n    "production": {}\n  }\n}\n',
    'App.tsx': "import { Text } from 'react-native';\n\nexport const App = () => <Text>kelp</Text>;\n",
    ...changes,
  });
}
const expoIds = { android: 'example.brine.wrackline', ios: 'example.brine.wrackline' };

/** A blank Expo project as its tools leave it when identifiers and build profiles were asked for. */
function configured(files: Files): Files {
  const config = String(files['app.json'])
    .replace('"android": {', '"android": {\n      "package": "example.brine.wrackline",')
    .replace('"ios": {', '"ios": {\n      "bundleIdentifier": "example.brine.wrackline",');
  const eas =
    '{\n  "build": {\n    "development": { "developmentClient": true },\n    "production": {}\n  }\n}\n';
  return { ...files, 'app.json': config, 'eas.json': eas };
}

/** A Unity project as it was before any network was heard of. */
function withoutUnityPackages(): Files {
  return unityFiles({
    [assetPath]: null,
    'Assets/CobaltHeron/Native/android.json': null,
    'Assets/CobaltHeron/Native/ios.json': null,
    'Assets/Scripts/KelpGame.cs': null,
    'Packages/manifest.json': packageManifest({ 'com.unity.ugui': '1.0.0' }, []),
    'Packages/packages-lock.json': '{ "dependencies": {} }',
    'ProjectSettings/ProjectSettings.asset': playerSettings({ symbols: '' }),
  });
}

/** A MAUI project as it was before any network was heard of. */
function withoutNugetPackages(): Files {
  return mauiFiles({
    'Kelp.csproj': csproj({ packages: '' }),
    'nuget.config': null,
    'MauiProgram.cs': program('').replace('using CobaltHeronAds;\n\n', ''),
    [manifestPath]: androidManifest('', false),
  });
}

function withText(files: Files, path: string, before: string, after: string): Files {
  return { ...files, [path]: String(files[path]).replace(before, after) };
}

/** Trees that wiring and its taking back are held against: small ones, the demo's, and those of others. */
export const wholeTrees: Record<string, WholeTree> = {
  'small trees': { files: small, ids: kelpIds },
  'small trees with CRLF': { files: withCrlf(small), ids: kelpIds },
  'the demo’s trees': {
    files: demoWithoutAds('tidewick'),
    ids: { android: 'example.saltmarsh.tidewick', ios: 'example.saltmarsh.tidewick.tides' },
    stages: threeStages,
  },
  'the demo’s lite trees': {
    files: filesBelow(join(root, 'demo/trees/tidewick-lite')),
    ids: { android: 'example.saltmarsh.tidewick.lite', ios: 'example.saltmarsh.tidewick-tides.lite' },
    stages: threeStages,
  },
  'a small Flutter project': { files: withoutPackages(flutterFiles()), ids: kelpIds },
  'a small Flutter project with CRLF': { files: withCrlf(withoutPackages(flutterFiles())), ids: kelpIds },
  'the demo’s Flutter project': {
    files: demoWithoutAds('plumebook'),
    ids: { android: 'example.saltmarsh.plumebook', ios: 'example.saltmarsh.plumebook' },
    stages: { test: ['debug', 'profile'], production: ['release'] },
  },
  'a small React Native project': { files: withoutScriptPackages(reactNativeFiles()), ids: kelpIds },
  'a small React Native project with CRLF': {
    files: withCrlf(withoutScriptPackages(reactNativeFiles())),
    ids: kelpIds,
  },
  'a small Expo project': {
    files: withoutPlugins(),
    ids: kelpIds,
    stages: { test: ['development'], production: ['production'] },
  },
  'a small Expo project with CRLF and a preview': {
    files: withCrlf(
      withoutPlugins({
        'eas.json':
          '{\n  "build": {\n    "development": { "developmentClient": true },\n    "preview": {},\n    "production": {}\n  }\n}\n',
      }),
    ),
    ids: kelpIds,
    stages: expoStages,
  },
  'the demo’s Expo project': {
    files: demoWithoutAds('kilnlog-expo'),
    ids: { android: 'example.saltmarsh.kilnlog.studio', ios: 'example.saltmarsh.kilnlog.studio' },
    stages: expoStages,
  },
  'a blank Expo project': {
    files: configured(fixture('expo-blank')),
    ids: expoIds,
    stages: { test: ['development'], production: ['production'] },
  },
  'a bare Expo project': {
    files: fixture('expo-bare'),
    ids: expoIds,
  },
  'the demo’s React Native project': {
    files: demoWithoutAds('kilnlog'),
    ids: { android: 'example.saltmarsh.kilnlog', ios: 'example.saltmarsh.kilnlog' },
  },
  'a small Unity project': {
    files: withoutUnityPackages(),
    ids: kelpIds,
    stages: { test: ['development'], production: ['release'] },
  },
  'the demo’s Unity project': {
    files: demoWithoutAds('orrery-drift'),
    ids: { android: 'example.saltmarsh.orrerydrift', ios: 'example.saltmarsh.orrerydrift' },
    stages: { test: ['development'], production: ['release'] },
  },
  'a Unity project with a package of others in it': {
    files: {
      ...withoutUnityPackages(),
      ...Object.fromEntries(
        Object.entries(template('com.neuecc.unirx'))
          // The rest of it is more of the same kind.
          .filter(([path]) => !/(^|\/)(Operators|Triggers|Observable\.)/.test(path))
          .map(([path, content]) => [`Packages/com.neuecc.unirx/${path}`, content]),
      ),
    },
    ids: kelpIds,
    stages: { test: ['development'], production: ['release'] },
  },
  'a small MAUI project': {
    files: withoutNugetPackages(),
    ids: kelpIds,
    stages: { test: ['Debug'], production: ['Release'] },
  },
  'the demo’s MAUI project': {
    // A text that stood there empty is filled by wiring, and stays.
    files: withText(
      demoWithoutAds('parcelgull'),
      'Platforms/iOS/Info.plist',
      '<string></string>',
      '<string>For ads.</string>',
    ),
    ids: { android: 'example.saltmarsh.parcelgull', ios: 'example.saltmarsh.parcelgull' },
    stages: { test: ['Debug'], production: ['Release'] },
  },
  'the React Native template': {
    files: template('@react-native-community/template/template'),
    ids: helloIds,
  },
  'the React Native template of 2022': {
    files: template('react-native-template-typescript/template'),
    ids: helloIds,
  },
  'the Cordova template for Android': {
    files: laidOut(template('cordova-android/templates/project')),
    ids: { android: 'org.apache.cordova.hello' },
  },
  'the Cordova template for iOS': {
    files: template('cordova-ios/templates/project'),
    ids: { ios: 'org.apache.cordova.hello-cordova' },
  },
};

/** The networks that ship. */
export const networks = ['cobalt-heron', 'marlstone', 'quincebury', 'ferrowick', 'tallowfield'];
/** Every two of the networks that ship. */
export const pairs = networks.flatMap((one, at) =>
  networks.slice(at + 1).map((other) => [one, other] as const),
);
