import { describe, expect, it } from 'vitest';
import { draftTitle } from '../../../src/core/adopting/draft.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { expoFiles } from '../../support/expo.js';
import { csproj, mauiFiles } from '../../support/maui.js';
import { androidFiles, iosFiles, profiles, treeOf } from '../../support/trees.js';
import { unityFiles } from '../../support/unity.js';

type Files = Record<string, string>;
const named = (files: Files, name?: string) =>
  draftTitle([runSurvey(treeOf(files), { name: 'kelp', profiles, title: null }).survey], profiles, { name })
    .title.name;

const strings = (set: string, label: string) => ({
  [`app/src/${set}/res/values/names.xml`]: `<resources><string name="app_name">${label}</string></resources>`,
});
const list = (key: string, value: string) =>
  iosFiles({
    'Kelp/Info.plist': (iosFiles()['Kelp/Info.plist'] ?? '').replace(
      '</dict>\n</plist>',
      `\t<key>${key}</key>\n\t<string>${value}</string>\n</dict>\n</plist>`,
    ),
  });

describe('a draft takes its name from the label of the app', () => {
  it.each([
    ['the string of Android', { ...androidFiles(), ...strings('main', 'Kelp &amp; Tides') }, 'Kelp & Tides'],
    [
      'that of what ships',
      { ...androidFiles(), ...strings('debug', 'Kelp dev'), ...strings('release', 'Kelp Tides') },
      'Kelp Tides',
    ],
    ['the displayed name of iOS', list('CFBundleDisplayName', 'Kelp Tides'), 'Kelp Tides'],
    ['a build setting of iOS', list('CFBundleName', '$(PRODUCT_BUNDLE_IDENTIFIER)'), 'example.brine.kelp'],
    ['the product of Unity', unityFiles(), 'Kelp'],
    [
      'the title of MAUI',
      mauiFiles({
        'Kelp.csproj': csproj().replace(
          '<ApplicationId>',
          '<ApplicationTitle>Kelp Tides</ApplicationTitle>\n<ApplicationId>',
        ),
      }),
      'Kelp Tides',
    ],
    ['no label at all', androidFiles(), 'Kelp'],
  ] as [string, Files, string][])('%s', (_, files, expected) => {
    expect(named(files)).toBe(expected);
  });

  it('the configuration of Expo', () => {
    const text = expoFiles()['app.json'] ?? '{}';
    const name = (JSON.parse(text) as { expo: { name?: string } }).expo.name;
    expect(name).toBeDefined();
    expect(named(expoFiles())).toBe(name);
  });

  it('a name that is given counts more', () => {
    expect(named({ ...androidFiles(), ...strings('main', 'Kelp Tides') }, 'Mine')).toBe('Mine');
  });
});
