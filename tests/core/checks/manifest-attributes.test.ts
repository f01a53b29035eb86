import { expect, it } from 'vitest';
import { componentDiffers } from '../../../src/core/checks/rules/manifest-component-differs.js';
import { permissionLimited } from '../../../src/core/checks/rules/manifest-permission-limited.js';
import { findingsOf, ruleCases } from '../../support/rules.js';
import { androidFiles, appIdMetaData, gradle, kelp, manifest } from '../../support/trees.js';
import { holds, text } from '../../support/wiring.js';

const main = 'app/src/main/AndroidManifest.xml';
const release = 'app/src/release/AndroidManifest.xml';
const overlay = (inside: string, before = '') =>
  `<manifest xmlns:android="http://schemas.android.com/apk/res/android" xmlns:tools="http://schemas.android.com/tools">\n${before}\n<application>${inside}</application>\n</manifest>\n`;
const internet = (attributes: string) =>
  androidFiles({
    [main]: manifest(appIdMetaData('@string/heron')).replace(
      'permission.INTERNET"',
      `permission.INTERNET" ${attributes}`,
    ),
  });

ruleCases(permissionLimited, {
  clean: [
    { name: 'a permission without a limit', files: androidFiles() },
    {
      name: 'a limit that a stronger manifest takes away',
      files: {
        ...internet('android:maxSdkVersion="28"'),
        [release]: overlay(
          '',
          '<uses-permission android:name="android.permission.INTERNET" tools:remove="android:maxSdkVersion" />',
        ),
        'app/src/debug/AndroidManifest.xml': overlay(
          '',
          '<uses-permission android:name="android.permission.INTERNET" tools:remove="android:maxSdkVersion" />',
        ),
      },
    },
    {
      name: 'a limited permission that no network needs',
      files: androidFiles({
        [main]: manifest(
          appIdMetaData('@string/heron'),
          '<uses-permission android:name="android.permission.CAMERA" android:maxSdkVersion="28" />',
        ),
      }),
    },
  ],
  faulty: [
    {
      name: 'a limit in the main manifest',
      byHand: { edits: [[main, ' android:maxSdkVersion="28"', '']] },
      files: internet('android:maxSdkVersion="28"'),
      findings: [
        {
          message:
            'Cobalt Heron needs android.permission.INTERNET, but it is declared only up to API level 28: Ads are fetched over the network.',
          variants: ['debug', 'release'],
        },
      ],
    },
  ],
});

const pushes = kelp({ networks: { ferrowick: {}, quincebury: {} } });
const service = (attributes: string) =>
  androidFiles({
    [main]: manifest(`<service android:name="example.ferrowick.zones.NoticeService" ${attributes} />`),
  });
const activity = (attributes: string) =>
  androidFiles({
    [main]: manifest(`<activity android:name="example.quincebury.client.PageActivity" ${attributes} />`),
  });

ruleCases(componentDiffers, {
  clean: [
    { name: 'as the network requires it', files: service('android:exported="false"'), title: pushes },
    { name: 'not written: the manifest of the SDK says it', files: service(''), title: pushes },
    {
      name: 'a value that the build puts in',
      files: service('android:exported="${exported}"'),
      title: pushes,
    },
    {
      name: 'flags in another order, with more',
      files: activity('android:configChanges="screenSize|keyboard|orientation"'),
      title: pushes,
    },
    {
      name: 'a stronger manifest sets it right',
      files: {
        ...service('android:exported="true"'),
        [release]: overlay(
          '<service android:name="example.ferrowick.zones.NoticeService" android:exported="false" tools:replace="android:exported" />',
        ),
        'app/src/debug/AndroidManifest.xml': overlay(
          '<service android:name="example.ferrowick.zones.NoticeService" android:exported="false" tools:replace="android:exported" />',
        ),
      },
      title: pushes,
    },
  ],
  faulty: [
    {
      name: 'exported to other apps',
      files: service('android:exported="true"'),
      title: pushes,
      findings: [
        {
          message:
            'example.ferrowick.zones.NoticeService of Ferrowick needs android:exported="false", but the manifest says "true".',
          place: expect.objectContaining({ path: main, endColumn: expect.any(Number) }),
        },
      ],
    },
    {
      name: 'a flag that is left out',
      files: activity('android:exported="false" android:configChanges="orientation"'),
      title: pushes,
      findings: [{ variants: ['debug', 'release'] }],
    },
  ],
});

it('attributes of components are written as the network requires them, where they are', () => {
  const tree = {
    ...activity('\n    android:exported="true"\n    android:configChanges="keyboard|orientation"'),
    [release]: overlay(
      '<service android:name="example.ferrowick.zones.NoticeService" android:exported=\'true\' tools:node="merge" />',
    ),
  };
  const made = holds(tree, pushes);
  expect(text(made.after[main])).toContain(
    'android:exported="false"\n    android:configChanges="keyboard|orientation|screenSize"',
  );
  expect(text(made.after[release])).toContain("android:exported='false'");
});

it('an attribute in a module that others share is left to a person', () => {
  const service = '<service android:name="example.ferrowick.zones.NoticeService" android:exported="true" />';
  const tree = androidFiles({
    'settings.gradle.kts': 'include(":app")\ninclude(":shared")\n',
    'app/build.gradle.kts': gradle('', 'implementation(project(":shared"))'),
    'shared/build.gradle.kts':
      'plugins { id("com.android.library") }\nandroid { namespace = "example.brine.shared" }\n',
    'shared/src/main/AndroidManifest.xml': overlay(service),
  });
  const made = holds(tree, pushes);
  expect(text(made.after['shared/src/main/AndroidManifest.xml'])).toContain(service);
  expect(findingsOf(made.after as Record<string, string>, pushes, componentDiffers)).toHaveLength(1);
});
