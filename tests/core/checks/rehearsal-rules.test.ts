import { expect } from 'vitest';
import { bannerDoesNotFit } from '../../../src/core/checks/rules/rehearsal-banner-does-not-fit.js';
import { capNotKept } from '../../../src/core/checks/rules/rehearsal-cap-not-kept.js';
import { fallbackTooLate } from '../../../src/core/checks/rules/rehearsal-fallback-too-late.js';
import { keptAfterScreen } from '../../../src/core/checks/rules/rehearsal-kept-after-screen.js';
import { listAdsMeet } from '../../../src/core/checks/rules/rehearsal-list-ads-meet.js';
import { listFirstTooEarly } from '../../../src/core/checks/rules/rehearsal-list-first-too-early.js';
import { listLoadedAtOnce } from '../../../src/core/checks/rules/rehearsal-list-loaded-at-once.js';
import { listRowReused } from '../../../src/core/checks/rules/rehearsal-list-row-reused.js';
import { neverRequested } from '../../../src/core/checks/rules/rehearsal-never-requested.js';
import { neverShown } from '../../../src/core/checks/rules/rehearsal-never-shown.js';
import { noWayForward } from '../../../src/core/checks/rules/rehearsal-no-way-forward.js';
import { productionClicked } from '../../../src/core/checks/rules/rehearsal-production-clicked.js';
import { refreshTooFast } from '../../../src/core/checks/rules/rehearsal-refresh-too-fast.js';
import { refusedRequest } from '../../../src/core/checks/rules/rehearsal-refused.js';
import { requestedTooEarly } from '../../../src/core/checks/rules/rehearsal-requested-too-early.js';
import { rewardWithoutCompletion } from '../../../src/core/checks/rules/rehearsal-reward-without-completion.js';
import { shownOnReturn } from '../../../src/core/checks/rules/rehearsal-shown-on-return.js';
import type { Title } from '../../../src/core/roster/model.js';
import type { Settings } from '../../../src/core/words/settings.js';
import type { Answer, Question } from '../../../src/core/rehearsal/device/questions.js';
import { generous, rehearsalCases, scenarioNamed } from '../../support/rehearsal.js';
import { androidFiles, kelp, placement } from '../../support/trees.js';

const screen = 'app/src/main/java/example/brine/kelp/Screen.kt';
const unit = 'CH-U-310772-DDDD3333';
const iosUnit = 'CH-U-310772-EEEE4444';
const only = (format: string, settings: Settings = {}, network = 'cobalt-heron'): Title =>
  kelp({
    editions: { android: { identifier: 'example.brine.kelp' } },
    placements: { page: { ...placement(format, unit, iosUnit, network), settings } },
  });
const kotlin = (body: string, more: Record<string, string | null> = {}) =>
  androidFiles({ [screen]: `class Screen : Activity() {\n${body}\n}\n`, ...more });

/** A screen that does everything right with an ad that covers it. */
const fullScreen = (kind: 'Interstitial' | 'Rewarded', show = '', more = '') => `
  private var ad: Heron${kind}? = null
  override fun onCreate(state: Bundle?) { ad = Heron${kind}.load(this, "${unit}", this) }
  ${show || 'fun onTap() { val now = ad\n if (now?.isReady == true) now.show(this) else next() }'}
  override fun onHeronFailed(code: Int) { next() }
  override fun onHeronClosed() { next() }
  ${kind === 'Rewarded' && more === '' ? 'override fun onHeronReward() { grant() }' : more}
  override fun onDestroy() { ad?.release() }`;
const interstitial = kotlin(fullScreen('Interstitial'));

/** One network answers otherwise. */
const answering =
  (network: string, answer: Answer) =>
  (question: Question): Answer =>
    question.asks === 'ad' && question.network === network ? answer : generous(question);

rehearsalCases(neverRequested, {
  clean: [
    { name: 'loaded as the screen opens', files: interstitial, title: only('interstitial') },
    {
      name: 'code that asks for one of two, and reading cannot tell for which',
      files: kotlin(
        'fun show(unit: String) { }\noverride fun onCreate(s: Bundle?) { HeronInterstitial.load(this, intent.unit(), this) }',
      ),
      title: kelp({
        editions: { android: { identifier: 'example.brine.kelp' } },
        placements: {
          page: placement('interstitial', unit, iosUnit),
          other: placement('interstitial', 'CH-U-310772-FFFF5555', 'CH-U-310772-GGGG6666'),
        },
      }),
    },
    {
      name: 'named by what the argument is called',
      files: kotlin(
        'override fun onCreate(s: Bundle?) { HeronInterstitial.load(this, ids.forPage, this)\n HeronInterstitial.load(this, Units.OTHER, this) }',
      ),
      title: kelp({
        editions: { android: { identifier: 'example.brine.kelp' } },
        placements: {
          page: placement('interstitial', unit, iosUnit),
          other: placement('interstitial', 'CH-U-310772-FFFF5555', 'CH-U-310772-GGGG6666'),
        },
      }),
    },
    {
      name: 'refused, which is another matter',
      files: interstitial,
      title: only('interstitial'),
      answer: answering('cobalt-heron', { is: 'refused', code: 'unit-paused', text: 'It is paused.' }),
    },
    {
      name: 'loaded by one of two networks',
      files: interstitial,
      title: kelp({
        editions: { android: { identifier: 'example.brine.kelp' } },
        placements: {
          page: {
            ...placement('interstitial', unit, iosUnit),
            units: {
              ...placement('interstitial', unit, iosUnit).units,
              ...placement('interstitial', 'mrl-KELP-0000001', 'mrl-KELP-0000002', 'marlstone').units,
            },
          },
        },
      }),
    },
  ],
  faulty: [
    {
      name: 'no code at all',
      files: androidFiles(),
      title: only('interstitial'),
      byHand: { edits: [[screen, '', `class Screen : Activity() {\n${fullScreen('Interstitial')}\n}\n`]] },
      findings: [{ placement: 'page', place: null, variants: ['debug', 'release'] }],
    },
    {
      name: 'loaded only when something fails that never does',
      files: kotlin(
        fullScreen('Interstitial').replace(
          'override fun onCreate(state: Bundle?)',
          'override fun onHeronFailed(c: Int)',
        ),
      ),
      title: only('interstitial'),
      findings: [{ message: expect.stringContaining('did not run') }],
    },
  ],
});

rehearsalCases(neverShown, {
  clean: [
    { name: 'shown on a tap', files: interstitial, title: only('interstitial') },
    {
      name: 'a banner, which needs no call',
      files: kotlin('override fun onCreate(s: Bundle?) { BannerView(this, "CH-U-310772-DDDD3333") }'),
      title: only('banner'),
    },
  ],
  faulty: [
    {
      name: 'nothing shows it',
      files: kotlin(fullScreen('Interstitial', 'fun onTap() { next() }')),
      title: only('interstitial'),
      byHand: {
        edits: [
          [screen, 'fun onTap() { next() }', 'fun onTap() { if (ad?.isReady == true) ad?.show(this) }'],
        ],
      },
      findings: [{ placement: 'page' }],
    },
  ],
});

const gated = (main: string) =>
  androidFiles({
    'app/src/main/java/example/brine/kelp/KelpApp.java': null,
    'app/src/main/java/example/brine/kelp/KelpApp.kt': `class KelpApp : Application() {\n${main}\n}\n`,
  });
const marlstone = only('interstitial', {}, 'marlstone');
const onMarlstone: Title = {
  ...marlstone,
  networks: { marlstone: { android: { production: { app: 'mrl1-5f2c7e19a04b8d3361c9e7f2' } } } },
  placements: { page: placement('interstitial', 'mrl-KELP-0000001', 'mrl-KELP-0000002', 'marlstone') },
};
const begin = 'Marlstone.begin(this, "mrl1-5f2c7e19a04b8d3361c9e7f2")';
const prepare = 'Marlstone.prepare("mrl-KELP-0000001")';
rehearsalCases(requestedTooEarly, {
  clean: [
    {
      name: 'on a screen, when the SDK has long started',
      files: gated(
        `override fun onCreate() { ${begin} }\n}\nclass Screen : Activity() {\noverride fun onCreate(s: Bundle?) { ${prepare} }`,
      ),
      title: onMarlstone,
    },
    {
      name: 'of a network that is started when the other has',
      files: gated(
        `override fun onCreate() { ${begin} }\nfun onStageOpen() { CobaltHeron.start(this)\n HeronInterstitial.load(this, "${unit}", this) }`,
      ),
      title: kelp({
        editions: { android: { identifier: 'example.brine.kelp' } },
        networks: {
          'cobalt-heron': { android: { production: { app: 'CH-A-310772-QK4T8W2N' } } },
          marlstone: { android: { production: { app: 'mrl1-5f2c7e19a04b8d3361c9e7f2' } } },
        },
        placements: { page: placement('interstitial', unit, iosUnit) },
      }),
    },
    {
      name: 'in the callback of the start-up',
      files: gated(`override fun onCreate() { ${begin} }\nfun onStageOpen() { ${prepare} }`),
      title: onMarlstone,
    },
  ],
  faulty: [
    {
      name: 'right after the start-up call',
      files: gated(`override fun onCreate() { ${begin}\n ${prepare} }`),
      title: onMarlstone,
      byHand: {
        edits: [
          [
            'app/src/main/java/example/brine/kelp/KelpApp.kt',
            `\n ${prepare} }`,
            ` }\nfun onStageOpen() { ${prepare} }`,
          ],
        ],
      },
      findings: [{ message: expect.stringContaining('has started') }],
    },
    {
      name: 'with an SDK that nothing starts',
      files: gated(`}\nclass Screen : Activity() {\noverride fun onCreate(s: Bundle?) { ${prepare} }`),
      title: onMarlstone,
      findings: [{}],
    },
  ],
});

rehearsalCases(refusedRequest, {
  clean: [
    { name: 'an ad for everybody', files: interstitial, title: only('interstitial') },
    {
      name: 'no ad is no refusal',
      files: interstitial,
      title: only('interstitial'),
      answer: answering('cobalt-heron', { is: 'no-fill' }),
    },
  ],
  faulty: [
    {
      name: 'a unit that is too new',
      files: interstitial,
      title: only('interstitial'),
      answer: (question) =>
        question.asks === 'ad' && question.unit === unit
          ? { is: 'refused', code: 'unit-too-new', text: 'It is new: 41 min left.' }
          : generous(question),
      byHand: { edits: [[screen, unit, 'CH-U-100001-INTERS0A']] },
      findings: [
        {
          mend: expect.stringContaining('Wait'),
          message: expect.stringContaining('41 min left'),
          variants: ['debug', 'release'],
        },
      ],
    },
  ],
});

rehearsalCases(noWayForward, {
  clean: [
    { name: 'goes on in every case', files: interstitial, title: only('interstitial') },
    {
      name: 'no ad, and the code asks first',
      files: interstitial,
      title: only('interstitial'),
      answer: answering('cobalt-heron', { is: 'no-fill' }),
    },
  ],
  faulty: [
    {
      name: 'shown without asking, and the failure is not heard',
      files: kotlin(
        fullScreen('Interstitial', 'fun onTap() { ad?.show(this) }').replace(
          'onHeronFailed(code: Int) { next() }',
          'onHeronFailed(code: Int) { }',
        ),
      ),
      title: only('interstitial'),
      answer: answering('cobalt-heron', { is: 'no-fill' }),
      byHand: { edits: [[screen, 'onHeronFailed(code: Int) { }', 'onHeronFailed(code: Int) { next() }']] },
      findings: [{ placement: 'page' }],
    },
    {
      name: 'closed, and nothing hears it',
      files: kotlin(`
  private var ad: HeronInterstitial? = null
  override fun onCreate(state: Bundle?) { ad = HeronInterstitial.load(this, "${unit}", this) }
  fun onTap() { if (ad?.isReady == true) ad?.show(this) }
  override fun onDestroy() { ad?.release() }`),
      title: only('interstitial'),
      findings: [{ message: expect.stringContaining('closed') }],
    },
  ],
});

const onReturn = (guard: string) =>
  kotlin(
    fullScreen(
      'Interstitial',
      `override fun onResume() { if (ad?.isReady == true${guard}) ad?.show(this) }`,
      '',
    ).replace(
      'onHeronClosed() { next() }',
      `onHeronClosed() { ad = HeronInterstitial.load(this, "${unit}", this)\n next() }`,
    ),
  );
rehearsalCases(shownOnReturn, {
  clean: [
    { name: 'on a tap', files: interstitial, title: only('interstitial'), scenario: 'ten-minutes' },
    {
      name: 'on return, within a limit',
      files: onReturn(' && returns > 3'),
      title: only('interstitial'),
      scenario: 'ten-minutes',
    },
    {
      name: 'on return, once',
      files: onReturn(''),
      title: only('interstitial'),
      scenario: 'first-session',
    },
  ],
  faulty: [
    {
      name: 'each time the screen is back',
      files: onReturn(''),
      title: only('interstitial'),
      changes: { network: { latency: '1ms', lost: 0, fill: 'as-answered' } },
      scenario: 'ten-minutes',
      byHand: { edits: [[screen, 'ad?.isReady == true)', 'ad?.isReady == true && returns > 3)']] },
      findings: [{ placement: 'page' }],
    },
  ],
});

rehearsalCases(rewardWithoutCompletion, {
  clean: [
    {
      name: 'granted as it is earned',
      files: kotlin(fullScreen('Rewarded')),
      title: only('rewarded', { skippable: true }),
      scenario: 'impatient-user',
    },
    {
      name: 'granted as it is closed, which was at the end',
      files: kotlin(fullScreen('Rewarded', '', 'fun other() { }')),
      title: only('rewarded'),
    },
  ],
  faulty: [
    {
      name: 'granted as it is closed, though it was skipped',
      files: kotlin(fullScreen('Rewarded', '', 'fun other() { }')),
      title: only('rewarded', { skippable: true }),
      scenario: 'impatient-user',
      byHand: { edits: [[screen, 'fun other() { }', 'override fun onHeronReward() { grant() }']] },
      findings: [{ placement: 'page' }],
    },
  ],
});

const oncePerHour: Settings = { cap: { count: 1, per: '1h' } };
const again = fullScreen('Interstitial').replace(
  'onHeronClosed() { next() }',
  `onHeronClosed() { ad = HeronInterstitial.load(this, "${unit}", this) }`,
);
rehearsalCases(capNotKept, {
  clean: [
    { name: 'once', files: interstitial, title: only('interstitial', oncePerHour) },
    {
      name: 'the code asks its cap',
      files: kotlin(again.replace('now?.isReady == true', 'now?.isReady == true && shownToday < 1')),
      title: only('interstitial', oncePerHour),
      scenario: 'ten-minutes',
    },
    { name: 'no cap', files: kotlin(again), title: only('interstitial'), scenario: 'ten-minutes' },
  ],
  faulty: [
    {
      name: 'on every visit',
      files: kotlin(again),
      title: only('interstitial', oncePerHour),
      scenario: 'ten-minutes',
      byHand: { edits: [[screen, 'now?.isReady == true', 'now?.isReady == true && shownToday < 1']] },
      findings: [{ message: expect.stringContaining('its cap is 1') }],
    },
  ],
});

const banner = kotlin(
  'private var footer: BannerView? = null\noverride fun onCreate(s: Bundle?) { footer = BannerView(this, "CH-U-310772-DDDD3333") }\noverride fun onDestroy() { footer?.release() }',
);
rehearsalCases(refreshTooFast, {
  clean: [
    {
      name: 'every minute',
      files: banner,
      title: only('banner', { refresh: '60s' }),
      scenario: 'ten-minutes',
    },
    {
      name: 'at the limit',
      files: banner,
      title: only('banner', { refresh: '30s' }),
      scenario: 'ten-minutes',
    },
    { name: 'never', files: banner, title: only('banner', { refresh: 'off' }), scenario: 'ten-minutes' },
  ],
  faulty: [
    {
      name: 'every ten seconds',
      files: banner,
      title: only('banner', { refresh: '10s' }),
      byHand: { title: only('banner', { refresh: '30s' }) },
      findings: [{ message: expect.stringContaining('30s') }],
    },
  ],
});

const inOrder = (fallback: string[], timeout?: string): Title =>
  kelp({
    editions: { android: { identifier: 'example.brine.kelp' } },
    networks: {
      'cobalt-heron': { android: { production: { app: 'CH-A-310772-QK4T8W2N' } } },
      marlstone: { android: { production: { app: 'mrl1-5f2c7e19a04b8d3361c9e7f2' } } },
    },
    placements: {
      page: {
        format: 'interstitial',
        settings: { fallback, ...(timeout === undefined ? {} : { timeout }) },
        units: {
          'cobalt-heron': { android: { production: unit } },
          marlstone: { android: { production: 'mrl-KELP-0000001' } },
        },
      },
    },
  });
const twoNetworks = (failed: string) => ({
  ...kotlin(
    fullScreen(
      'Interstitial',
      'fun onTap() { if (ad?.isReady == true) ad?.show(this) else Marlstone.play("mrl-KELP-0000001") }',
    ).replace('onHeronFailed(code: Int) { next() }', `onHeronFailed(code: Int) { ${failed} }`),
  ),
  'app/src/main/java/example/brine/kelp/KelpApp.java': androidFiles()[
    'app/src/main/java/example/brine/kelp/KelpApp.java'
  ]!.replace('CobaltHeron.start(this);', `CobaltHeron.start(this);\n        ${begin};`),
});
const heronIsEmpty = answering('cobalt-heron', { is: 'no-fill' });
rehearsalCases(fallbackTooLate, {
  clean: [
    {
      name: 'the next network is asked as the first fails',
      files: twoNetworks(prepare),
      title: inOrder(['cobalt-heron', 'marlstone'], '5s'),
      answer: heronIsEmpty,
    },
    {
      name: 'the first network has an ad',
      files: twoNetworks('next()'),
      title: inOrder(['cobalt-heron', 'marlstone'], '5s'),
    },
    {
      name: 'no order on record',
      files: twoNetworks('next()'),
      title: inOrder([]),
      answer: heronIsEmpty,
    },
  ],
  faulty: [
    {
      name: 'the next network is never asked',
      files: twoNetworks('next()'),
      title: inOrder(['cobalt-heron', 'marlstone'], '5s'),
      answer: heronIsEmpty,
      byHand: {
        edits: [[screen, 'onHeronFailed(code: Int) { next() }', `onHeronFailed(code: Int) { ${prepare} }`]],
      },
      findings: [{ message: expect.stringContaining('never asked') }],
    },
  ],
});

const clicking = scenarioNamed('first-session').user;
rehearsalCases(productionClicked, {
  clean: [
    { name: 'nobody clicks', files: interstitial, title: only('interstitial') },
    {
      name: 'a test ad is clicked',
      files: kotlin(fullScreen('Interstitial').replaceAll(unit, 'CH-U-100001-INTERS0A')),
      title: only('interstitial'),
      changes: { user: { ...clicking, ads: 'click' } },
    },
  ],
  faulty: [
    {
      name: 'the production unit in debug',
      files: interstitial,
      title: only('interstitial'),
      changes: { user: { ...clicking, ads: 'click' } },
      byHand: { edits: [[screen, unit, 'CH-U-100001-INTERS0A']] },
      findings: [{ variants: ['debug'] }],
    },
  ],
});

rehearsalCases(keptAfterScreen, {
  clean: [
    { name: 'released with the screen', files: banner, title: only('banner') },
    { name: 'shown and gone', files: interstitial, title: only('interstitial') },
  ],
  faulty: [
    {
      name: 'never released',
      files: kotlin('override fun onCreate(s: Bundle?) { BannerView(this, "CH-U-310772-DDDD3333") }'),
      title: only('banner'),
      byHand: {
        edits: [
          [
            screen,
            'BannerView(this, "CH-U-310772-DDDD3333") }',
            'footer = BannerView(this, "CH-U-310772-DDDD3333") }\nprivate var footer: BannerView? = null\noverride fun onDestroy() { footer?.release() }',
          ],
        ],
      },
      findings: [{ placement: 'page' }],
    },
    {
      name: 'released when it is closed, which it never was',
      files: kotlin(
        fullScreen('Interstitial', 'fun onTap() { }').replace(
          'override fun onDestroy()',
          'override fun onHeronClosed()',
        ),
      ),
      title: only('interstitial'),
      findings: [{}],
    },
  ],
});

const row = (bind: string, more = '') =>
  androidFiles({
    [screen]: `class Rows : Adapter() {\n${bind}\n${more}\n}\n`,
  });
const listed = (settings: Settings) => only('native', settings);
const inBind =
  'override fun onBindViewHolder(h: Holder, at: Int) { HeronNative.load(this, "CH-U-310772-DDDD3333", h) }';
rehearsalCases(listRowReused, {
  clean: [
    {
      name: 'released where the row is recycled',
      files: row(
        inBind,
        'private val held: HeronNative? = null\noverride fun onViewRecycled(h: Holder) { held?.release() }',
      ),
      title: listed({ first: 2, every: 4 }),
    },
    {
      name: 'one ad only',
      files: row(inBind),
      title: listed({ first: 2 }),
    },
  ],
  faulty: [
    {
      name: 'loaded as rows are bound',
      files: row(inBind),
      title: listed({ first: 2, every: 4 }),
      byHand: {
        edits: [
          [
            screen,
            'class Rows : Adapter() {',
            'class Rows : Adapter() {\nprivate val held: HeronNative? = null\noverride fun onViewRecycled(h: Holder) { held?.release() }',
          ],
        ],
      },
      findings: [{ placement: 'page' }],
    },
  ],
});
rehearsalCases(listFirstTooEarly, {
  clean: [
    { name: 'after two items', files: row(inBind), title: listed({ first: 2, every: 4 }) },
    { name: 'after the usual number', files: row(inBind), title: listed({ every: 4 }) },
  ],
  faulty: [
    {
      name: 'before all items',
      files: row(inBind),
      title: listed({ first: 0, every: 4 }),
      byHand: { title: listed({ first: 2, every: 4 }) },
      findings: [{ placement: 'page' }],
    },
  ],
});
const loop =
  'fun onCreate(s: Bundle?) { rows.forEach { HeronNative.load(this, "CH-U-310772-DDDD3333", it) } }';
rehearsalCases(listLoadedAtOnce, {
  clean: [
    { name: 'as rows come', files: row(inBind), title: listed({ first: 2, every: 4 }) },
    { name: 'a loop over one', files: row(loop), title: listed({ first: 2 }) },
  ],
  faulty: [
    {
      name: 'in a loop',
      files: row(loop),
      title: listed({ first: 2, every: 4 }),
      byHand: { edits: [[screen, loop, inBind]] },
      findings: [{ placement: 'page' }],
    },
  ],
});

const two = (second: Settings): Title =>
  kelp({
    editions: { android: { identifier: 'example.brine.kelp' } },
    placements: {
      upper: { ...placement('native', unit, iosUnit), settings: { first: 2, every: 6 } },
      lower: { ...placement('native', 'CH-U-310772-FFFF5555', 'CH-U-310772-GGGG6666'), settings: second },
    },
  });
const twoLists = row(
  `override fun onCreate(s: Bundle?) {\n HeronNative.load(this, "${unit}", this)\n HeronNative.load(this, "CH-U-310772-FFFF5555", this) }`,
);
rehearsalCases(listAdsMeet, {
  clean: [
    { name: 'never at one place', files: twoLists, title: two({ first: 5, every: 6 }) },
    { name: 'one placement', files: row(inBind), title: listed({ first: 2, every: 4 }) },
  ],
  faulty: [
    {
      name: 'after the eighth item',
      files: twoLists,
      title: two({ first: 8, every: 6 }),
      byHand: { title: two({ first: 5, every: 6 }) },
      findings: [{ message: expect.stringContaining('After item 8') }],
    },
  ],
});

const layout = (nav: string, edge = 'bottom') => ({
  ...androidFiles(),
  'app/src/main/res/layout/main.xml': `<FrameLayout xmlns:android="http://schemas.android.com/apk/res/android" xmlns:app="http://schemas.android.com/apk/res-auto">
    <com.google.android.material.bottomnavigation.BottomNavigationView android:layout_gravity="${nav}" />
    <example.cobaltheron.ads.BannerView app:heronUnit="CH-U-310772-DDDD3333" android:layout_gravity="${edge}" />
</FrameLayout>
`,
});
rehearsalCases(bannerDoesNotFit, {
  clean: [
    {
      name: 'a standard banner below',
      files: banner,
      title: only('banner', { size: 'standard', anchor: 'bottom' }),
    },
    { name: 'an adaptive one', files: banner, title: only('banner', { size: 'adaptive', anchor: 'bottom' }) },
    {
      name: 'a large one among the content',
      files: banner,
      title: only('banner', { size: 'medium-rectangle', anchor: 'inline' }),
    },
    { name: 'at the other edge than the navigation', files: layout('bottom', 'top'), title: only('banner') },
  ],
  faulty: [
    {
      name: 'a rectangle that stays in view',
      files: banner,
      title: only('banner', { size: 'medium-rectangle', anchor: 'bottom' }),
      byHand: { title: only('banner', { size: 'adaptive', anchor: 'bottom' }) },
      findings: [{ message: expect.stringContaining('250 of the 740') }],
    },
    {
      name: 'wider than the screen',
      files: banner,
      title: only('banner', { size: 'standard', anchor: 'bottom' }),
      changes: { device: { width: 280, height: 653 } },
      findings: [{ message: expect.stringContaining('320 points wide') }],
    },
    {
      name: 'over the navigation',
      files: layout('bottom'),
      title: only('banner'),
      findings: [{ message: expect.stringContaining('BottomNavigationView') }],
    },
  ],
});
