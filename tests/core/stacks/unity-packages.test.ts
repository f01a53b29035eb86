import { describe, expect, it } from 'vitest';
import { runSurvey } from '../../../src/core/surveying.js';
import { kelpWithBanner } from '../../support/flutter.js';
import { manifest, profiles, treeOf } from '../../support/trees.js';
import { packageManifest, packagesLock, playerSettings, reef, unityFiles } from '../../support/unity.js';
import { findingsOf } from '../../support/rules.js';
import { asked, holds, plan, text, unplan, written, type Files } from '../../support/wiring.js';

const title = kelpWithBanner({ stages: { test: ['development'], production: ['release'] } });
const survey = (files: Files) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title } }).survey;
const game = reef('"CH-U-310772-BBBB1111"');
const units = (files: Files) =>
  [
    ...new Set(
      survey(files).facts.flatMap(({ kind, platform, place }) =>
        kind === 'unit-id' ? [`${platform} ${place.path}`] : [],
      ),
    ),
  ].sort();
const dependencies = (files: Files) => [
  ...new Set(
    survey(files).facts.flatMap(({ kind, value, place }) =>
      kind === 'dependency' ? [`${value} ${place.path}`] : [],
    ),
  ),
];
const json = (value: object) => `${JSON.stringify(value, null, 2)}\n`;
const without = packageManifest({ 'com.unity.ugui': '1.0.0' });
const beside = (version = '3.3.0') =>
  json({ name: 'example.brine.ads', version: '1.0.0', dependencies: { 'example.cobaltheron.ads': version } });
const embedded = 'Packages/example.brine.ads';

describe('assemblies of Unity projects', () => {
  const inAssembly = (definition: object, more: Record<string, string> = {}) =>
    units(
      unityFiles({
        'Assets/Ads/Kelp.Ads.asmdef': json({ name: 'Kelp.Ads', ...definition }),
        'Assets/Ads/Reef.cs': game,
        ...more,
      }),
    );
  const both = ['android Assets/Ads/Reef.cs', 'ios Assets/Ads/Reef.cs'];

  it.each<[string, object, string[]]>([
    ['everywhere', {}, both],
    ['on one platform', { includePlatforms: ['Android'] }, both.slice(0, 1)],
    ['but on one platform', { excludePlatforms: ['Android'] }, both.slice(1)],
    ['in the editor', { includePlatforms: ['Editor'] }, []],
    ['where a symbol is defined', { defineConstraints: ['KELP'] }, both.slice(0, 1)],
    ['where a symbol is not defined', { defineConstraints: ['!KELP'] }, both.slice(1)],
    ['where one of two is', { defineConstraints: ['KELP || UNITY_IOS'] }, both],
    ['where nothing defines the symbol', { defineConstraints: ['TIDE'] }, []],
  ])('are compiled %s', (_, definition, expected) => {
    expect(inAssembly(definition)).toEqual(expected);
  });

  it('take in the scripts of folders that refer to them, by name and by ID', () => {
    for (const reference of ['Kelp.Editor', 'GUID:0123456789abcdef0123456789abcdef'])
      expect(
        units(
          unityFiles({
            'Assets/Editor/Kelp.Editor.asmdef': json({ name: 'Kelp.Editor', includePlatforms: ['Editor'] }),
            'Assets/Editor/Kelp.Editor.asmdef.meta':
              'fileFormatVersion: 2\nguid: 0123456789abcdef0123456789abcdef\n',
            'Assets/Tools/Tools.asmref': json({ reference }),
            'Assets/Tools/Reef.cs': game,
          }),
        ),
      ).toEqual([]);
  });

  it('get the placebook that all who use it can refer to', () => {
    const code = reef('"CH-U-310772-BBBB1111"');
    const placebook = (more: Record<string, string>) => {
      const files = unityFiles(more);
      const { edits } = plan(files, title, asked({ callSites: true }));
      return edits.map(({ path }) => path).filter((path) => path.endsWith('/Placebook.cs'));
    };
    const core = { 'Assets/Core/Core.asmdef': json({ name: 'Core' }) };
    const game = (references: string[]) => ({
      'Assets/Game/Game.asmdef': json({ name: 'Game', references }),
      'Assets/Game/Reef.cs': code,
    });
    expect(placebook({ 'Assets/Reef.cs': code })).toEqual(['Assets/Ads/Placebook.cs']);
    expect(placebook({ ...core, 'Assets/Core/Reef.cs': code, 'Assets/Reef.cs': code })).toEqual([
      'Assets/Core/Ads/Placebook.cs',
    ]);
    expect(placebook({ ...core, ...game(['Core']), 'Assets/Core/Reef.cs': code })).toEqual([
      'Assets/Core/Ads/Placebook.cs',
    ]);
    expect(placebook({ ...core, ...game(['Core']) })).toEqual(['Assets/Game/Ads/Placebook.cs']);
    const other = {
      'Assets/Other/Other.asmdef': json({ name: 'Other', references: ['Core'] }),
      'Assets/Other/Reef.cs': code,
    };
    expect(placebook({ ...core, ...game(['Core']), ...other })).toEqual(['Assets/Core/Ads/Placebook.cs']);
  });
});

describe('packages in the tree of a Unity project', () => {
  const assembly = json({ name: 'Brine.Ads' });

  it('have scripts in assemblies, and no others', () => {
    const files = { [`${embedded}/package.json`]: beside(), [`${embedded}/Runtime/Reef.cs`]: game };
    expect(units(unityFiles(files))).toEqual([]);
    expect(
      units(
        unityFiles({
          ...files,
          [`${embedded}/Runtime/Brine.Ads.asmdef`]: assembly,
          [`${embedded}/Samples~/Show/Reef.cs`]: game,
          [`${embedded}/Editor/Brine.Ads.Editor.asmdef`]: json({ name: 'E', includePlatforms: ['Editor'] }),
          [`${embedded}/Editor/Reef.cs`]: game,
        }),
      ),
    ).toEqual([`android ${embedded}/Runtime/Reef.cs`, `ios ${embedded}/Runtime/Reef.cs`]);
  });

  const project = (more: Record<string, string>) =>
    Object.fromEntries(Object.entries(unityFiles(more)).map(([path, content]) => [`kelp/${path}`, content]));

  it('may lie outside of it', () => {
    const files = {
      ...project({
        'Packages/manifest.json': packageManifest({ 'example.brine.ads': 'file:../../packages/ads' }),
      }),
      'packages/ads/package.json': beside(),
      'packages/ads/Runtime/Brine.Ads.asmdef': assembly,
      'packages/ads/Runtime/Reef.cs': game,
      'packages/other/package.json': beside(),
      'packages/other/Reef.cs': game,
    };
    expect(units(files)).toEqual([
      'android packages/ads/Runtime/Reef.cs',
      'ios packages/ads/Runtime/Reef.cs',
    ]);
    expect(dependencies(files)).toEqual(['3.3.0 packages/ads/package.json']);
    // Of the folders that a manifest names, none outside of the tree is asked for.
    const outside = {
      'Packages/manifest.json': packageManifest({ a: 'file:../../../b', c: 'file:../c.tgz' }),
    };
    expect(dependencies(project(outside))).toEqual([]);
  });

  it('bring those that they depend on: these are not added again, raised where they are, and go with the network', () => {
    const files = unityFiles({
      'Packages/manifest.json': without,
      'Packages/packages-lock.json': packagesLock(),
      [`${embedded}/package.json`]: beside('3.0.0'),
    });
    expect(dependencies(files)).toEqual([`3.0.0 ${embedded}/package.json`]);
    const { after, plan: made } = holds(files, title);
    expect(dependencies(after)).toEqual([`3.3.0 ${embedded}/package.json`]);
    expect(text(after['Packages/manifest.json'])).not.toContain('"example.cobaltheron.ads"');
    const added = made.edits.flatMap(({ adds }) => adds);
    const out = written(after, unplan(after, title, 'cobalt-heron', added));
    expect(text(out[`${embedded}/package.json`])).not.toContain('cobaltheron');
  });

  it('give way to the manifest', () => {
    const files = unityFiles({ [`${embedded}/package.json`]: beside('2.0.0') });
    expect(dependencies(files)).toEqual(['3.3.0 Packages/manifest.json']);
  });

  it('may be the package of a network itself', () => {
    const own = json({ name: 'example.cobaltheron.ads', version: '3.3.0' });
    const files = unityFiles({
      'Packages/manifest.json': without,
      'Packages/packages-lock.json': json({ dependencies: {} }),
      'Packages/heron/package.json': own,
    });
    expect(dependencies(files)).toEqual(['3.3.0 Packages/heron/package.json']);
    expect(findingsOf(files, title).map(({ rule }) => rule)).not.toContain('build/dependency-missing');
    const { after } = holds(files, title);
    expect(text(after['Packages/manifest.json'])).not.toContain('"example.cobaltheron.ads"');
  });

  it('stay as they are where another project is built with them', () => {
    const named = {
      'Packages/manifest.json': packageManifest({ 'example.brine.ads': 'file:../../packages/ads' }),
    };
    const files = {
      ...project(named),
      'tide/ProjectSettings/ProjectSettings.asset': playerSettings({
        android: 'example.brine.tide',
        ios: '',
      }),
      'tide/Packages/manifest.json': named['Packages/manifest.json'],
      'packages/ads/package.json': beside(),
    };
    const out = unplan(files, title, 'cobalt-heron');
    expect(text(written(files, out)['packages/ads/package.json'])).toBe(beside());
    expect(out.byHand.map(({ what }) => what)).toContain(
      'Take example.cobaltheron.ads out of packages/ads/package.json, if no other project needs it.',
    );
  });

  it('have Android libraries: their manifests, strings and dependencies count', () => {
    const library = `${embedded}/Plugins/Heron.androidlib`;
    const app = '<meta-data android:name="example.cobaltheron.ads.APP_ID" android:value="@string/heron" />';
    const files = unityFiles({
      [`${embedded}/package.json`]: beside(),
      [`${library}/AndroidManifest.xml`]: manifest(app),
      [`${library}/res/values/ids.xml`]:
        '<resources>\n  <string name="heron">CH-A-310772-K5T8W2ZB</string>\n</resources>\n',
      [`${library}/build.gradle`]:
        "dependencies {\n    implementation 'example.cobaltheron:ads-sdk:6.2.0'\n}\n",
    });
    const { facts } = survey(files);
    expect(
      facts
        .filter(({ kind, place }) => kind === 'app-id' && place.path.startsWith(library))
        .map(({ value, effective }) => [value, effective]),
    ).toEqual([['CH-A-310772-K5T8W2ZB', true]]);
    expect(dependencies(files)).toContain(`6.2.0 ${library}/build.gradle`);
  });
});

it('files that the editor keeps beside those that are taken out go with them', () => {
  const files = unityFiles({
    'Assets/Scripts/Reef.cs': reef('"CH-U-310772-BBBB1111"'),
    'Assets/Scripts/Reef.cs.meta': 'guid: 11111111111111111111111111111111\n',
  });
  const { after, plan: made } = holds(files, title);
  const fresh = Object.keys(after).filter((path) => !(path in files));
  expect(fresh.sort()).toEqual(['Assets/Ads/Placebook.cs', 'Assets/Editor/AdsBuildSteps.cs']);
  const opened: Files = { ...after };
  for (const path of fresh) opened[`${path}.meta`] = 'guid: 22222222222222222222222222222222\n';
  const out = unplan(
    opened,
    title,
    'cobalt-heron',
    made.edits.flatMap(({ adds }) => adds),
  );
  const left = Object.keys(written(opened, out)).filter((path) => path.endsWith('.meta'));
  expect(left).toEqual(['Assets/Scripts/Reef.cs.meta']);
});
