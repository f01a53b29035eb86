import { describe, expect, it } from 'vitest';
import { appendJson, removeJson, setJson } from '../../../src/core/formats/json/edit.js';
import { readEas } from '../../../src/core/formats/app-config/eas.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { applyEdits } from '../../../src/core/text/edit.js';
import {
  appConfig,
  appJson,
  easJson,
  expoFiles,
  expoPackage,
  expoStages,
  screen,
} from '../../support/expo.js';
import { kelpWithBanner } from '../../support/flutter.js';
import { reactNativeFiles } from '../../support/react-native.js';
import { findingsOf } from '../../support/rules.js';
import { kelp, profiles, treeOf } from '../../support/trees.js';
import { asked, comesBack, holds, plan, text, unplan, written, type Files } from '../../support/wiring.js';

const texts = (files: Files) =>
  Object.fromEntries(Object.entries(files).map(([path, content]) => [path, text(content)]));
const staged = kelp({ stages: expoStages });
const withBanner = kelpWithBanner({ stages: expoStages });
const survey = (files: Files, title = withBanner) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title } }).survey;
const facts = (files: Files, kind: string) =>
  survey(files)
    .facts.filter((fact) => fact.kind === kind)
    .map(({ platform, variants, value }) => `${platform} ${variants.join(' ')}: ${value}`)
    .sort();
const rulesOf = (files: Files, title = staged) =>
  findingsOf(files as Record<string, string>, title).map(({ rule, platform }) => `${rule} ${platform}`);

describe('JSON that is edited in place', () => {
  const shapes: [string, string][] = [
    ['two spaces', appJson()],
    ['CRLF', appJson().replace(/\n/g, '\r\n')],
    ['tabs and a comment', '{\n\t// kept\n\t"expo": {\n\t\t"name": "a"\n\t}\n}'],
    ['one line', '{"expo":{"name":"a"}}'],
    ['an empty object', '{}\n'],
  ];
  it.each(shapes)('takes values in, and gives them back: %s', (_, before) => {
    const way = ['expo', 'made', 'deep', 'key'];
    const after = applyEdits(before, setJson(before, way, { a: [1, 'b'] }));
    expect(after).not.toBe(before);
    const removal = removeJson(after, way, before.includes('expo') ? ['expo'] : []);
    expect(applyEdits(after, removal)).toBe(before);
    const list = applyEdits(before, appendJson(before, ['expo', 'items'], { id: 'x' }));
    const more = applyEdits(list, appendJson(list, ['expo', 'items'], { id: 'y' }));
    expect(applyEdits(more, removeJson(more, ['expo', 'items', '1']))).toBe(list);
  });

  it('changes a value and nothing else', () => {
    const before = appJson();
    const name = before.indexOf('"Kelp"');
    const edit = { start: name, end: name + 6, text: '"Reef"' };
    expect(setJson(before, ['expo', 'name'], 'Reef')).toEqual([edit]);
    expect(setJson('[1]', ['a'], 1)).toEqual([]);
    expect(removeJson('{"a":1}', ['b'])).toEqual([]);
  });
});

describe('recognising Expo', () => {
  it('says why, and takes build profiles for variants', () => {
    const found = survey(expoFiles());
    expect(found.stacks).toEqual([
      {
        stack: 'expo',
        root: '',
        evidence: [
          'package.json depends on expo',
          'app.json configures it',
          'app.config.js works its configuration out',
          'eas.json has the build profiles development, preview, production',
        ],
      },
    ]);
    for (const edition of found.editions)
      expect(edition.variants.map(({ name, stage }) => `${name} ${stage}`)).toEqual([
        'development test',
        'preview test',
        'production production',
      ]);
    expect(rulesOf(expoFiles())).toEqual([]);
  });

  it('leaves native folders that are kept in the repository to React Native', () => {
    const native = Object.fromEntries(
      Object.entries(reactNativeFiles()).filter(([path]) => /^(android|ios)\//.test(path)),
    );
    const stacks = (files: Files) => survey(files).stacks.map(({ stack }) => stack);
    expect(stacks(expoFiles({ ...native, '.gitignore': 'node_modules/\n' }))).toEqual(['react-native']);
    expect(stacks(expoFiles(native))).toEqual(['expo']);
    expect(stacks(expoFiles({ ...native, '.gitignore': '# none\nandroid/\nios/**\n' }))).toEqual(['expo']);
    expect(stacks(expoFiles({ 'app.json': '{ "name": "kelp" }', 'app.config.js': null }))).toEqual([]);
  });

  it('has what runs on a desk and what ships where there are no build profiles', () => {
    const [android] = survey(expoFiles({ 'eas.json': null })).editions;
    expect(android?.variants.map(({ name }) => name)).toEqual(['debug', 'release']);
  });
});

describe('surveying Expo', () => {
  it('gives each build the app IDs of its plugin entry', () => {
    expect(facts(expoFiles(), 'app-id')).toEqual([
      'android development preview: CH-A-100001-SAMPLE0A',
      'android production: CH-A-310772-QK4T8W2N',
      'ios development preview: CH-I-100001-SAMPLE0I',
      'ios production: CH-I-310772-M6R9V3XC',
    ]);
    expect(facts(expoFiles({ 'app.json': appJson(), 'app.config.js': null }), 'app-id')).toEqual([
      'android development preview production: CH-A-310772-QK4T8W2N',
      'ios development preview production: CH-I-310772-M6R9V3XC',
    ]);
  });

  it('cannot tell what a script works out, and says so', () => {
    const script = 'module.exports = ({ config }) => ({ ...config, plugins: makePlugins(config) });\n';
    const { unresolved } = survey(expoFiles({ 'app.config.js': script }));
    expect(unresolved.map(({ kind, reason }) => `${kind}: ${reason}`)).toContain(
      'plugin-entry: it is computed when the configuration runs: makePlugins(config)',
    );
    const remote = easJson.replace('"developmentClient": true', '"environment": "development"');
    expect(survey(expoFiles({ 'eas.json': remote })).unresolved.map(({ kind }) => kind)).toContain('app-id');
  });

  it('weighs code by the variables of each build', () => {
    const choice =
      "process.env.EXPO_PUBLIC_ADS_STAGE === 'production' ? Platform.select({ ios: 'CH-U-310772-CCCC2222', android: 'CH-U-310772-BBBB1111' })! : __DEV__ ? 'CH-U-100001-BANNER0A' : 'CH-U-100001-BANNER0I'";
    expect(facts(expoFiles({ 'src/Reef.tsx': screen(choice) }), 'unit-id')).toEqual([
      'android development: CH-U-100001-BANNER0A',
      'android preview: CH-U-100001-BANNER0I',
      'android production: CH-U-310772-BBBB1111',
      'ios development: CH-U-100001-BANNER0A',
      'ios preview: CH-U-100001-BANNER0I',
      'ios production: CH-U-310772-CCCC2222',
    ]);
  });

  it('holds native folders that were made from the configuration against it', () => {
    const native = Object.fromEntries(
      Object.entries(reactNativeFiles()).filter(([path]) => /^(android|ios)\//.test(path)),
    );
    expect(rulesOf(expoFiles(native))).toEqual([]);
    const edited = Object.fromEntries(
      Object.entries(native).map(([path, content]) => [
        path,
        content.replaceAll('example.brine.kelp', 'example.brine.weed'),
      ]),
    );
    expect(rulesOf(expoFiles(edited))).toEqual([
      'build/native-folder-stale android',
      'build/native-folder-stale ios',
      'build/native-folder-stale ios',
    ]);
  });
});

describe('wiring Expo', () => {
  const bare = expoFiles({
    'package.json': expoPackage(''),
    'app.json': appJson(null, '"NSUserTrackingUsageDescription": "Ads keep the reef free."'),
    'app.config.js': null,
    'eas.json': easJson.replace('{ "env": { "EXPO_PUBLIC_ADS_STAGE": "production" } }', '{}'),
  });

  it.each([
    ['test takes over from production', { production: {}, preview: { extends: 'production' } }],
    ['production takes over from test', { preview: {}, production: { extends: 'preview' } }],
    [
      'through several profiles, written in any order',
      { preview: { extends: 'store' }, store: { extends: 'production' }, production: {} },
    ],
    [
      'production takes over from a test profile that takes over from production',
      { production: {}, preview: { extends: 'production' }, store: { extends: 'preview' } },
    ],
    ['test is set already', { production: {}, preview: { extends: 'production', env: { OTHER: 'x' } } }],
  ])('gives each build profile its stage in one wiring: %s', (_, build) => {
    const stages = { test: ['preview'], production: ['production', 'store'] };
    const title = { ...withBanner, stages };
    const files = { ...bare, 'eas.json': JSON.stringify({ build }, null, 2) };
    const result = holds(files, title);
    const effective = readEas(text(result.after['eas.json'])).profiles.map(({ name, env }) => [
      name,
      env.get('EXPO_PUBLIC_ADS_STAGE')?.value === 'production' ? 'production' : 'test',
    ]);
    for (const [name, stage] of effective)
      expect([name, stage]).toEqual([name, name === 'preview' ? 'test' : 'production']);
    comesBack(files, title, result);
  });

  it('keeps every law, with IDs by stage in a script and a variable in the build profile', () => {
    const { after } = holds(bare, withBanner);
    expect(Object.keys(after)).toEqual(expect.arrayContaining(['app.config.js', 'src/ads/placebook.ts']));
    expect(text(after['package.json'])).toBe(expoPackage());
    expect(text(after['src/ads/placebook.ts'])).toContain(
      "const isTest = process.env.EXPO_PUBLIC_ADS_STAGE !== 'production';",
    );
    expect(facts(after, 'app-id')).toEqual(facts(expoFiles(), 'app-id'));
    expect(facts(after, 'attribution-id')).toHaveLength(2);
    expect(facts(after, 'unit-id')).toEqual([
      'android development preview: CH-U-100001-BANNER0A',
      'android production: CH-U-310772-BBBB1111',
      'ios development preview: CH-U-100001-BANNER0I',
      'ios production: CH-U-310772-CCCC2222',
    ]);
  });

  it('gives every byte back when the network is taken out', () => {
    const after = written(bare, plan(bare, withBanner));
    const back = written(after, unplan(after, withBanner, 'cobalt-heron'));
    expect(texts(back)).toEqual(texts(bare));
  });

  it('moves an entry out of the static configuration where the stages differ', () => {
    const files = { ...bare, 'app.json': appJson() };
    const { after } = holds(files, withBanner);
    expect(text(after['app.json'])).not.toContain('CH-A-');
    expect(facts(after, 'app-id')).toEqual(facts(expoFiles(), 'app-id'));
  });

  it('keeps to the static configuration where every build is of one stage', () => {
    const title = kelpWithBanner({ stages: { test: [], production: ['production'] } });
    const eas = '{ "build": { "production": {} } }\n';
    const files = { ...bare, 'eas.json': eas, 'app.json': appJson('"other"') };
    const { after } = holds(files, title);
    expect(text(after['app.json'])).toContain(
      '"plugins": ["other", ["@cobaltheron.example/react-native", { "androidAppId": "CH-A-310772-QK4T8W2N", "iosAppId": "CH-I-310772-M6R9V3XC" }]]',
    );
    expect(after['app.config.js']).toBeUndefined();
    expect(text(after['eas.json'])).toBe(eas);
  });

  it('works out what functions of the script give each build profile', () => {
    const script = `import type { ConfigContext, ExpoConfig } from 'expo/config';
const STAGE = process.env.STAGE ?? 'production';
const identifier = (): string => {
  switch (STAGE) {
    case 'development':
      return 'example.brine.kelp.dev';
    default:
      return 'example.brine.kelp';
  }
};
export default ({ config }: ConfigContext): ExpoConfig => {
  const id = identifier();
  return { ...config, name: 'Kelp', slug: 'kelp', ios: { bundleIdentifier: id }, android: { package: id } };
};
`;
    const eas =
      '{ "build": { "development": { "developmentClient": true, "env": { "STAGE": "development" } }, "preview": {}, "production": {} } }';
    const files = expoFiles({ 'app.config.js': null, 'app.config.ts': script, 'eas.json': eas });
    expect(facts(files, 'identifier').filter((fact) => fact.startsWith('ios'))).toEqual([
      'ios development: example.brine.kelp.dev',
      'ios preview production: example.brine.kelp',
    ]);
  });

  it('does not rewrite a script of one’s own, and says what it lacks', () => {
    const script = appConfig({ ios: 'CH-I-310772-WRONG001' });
    const files = expoFiles({ 'app.config.js': script });
    const { edits, byHand } = plan(files, withBanner);
    expect(edits.map(({ path }) => path)).toEqual(['src/ads/placebook.ts']);
    expect(byHand.find(({ where }) => where === 'app.config.js')?.what).toContain(
      "iosAppId: test ? 'CH-I-100001-SAMPLE0I' : 'CH-I-310772-M6R9V3XC'",
    );
    expect(plan(expoFiles(), withBanner).byHand.filter(({ where }) => where === 'app.config.js')).toEqual([]);
  });

  it('asks for build profiles where there are none', () => {
    const title = kelpWithBanner({ stages: { test: ['debug'], production: ['release'] } });
    const { 'eas.json': _, ...files } = bare;
    const { byHand } = plan(files, title);
    expect(byHand.map(({ what }) => what)).toContain(
      'Write an eas.json with a build profile for each stage, then wire again.',
    );
  });

  it('names placements in code through the placebook', () => {
    const files = expoFiles({
      'src/Reef.tsx': screen(
        "Platform.select({ ios: 'CH-U-310772-CCCC2222', default: 'CH-U-310772-BBBB1111' })!",
      ),
    });
    const { after } = holds(files, withBanner, asked({ callSites: true }));
    expect(text(after['src/Reef.tsx'])).toContain('Placebook.footer.unit(PlacebookNetwork.cobaltHeron)');
    expect(rulesOf(after, withBanner)).toEqual([]);
  });
});
