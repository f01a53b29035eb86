import { describe, expect, it } from 'vitest';
import { findingsOf } from '../../support/rules.js';
import { androidFiles, appIdMetaData, kelp, manifest } from '../../support/trees.js';
import { holds, text } from '../../support/wiring.js';

// Directives of the manifest merger that remove what a network needs: wiring must not fight them, and says where they are.

const overlay = (inside: string, attributes = '', before = '') =>
  `<manifest xmlns:android="http://schemas.android.com/apk/res/android" xmlns:tools="http://schemas.android.com/tools">\n${before}\n    <application ${attributes}>\n${inside}\n    </application>\n</manifest>\n`;
const release = 'app/src/release/AndroidManifest.xml';
const main = 'app/src/main/AndroidManifest.xml';
const internet = (directive: string) =>
  `    <uses-permission android:name="android.permission.INTERNET" ${directive} />`;
const notice = (attributes: string) =>
  `<service android:name="example.ferrowick.zones.NoticeService" ${attributes} />`;
const withFerrowick = kelp({ networks: { ferrowick: {} } });
const title = kelp();

describe('what a directive removes', () => {
  it.each([
    ['in a build type', { [release]: overlay('', '', internet('tools:node="remove"')) }, release],
    [
      'with all others',
      { [release]: overlay('', '', '    <uses-permission tools:node="removeAll" />') },
      release,
    ],
    [
      'in the main manifest itself',
      { [main]: overlay(appIdMetaData('@string/heron'), '', internet('tools:node="remove"')) },
      main,
    ],
  ])('a permission: %s', (_, changes, path) => {
    const files = androidFiles(changes);
    const found = findingsOf(files, title).filter(({ rule }) => rule === 'manifest/permission-missing');
    expect(found.find(({ place }) => place?.path === path)?.message).toMatch(/tools:node="remove/);
    const { plan, after } = holds(files, title);
    expect(plan.byHand).toContainEqual(
      expect.objectContaining({ rule: 'manifest/permission-missing', where: expect.stringContaining(path) }),
    );
    // Writing it once more would change nothing.
    const count = (content: string) => content.split('android.permission.INTERNET').length;
    expect(count(text(after[main]))).toBe(count(files[main] ?? ''));
  });

  it.each([
    ['a component', { [release]: overlay(notice('tools:node="remove"')) }, release],
    [
      'every component, by an application element that replaces',
      { [release]: overlay('', 'tools:node="replace"') },
      release,
    ],
  ])('%s', (_, changes, path) => {
    const files = androidFiles({ [main]: manifest(notice('android:exported="false"')), ...changes });
    const found = findingsOf(files, withFerrowick).filter(
      ({ rule }) => rule === 'manifest/component-missing',
    );
    expect(found.map(({ place, variants }) => [place?.path, variants])).toEqual([[path, ['release']]]);
    const { after } = holds(files, withFerrowick);
    expect(text(after[main]).split('NoticeService')).toHaveLength(2);
  });

  it.each([
    ['an app ID', overlay('<meta-data android:name="example.cobaltheron.ads.APP_ID" tools:node="remove" />')],
    ['all meta-data', overlay('<meta-data tools:node="removeAll" />')],
  ])('%s', (_, content) => {
    const files = androidFiles({ [release]: content });
    const found = findingsOf(files, title).filter(({ rule }) => rule === 'app-id/missing');
    expect(found.map(({ place, variants }) => [place?.path, variants])).toEqual([[release, ['release']]]);
  });
});

describe('what no directive removes', () => {
  it.each([
    ['a removal that is meant for a library', internet('tools:node="remove" tools:selector="example.other"')],
    [
      'another permission',
      '    <uses-permission android:name="android.permission.CAMERA" tools:node="remove" />',
    ],
  ])('%s', (_, line) => {
    const files = androidFiles({ [release]: overlay('', '', line) });
    expect(findingsOf(files, title).map(({ rule }) => rule)).not.toContain('manifest/permission-missing');
  });
});
