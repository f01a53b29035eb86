import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import type { Title } from '../../../src/core/roster/model.js';
import { withoutNetwork } from '../../../src/core/roster/without.js';
import {
  androidFiles,
  filesBelow,
  gradle,
  iosFiles,
  manifest,
  pbxproj,
  plist,
  root,
} from '../../support/trees.js';
import { handedOut, holds, texts, titleOn, unplan, written, type Files } from '../../support/wiring.js';

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
const template = (path: string) => filesBelow(join(root, 'node_modules', path));
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

const trees: Record<
  string,
  { files: Files; ids: { android?: string; ios?: string }; stages?: Title['stages'] }
> = {
  'small trees': { files: small, ids: kelpIds },
  'small trees with CRLF': { files: withCrlf(small), ids: kelpIds },
  'the demo’s lite trees': {
    files: filesBelow(join(root, 'demo/trees/tidewick-lite')),
    ids: { android: 'example.saltmarsh.tidewick.lite', ios: 'example.saltmarsh.tidewick-tides.lite' },
    stages: { test: ['debug', 'staging'], production: ['release'] },
  },
  'the React Native template': {
    files: template('@react-native-community/template/template'),
    ids: { android: 'com.helloworld', ios: 'org.reactjs.native.example.HelloWorld' },
  },
  'the React Native template of 2022': {
    files: template('react-native-template-typescript/template'),
    ids: { android: 'com.helloworld', ios: 'org.reactjs.native.example.HelloWorld' },
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

const networks = ['cobalt-heron', 'marlstone', 'quincebury', 'ferrowick', 'tallowfield'];
const pairs = networks.flatMap((one, at) => networks.slice(at + 1).map((other) => [one, other] as const));

describe.each(Object.entries(trees))('taking networks out of %s', (_, { files, ids, stages }) => {
  it.each(pairs)('%s and %s: wiring takes nothing away that cannot come back', (one, other) => {
    const title = titleOn([one, other], ids, stages);
    const { plan, after } = holds(files, title, handedOut);
    for (const platform of ['android', 'ios'] as const)
      if (ids[platform])
        expect([
          ...plan.edits.flatMap(({ platforms }) => platforms),
          ...plan.byHand.map((step) => step.platform),
        ]).toContain(platform);
    const added = plan.edits.flatMap((edit) => edit.adds);
    // One after the other: what is left is what the tree was, byte for byte.
    const first = written(after, unplan(after, title, one, added));
    const rest = withoutNetwork(title, one);
    const last = written(first, unplan(first, rest, other, added));
    expect(texts(last)).toEqual(texts(files));
    // And what is left after the first is what wiring the second alone would have made.
    expect(texts(first)).toEqual(texts(holds(files, rest, handedOut).after));
  });
});
