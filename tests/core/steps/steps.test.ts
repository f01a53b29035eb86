import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { tallyFindings } from '../../../src/core/tallying.js';
import { historyOf, since, steady, type MadeUnit } from '../../support/tally.js';
import { expectedIds } from '../../../src/core/roster/expected.js';
import { runChecks } from '../../../src/core/checks/run.js';
import { recogniser } from '../../../src/core/network/recognise.js';
import type { Title } from '../../../src/core/roster/model.js';
import { placebookMark } from '../../../src/core/languages/common/placebook.js';
import { definitions } from '../../../src/core/steps/definitions/index.js';
import type { Step, StepContext, StepDefinition } from '../../../src/core/steps/model.js';
import { orderedDefinitions, stepsOf } from '../../../src/core/steps/steps.js';
import { editionOf } from '../../../src/core/roster/modules.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { app, heron, unit } from '../../support/inventories.js';
import {
  androidFiles,
  appIdMetaData,
  kelp,
  manifest,
  placement,
  profileOf,
  profiles,
  root,
  treeOf,
} from '../../support/trees.js';

const footer = placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222');
const title = kelp({ placements: { 'tide-footer': footer } });
const start = (body: string) => `package example.brine.kelp

class App : android.app.Application() {
    override fun onCreate() {
${body}
    }
}
`;
const placebook = (id: string) => `// ${placebookMark}
package example.brine.kelp

object Placebook { val tideFooter = "${id}" }
`;
const wired = androidFiles({
  'app/src/main/java/example/brine/kelp/KelpApp.java': null,
  'app/src/main/AndroidManifest.xml': manifest(appIdMetaData('@string/heron')).replace(
    '<application',
    '<application android:name=".App"',
  ),
  'app/src/main/kotlin/example/brine/kelp/App.kt': start(
    '        CobaltHeron.start(this)\n        BannerView(this, Placebook.tideFooter)',
  ),
  'app/src/debug/kotlin/example/brine/kelp/Placebook.kt': placebook('CH-U-100001-BANNER0A'),
  'app/src/release/kotlin/example/brine/kelp/Placebook.kt': placebook('CH-U-310772-BBBB1111'),
  'settings.gradle.kts':
    'dependencyResolutionManagement { repositories { maven { url = uri("https://maven.cobaltheron.example/release/") } } }\ninclude(":app")\n',
});

/** What the steps of the Android edition look at, with a tree that was read. */
function context(
  files: Record<string, string> | null,
  changes: Partial<StepContext> = {},
  of: Title = title,
): StepContext {
  let reading: StepContext['reading'];
  if (files) {
    const { survey } = runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title: of } });
    const edition = editionOf(survey.editions, of, 'android')!;
    const { findings, summary } = runChecks({
      survey,
      profiles,
      recogniser: recogniser(profiles),
      title: of,
      titleId: 'kelp',
      inventories: [],
      now: '',
    });
    const mine = findings.filter(({ platform }) => platform === 'android' || platform === null);
    reading = {
      platform: 'android',
      tree: 'kelp',
      snapshot: 's',
      readAt: '2026-06-01',
      edition,
      facts: survey.facts,
      unresolved: [],
      findings: mine,
      summary,
    };
  }
  return {
    titleId: 'kelp',
    title: of,
    publisher: { name: 'Brine', domain: 'brine.example' },
    platform: 'android',
    identifier: 'example.brine.kelp',
    profile: profileOf('cobalt-heron'),
    expected: expectedIds(of, profiles, 'android').filter(({ network }) => network === 'cobalt-heron'),
    reading,
    inventory: undefined,
    app: undefined,
    key: undefined,
    tally: undefined,
    appAds: undefined,
    listing: undefined,
    rehearsal: undefined,
    canLookUp: true,
    now: '2026-06-01T12:00:00Z',
    ...changes,
  };
}
const none = () => undefined;
const states = (steps: readonly Step[]) => Object.fromEntries(steps.map(({ step, state }) => [step, state]));
const one = (made: StepContext, id: string) => stepsOf([made], none).find(({ step }) => step === id)!;

describe('the step that it earns', () => {
  const unit = 'CH-U-310772-DDDD3333';
  const title = kelp({
    editions: { android: { identifier: 'example.brine.kelp' } },
    placements: { page: placement('interstitial', unit, 'CH-U-310772-EEEE4444') },
  });
  const about = (units: readonly MadeUnit[]): StepContext => {
    const tally = historyOf({ name: '', title, units });
    const findings = tallyFindings({ title: { id: 'kelp', title }, profiles, tally, now: '' });
    return context(null, { title, tally: { history: tally, findings } });
  };
  const look = (made: StepContext) => definitions.find(({ id }) => id === 'earning')!.look(made);

  it('is to do while nothing is on record, and says how to bring it in', () => {
    expect(look(context(null, { title }))).toMatchObject({
      state: 'to-do',
      command: 'syndexa tally fetch --network cobalt-heron',
    });
  });

  it('is done when every placement reports', () => {
    expect(look(about([{ unit }]))).toMatchObject({ state: 'done' });
  });

  it('names what is silent', () => {
    const silent = look(about([{ unit, asked: since(9, steady(1_000), () => 0) }]));
    expect(silent).toMatchObject({ state: 'to-do', command: 'syndexa tally silent kelp' });
    expect(silent.why).toContain('page made no request');
    expect(silent.evidence?.map(({ what }) => what).join()).toContain('has made no request to Cobalt Heron');
  });
});

describe('the order of steps', () => {
  it('follows from what each requires, and from nothing else', () => {
    const ordered = orderedDefinitions().map(({ id }) => id);
    for (const { id, requires } of definitions)
      for (const name of requires) expect(ordered.indexOf(name)).toBeLessThan(ordered.indexOf(id));
    const shuffled = [...definitions].sort((a, b) => (a.name < b.name ? 1 : -1));
    expect(orderedDefinitions(shuffled).map(({ id }) => id)).toEqual(ordered);
    expect(ordered.slice(-2)).toEqual(['release-check', 'earning']);
    expect(ordered.indexOf('app')).toBe(ordered.indexOf('register') + 1);
  });
  it('refuses steps that require each other, or what is no step', () => {
    const step = (id: string, requires: string[]): StepDefinition => ({
      id,
      name: id,
      requires,
      per: 'network',
      look: () => ({ state: 'to-do', why: '' }),
    });
    expect(() => orderedDefinitions([step('a', ['b']), step('b', ['a'])])).toThrow('require each other');
    expect(() => orderedDefinitions([step('a', ['x'])])).toThrow('which is no step');
  });
  it('lists every file of the folder', () => {
    const files = readdirSync(join(root, 'src/core/steps/definitions')).filter(
      (name) => !['all.ts', 'index.ts'].includes(name),
    );
    expect(definitions.map(({ id }) => `${id}.ts`).sort()).toEqual(files.sort());
  });
});

describe('what a step sees', () => {
  it('of a tree that is wired is done, each with its evidence', () => {
    const steps = stepsOf([context(wired)], none);
    expect(states(steps)).toMatchObject({
      app: 'done',
      units: 'done',
      'build-levels': 'done',
      repositories: 'done',
      dependency: 'done',
      declarations: 'done',
      'start-up': 'done',
      'placements-in-code': 'done',
      'production-ids': 'done',
      register: 'to-do',
      'app-ads': 'blocked',
      'release-check': 'blocked',
    });
    const call = steps.find(({ step }) => step === 'start-up')!;
    expect(call.evidence[0]).toMatchObject({
      what: 'CobaltHeron.start',
      place: { path: 'app/src/main/kotlin/example/brine/kelp/App.kt', line: 5 },
    });
    const used = steps.find(({ step }) => step === 'placements-in-code')!;
    expect(used.evidence[0]!.what).toBe('Placebook.tideFooter');
  });

  it('of no tree at all cannot be told, and names the command', () => {
    const steps = stepsOf([context(null)], none);
    expect(states(steps)).toMatchObject({
      'build-levels': 'cannot-tell',
      repositories: 'cannot-tell',
      dependency: 'blocked',
    });
    expect(steps.find(({ step }) => step === 'build-levels')).toMatchObject({
      command: 'syndexa check DIR --title kelp',
      tickable: false,
    });
  });

  it.each<[string, Record<string, string>, string, object]>([
    [
      'a call in a comment',
      {
        ...wired,
        'app/src/main/kotlin/example/brine/kelp/App.kt': start('        // CobaltHeron.start(this)'),
      },
      'start-up',
      { state: 'to-do', why: expect.stringContaining('Write CobaltHeron.start(this)') },
    ],
    [
      'a call in a string',
      {
        ...wired,
        'app/src/main/kotlin/example/brine/kelp/App.kt': start('        println("CobaltHeron.start(this)")'),
      },
      'start-up',
      { state: 'to-do' },
    ],
    [
      'a call of another name',
      {
        ...wired,
        'app/src/main/kotlin/example/brine/kelp/App.kt': start('        myCobaltHeron.start(this)'),
      },
      'start-up',
      { state: 'to-do' },
    ],
    [
      'a placement that no code names',
      { ...wired, 'app/src/main/kotlin/example/brine/kelp/App.kt': start('        CobaltHeron.start(this)') },
      'placements-in-code',
      {
        state: 'to-do',
        why: expect.stringContaining(
          'BannerView(context, Placebook.tideFooter.unit(Placebook.Network.COBALT_HERON))',
        ),
      },
    ],
    [
      'a placement that code names by the ID of the other platform',
      {
        ...wired,
        'app/src/main/kotlin/example/brine/kelp/App.kt': start(
          '        CobaltHeron.start(this)\n        BannerView(this, "CH-U-310772-CCCC2222")',
        ),
      },
      'placements-in-code',
      {
        state: 'to-do',
        why: expect.stringContaining(
          'names tide-footer by CH-U-310772-CCCC2222, the ID of the other platform',
        ),
        evidence: [{ what: 'CH-U-310772-CCCC2222' }],
      },
    ],
    [
      'a missing app ID',
      { ...wired, 'app/src/main/AndroidManifest.xml': manifest('') },
      'declarations',
      { state: 'to-do', command: 'syndexa wire DIR --title kelp --write' },
    ],
    [
      'no repository',
      { ...wired, 'settings.gradle.kts': 'include(":app")\n' },
      'repositories',
      { state: 'to-do', why: expect.stringContaining('https://maven.cobaltheron.example/release') },
    ],
  ])('%s', (_, files, id, expected) => {
    expect(one(context(files), id)).toMatchObject(expected);
  });

  const known = app('CH-A-310772-QK4T8W2N');
  const units = [unit('CH-U-310772-BBBB1111')];
  it.each<[string, Partial<StepContext>, string, object]>([
    ['a key that is at hand', { key: { reference: 'secret:K1', held: true } }, 'register', { state: 'done' }],
    [
      'a key that nothing holds',
      { key: { reference: 'secret:K1', held: false } },
      'register',
      { state: 'to-do', command: 'syndexa secret set K1' },
    ],
    ['a list that was read', { inventory: heron({ units }) }, 'register', { state: 'done' }],
    [
      'an app at the network',
      { inventory: heron({ units }), app: known },
      'app',
      { state: 'done', evidence: [{ what: 'example.brine.kelp (Kelp)', place: null }] },
    ],
    [
      'an app of another identifier',
      { inventory: heron({ units }), app: { ...known, identifier: 'example.other' } },
      'app',
      { why: expect.stringContaining('belongs to example.other') },
    ],
    [
      'units that a table lists',
      { inventory: { ...heron({ units: [unit('CH-U-310772-BBBB1111')] }), source: 'csv' } },
      'app',
      { state: 'done', why: expect.stringContaining('lists units of it') },
    ],
    ['terms that are accepted', { app: known }, 'terms', { state: 'done' }],
    [
      'terms that are open',
      { key: { reference: 'secret:K1', held: true }, app: { ...known, terms: false } },
      'terms',
      { state: 'to-do', page: 'https://pages.cobaltheron.example' },
    ],
    [
      'a store that lists it',
      {
        listing: {
          platform: 'android',
          identifier: 'example.brine.kelp',
          listed: true,
          name: 'Kelp',
          site: 'brine.example',
          lookedAt: 'x',
        },
      },
      'store-listing',
      { state: 'done' },
    ],
    [
      'a store that names another site',
      {
        listing: {
          platform: 'android',
          identifier: 'example.brine.kelp',
          listed: true,
          name: 'Kelp',
          site: 'other.example',
          lookedAt: 'x',
        },
      },
      'store-listing',
      { state: 'to-do', why: expect.stringContaining('other.example') },
    ],
    [
      'a store that does not list it',
      {
        listing: {
          platform: 'android',
          identifier: 'example.brine.kelp',
          listed: false,
          name: null,
          site: null,
          lookedAt: 'x',
        },
      },
      'store-listing',
      { state: 'to-do' },
    ],
    ['no store to ask', { canLookUp: false }, 'store-listing', { state: 'cannot-tell', tickable: true }],
  ])('%s', (_, changes, id, expected) => {
    expect(one(context(wired, changes), id)).toMatchObject(expected);
  });

  it('of app-ads.txt is what the developer site was last seen to serve', () => {
    const key = { reference: 'secret:K1', held: true };
    const record = { domain: 'cobaltheron.example', account: '310772', relationship: 'DIRECT' as const };
    const comparison = { network: 'cobalt-heron', networkName: 'Cobalt Heron', record, why: 'Because.' };
    const seen = (state: 'there' | 'missing') => ({
      url: 'https://brine.example/app-ads.txt',
      at: 'x',
      comparisons: [{ ...comparison, state }],
    });
    expect(one(context(wired, { key }), 'app-ads')).toMatchObject({
      state: 'cannot-tell',
      command: 'syndexa appads verify',
    });
    expect(one(context(wired, { key, appAds: seen('there') }), 'app-ads').state).toBe('done');
    expect(one(context(wired, { key, appAds: seen('missing') }), 'app-ads')).toMatchObject({
      state: 'to-do',
      why: 'Because.',
    });
  });

  it('of a network that has no such thing is left out', () => {
    const film = kelp({
      placements: { film: { format: 'video', settings: {}, units: { tallowfield: {} } } } as never,
    });
    const made = {
      ...context(null, { profile: profileOf('tallowfield') }, film),
      expected: expectedIds(film, profiles, 'android'),
    };
    const steps = stepsOf([made], none).map(({ step }) => step);
    for (const gone of ['app', 'terms', 'dependency', 'repositories', 'build-levels'])
      expect(steps).not.toContain(gone);
    expect(steps).toContain('units');
  });
});

describe('saying that a step is done', () => {
  const tick = { who: 'mara', at: '2026-06-01', note: 'two devices' };
  const ticked = (id: string) =>
    stepsOf([context(wired)], (step) => (step === id ? tick : undefined)).find(({ step }) => step === id)!;
  it('counts where nothing can be seen', () => {
    expect(ticked('test-run')).toMatchObject({ state: 'done', why: 'mara said so: two devices.', tick });
  });
  it('does not count against what is seen', () => {
    const named = context(null, { key: { reference: 'secret:HERON', held: false }, inventory: undefined });
    const [step] = stepsOf([named], () => tick).filter((one) => one.step === 'register');
    expect(step).toMatchObject({ state: 'to-do', tickable: false, tick });
  });
  it('opens what was waiting for it', () => {
    const listing = {
      platform: 'android' as const,
      identifier: 'example.brine.kelp',
      listed: true,
      name: 'Kelp',
      site: 'brine.example',
      lookedAt: 'x',
    };
    const record = { domain: 'cobaltheron.example', account: '310772', relationship: 'DIRECT' as const };
    const appAds = {
      url: 'u',
      at: 'x',
      comparisons: [{ network: 'cobalt-heron', networkName: '', record, why: '', state: 'there' as const }],
    };
    const made = context(wired, {
      key: { reference: 'secret:K1', held: true },
      app: app('CH-A-310772-QK4T8W2N'),
      listing,
      appAds,
    });
    const last = (tickOf: Parameters<typeof stepsOf>[1]) =>
      stepsOf([made], tickOf).find(({ step }) => step === 'release-check')!;
    expect(last(none)).toMatchObject({ state: 'blocked', blockedBy: ['test-run (cobalt-heron)'] });
    expect(last((step) => (step === 'test-run' ? tick : undefined)).state).toBe('done');
  });
});

describe('what a person can do', () => {
  it('about every step that is not done, at every network, whatever they keep to themselves', () => {
    const everywhere = { ...title, networks: Object.fromEntries(profiles.map(({ id }) => [id, {}])) };
    const contexts = [null, wired].flatMap((files) =>
      profiles.map((profile) => context(files, { profile, title: everywhere, expected: [] })),
    );
    for (const one of contexts) {
      const open = stepsOf([one], () => undefined).filter(
        ({ state }) => state === 'to-do' || state === 'cannot-tell',
      );
      const stuck = open.filter(
        ({ command, page, tickable, why }) => !command && !page && !tickable && !/Write /.test(why),
      );
      expect(stuck.map(({ step, network, why }) => `${network} ${step}: ${why}`)).toEqual([]);
    }
  });

  it('with an account whose key they do not hand over', () => {
    const one = context(null, { key: undefined, inventory: undefined });
    const said = { who: 'Ada', at: '2026-01-01', note: null };
    const steps = stepsOf([one], (step) => (step === 'register' ? said : undefined));
    expect(steps.find(({ step }) => step === 'register')).toMatchObject({ state: 'done', tickable: true });
    expect(steps.find(({ step }) => step === 'app-ads')?.blockedBy).toEqual([]);
  });
});
