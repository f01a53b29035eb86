import { describe, expect, it } from 'vitest';
import { draftTitle } from '../../../src/core/adopting/draft.js';
import { settingsInWords } from '../../../src/core/placebook/read.js';
import { runSurvey } from '../../../src/core/surveying.js';
import type { Title } from '../../../src/core/roster/model.js';
import { flutterFiles } from '../../support/flutter.js';
import { mauiFiles } from '../../support/maui.js';
import { reactNativeFiles } from '../../support/react-native.js';
import { androidFiles, iosFiles, kelp, placement, profiles, treeOf } from '../../support/trees.js';
import { unityFiles } from '../../support/unity.js';
import { plan, text, written, type Files } from '../../support/wiring.js';

const settings = {
  footer: { refresh: '90s', content: ['text', 'image'], size: 'adaptive', anchor: 'bottom' },
  'pearl-dive': {
    cap: { count: 2, per: '1h' },
    reward: { amount: 3, item: 'pearls of the "sea"' },
    skippable: false,
    timeout: '5s',
    'end-card': true,
  },
  'tide-news': { every: 6, first: 2, refresh: 'off' },
};
const units = (kind: 'banner' | 'rewarded' | 'native', letter: string) =>
  placement(kind, `CH-U-310772-${letter.repeat(4)}1111`, `CH-U-310772-${letter.repeat(4)}2222`);
const placements = {
  footer: { ...units('banner', 'B'), settings: settings.footer },
  'pearl-dive': { ...units('rewarded', 'C'), settings: settings['pearl-dive'] },
  'tide-news': { ...units('native', 'D'), settings: settings['tide-news'] },
} as unknown as Title['placements'];
const stages = { test: ['debug', 'development'], production: ['release'] };
const title = kelp({ placements, stages });

describe('a placebook of an earlier record', () => {
  it.each([
    ['Kotlin and Swift', { ...androidFiles(), ...iosFiles() }],
    ['Dart', flutterFiles()],
    ['TypeScript', reactNativeFiles()],
    ['C# of Unity', unityFiles()],
    ['C# of MAUI', mauiFiles()],
  ] as [string, Files][])('gives the placements back: %s', (_, files) => {
    const wired = written(files, plan(files, title));
    const tree = treeOf(
      Object.fromEntries(Object.entries(wired).map(([path, content]) => [path, text(content)])),
    );
    const { survey } = runSurvey(tree, { name: 'kelp', profiles, title: null });
    const { title: drafted } = draftTitle([survey], profiles, {});
    expect(Object.keys(drafted.placements)).toEqual(Object.keys(title.placements));
    for (const [name, { format, units: held, settings: given }] of Object.entries(title.placements)) {
      const found = drafted.placements[name];
      expect(found?.format).toBe(format);
      expect(settingsInWords(found?.settings ?? {})).toBe(settingsInWords(given));
      expect(found?.units['cobalt-heron']).toEqual(held['cobalt-heron']);
    }
  });
});
