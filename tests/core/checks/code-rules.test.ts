import { expect } from 'vitest';
import { failureNotHandled } from '../../../src/core/checks/rules/code-failure-not-handled.js';
import { hardCodedId } from '../../../src/core/checks/rules/code-hard-coded-id.js';
import { loadBeforeStart } from '../../../src/core/checks/rules/code-load-before-start.js';
import { neverReleased } from '../../../src/core/checks/rules/code-never-released.js';
import { neverStarted } from '../../../src/core/checks/rules/code-never-started.js';
import { noWayOn } from '../../../src/core/checks/rules/code-no-way-on.js';
import { showOnReturn } from '../../../src/core/checks/rules/code-show-on-return.js';
import { showWithoutCheck } from '../../../src/core/checks/rules/code-show-without-check.js';
import { startedTwice } from '../../../src/core/checks/rules/code-started-twice.js';
import { testDeviceInProduction } from '../../../src/core/checks/rules/code-test-device-in-production.js';
import { unitOfAnotherPlacement } from '../../../src/core/checks/rules/code-unit-of-another-placement.js';
import { wrongFormat } from '../../../src/core/checks/rules/code-wrong-format.js';
import { formatDiffers } from '../../../src/core/checks/rules/platform-format-differs.js';
import { settingDiffers } from '../../../src/core/checks/rules/platform-setting-differs.js';
import { placementOnOneSide } from '../../../src/core/checks/rules/platform-placement-on-one-side.js';
import { appIdInUnitPlace } from '../../../src/core/checks/rules/unit-id-app-id-in-place.js';
import { overriddenByLocale } from '../../../src/core/checks/rules/unit-id-overridden-by-locale.js';
import { unitIdUnknown } from '../../../src/core/checks/rules/unit-id-unknown.js';
import { unitIdWrongPlatform } from '../../../src/core/checks/rules/unit-id-wrong-platform.js';
import { placebookMark } from '../../../src/core/languages/common/placebook.js';
import { ruleCases } from '../../support/rules.js';
import { androidFiles, gradle, iosFiles, kelp, placement } from '../../support/trees.js';
import { plan, text, written } from '../../support/wiring.js';

const screen = 'app/src/main/java/example/brine/kelp/Screen.kt';
const kotlin = (body: string, more: Record<string, string | null> = {}) =>
  androidFiles({ [screen]: `class Screen : Activity() {\n${body}\n}\n`, ...more });
const java = (body: string) =>
  androidFiles({
    'app/src/main/java/example/brine/kelp/Screen.java': `class Screen extends Activity {\n${body}\n}\n`,
  });
const swift = (body: string) =>
  iosFiles({ 'Kelp/App.swift': `class Screen: UIViewController {\n${body}\n}\n` });
const objectiveC = (body: string) => ({
  ...iosFiles({ 'Kelp/App.swift': null }),
  'Kelp.xcodeproj/project.pbxproj': iosFiles()['Kelp.xcodeproj/project.pbxproj']!.replaceAll(
    'App.swift',
    'App.m',
  ),
  'Kelp/App.m': `@implementation Screen\n${body}\n@end\n`,
});
const withMarlstone = kelp({ networks: { 'cobalt-heron': {}, marlstone: {} } });
const footer = placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222');
const page = placement('interstitial', 'CH-U-310772-DDDD3333', 'CH-U-310772-EEEE4444');
const title = kelp({ placements: { footer, page } });

ruleCases(neverStarted, {
  clean: [
    { name: 'started in Java', files: androidFiles() },
    { name: 'started in Swift', files: iosFiles() },
    { name: 'started in Objective-C', files: objectiveC('- (void)launch { [CobaltHeron start]; }') },
    {
      name: 'an SDK that is not in the build',
      files: androidFiles({
        'app/build.gradle.kts': gradle('', ''),
        'app/src/main/java/example/brine/kelp/KelpApp.java': null,
      }),
    },
  ],
  faulty: [
    {
      name: 'nowhere',
      byHand: {
        edits: [
          [
            'app/src/main/java/example/brine/kelp/KelpApp.java',
            '',
            'class KelpApp extends Application { public void onCreate() { CobaltHeron.start(this); } }\n',
          ],
        ],
      },
      files: androidFiles({ 'app/src/main/java/example/brine/kelp/KelpApp.java': null }),
      findings: [{ variants: ['debug', 'release'] }],
    },
    {
      name: 'in a comment only',
      files: iosFiles({ 'Kelp/App.swift': '// CobaltHeron.start()\n' }),
      findings: [{ platform: 'ios' }],
    },
    {
      name: 'in debug builds only',
      files: iosFiles({ 'Kelp/App.swift': 'func launch() {\n#if DEBUG\nCobaltHeron.start()\n#endif\n}\n' }),
      findings: [{ variants: ['Release'] }],
    },
  ],
});

ruleCases(startedTwice, {
  clean: [
    { name: 'once', files: androidFiles() },
    {
      name: 'in either branch of a condition',
      files: kotlin('fun go() { if (quick) { CobaltHeron.start(this) } else { CobaltHeron.start(host) } }', {
        'app/src/main/java/example/brine/kelp/KelpApp.java': null,
      }),
    },
    {
      name: 'in source sets that never meet',
      files: androidFiles({
        'app/src/main/java/example/brine/kelp/KelpApp.java': null,
        'app/src/debug/java/A.kt': 'fun go() { CobaltHeron.start(a) }',
        'app/src/release/java/A.kt': 'fun go() { CobaltHeron.start(b) }',
      }),
    },
  ],
  faulty: [
    {
      name: 'in the application and in a screen',
      byHand: { edits: [[screen, 'CobaltHeron.start(this)', '']] },
      files: kotlin('override fun onCreate() { CobaltHeron.start(this) }'),
      findings: [{ place: expect.objectContaining({ path: screen, line: 2 }) }],
    },
  ],
});

const begin = (body: string) => kotlin(`fun open() {\n Marlstone.begin(this, KEY)\n ${body}\n}`);
ruleCases(loadBeforeStart, {
  clean: [
    {
      name: 'in the callback',
      files: kotlin(
        'fun open() { Marlstone.begin(this, KEY) }\noverride fun onStageOpen() { Marlstone.prepare("x") }',
      ),
      title: withMarlstone,
    },
    {
      name: 'in a callback that is written beside the start',
      files: begin('listen(object : Stage() { override fun onStageOpen() { Marlstone.prepare("x") } })'),
      title: withMarlstone,
    },
    {
      name: 'a network that does not ask for it',
      files: kotlin('fun open() { CobaltHeron.start(this)\n BannerView(this, "x") }'),
    },
  ],
  faulty: [
    {
      name: 'right after it',
      byHand: {
        edits: [
          [screen, ' Marlstone.prepare("x")\n}', '}\noverride fun onStageOpen() { Marlstone.prepare("x") }'],
        ],
      },
      files: begin('Marlstone.prepare("x")'),
      title: withMarlstone,
      findings: [{ network: 'marlstone' }],
    },
  ],
});

const field = 'private var ad: HeronInterstitial? = null\n';
ruleCases(showWithoutCheck, {
  clean: [
    { name: 'asked before', files: kotlin(`${field}fun go() { if (ad?.isReady == true) ad?.show(this) }`) },
    {
      name: 'left early',
      files: java('HeronInterstitial ad; void go() { if (!ad.isReady()) { return; } ad.show(this); }'),
    },
    {
      name: 'in the callback that says so',
      files: kotlin('override fun onHeronLoaded() { HeronInterstitial.show(this) }'),
    },
    {
      name: 'a guard',
      files: swift(
        'var ad: HeronInterstitial?\nfunc go() { guard let ad = ad, ad.isReady else { return }\n ad.show(self) }',
      ),
    },
  ],
  faulty: [
    {
      name: 'in Kotlin',
      byHand: { edits: [[screen, 'ad?.show(this)', 'if (ad?.isReady == true) ad?.show(this)']] },
      files: kotlin(`${field}fun go() { ad?.show(this) }`),
      findings: [{ message: expect.stringContaining('isReady') }],
    },
    { name: 'in Java', files: java('void go() { HeronInterstitial.show(this); }'), findings: [{}] },
    {
      name: 'in Objective-C',
      files: objectiveC('- (void)go { [HeronInterstitial show]; }'),
      findings: [{ platform: 'ios' }],
    },
    {
      name: 'asked for something else',
      files: swift('func go() { if paid { HeronInterstitial.show(self) } }'),
      findings: [{}],
    },
  ],
});

ruleCases(showOnReturn, {
  clean: [
    { name: 'on a tap', files: kotlin(`${field}fun onTap() { if (ad?.isReady == true) ad?.show(this) }`) },
    {
      name: 'guarded by a count',
      files: kotlin(
        `${field}override fun onResume() { if (ad?.isReady == true && returns > 3) ad?.show(this) }`,
      ),
    },
    {
      name: 'guarded by a flag',
      files: swift('func viewDidAppear(_ a: Bool) { if shown { return }\n HeronInterstitial.show(self) }'),
    },
    {
      name: 'a splash, which is made for it',
      files: kotlin('override fun onStart() { HeronSplash.show(this) }'),
    },
  ],
  faulty: [
    {
      name: 'with nothing',
      byHand: {
        edits: [[screen, 'HeronInterstitial.show(this)', 'if (returns > 3) HeronInterstitial.show(this)']],
      },
      files: kotlin('override fun onResume() { HeronInterstitial.show(this) }'),
      findings: [{ message: expect.stringContaining('onResume') }],
    },
    {
      name: 'asking only whether it is loaded',
      files: kotlin(`${field}override fun onResume() { if (ad?.isReady == true) ad?.show(this) }`),
      findings: [{}],
    },
    {
      name: 'in Swift',
      files: swift('override func viewDidAppear(_ animated: Bool) { HeronRewarded.show(self) }'),
      findings: [{ platform: 'ios' }],
    },
  ],
});

const answered = (closed: string, failed: string) =>
  kotlin(
    `fun go() { HeronInterstitial.show(this) }\noverride fun onHeronClosed() { ${closed} }\noverride fun onHeronFailed(e: Int) { ${failed} }`,
  );
ruleCases(noWayOn, {
  clean: [
    { name: 'on close', files: answered('next()', '') },
    { name: 'on failure', files: answered('', 'next()') },
    { name: 'a banner, which takes no screen', files: kotlin('fun go() { BannerView(this, "x") }') },
    {
      name: 'in another file',
      files: kotlin('fun go() { HeronInterstitial.show(this) }', {
        'app/src/main/java/L.kt': 'class L { override fun onHeronClosed() { next() } }',
      }),
    },
  ],
  faulty: [
    {
      name: 'both do nothing',
      byHand: { edits: [[screen, '{ // later }', '{ next() }']] },
      files: answered('', '// later'),
      findings: [{}],
    },
    { name: 'neither is there', files: kotlin('fun go() { HeronInterstitial.show(this) }'), findings: [{}] },
  ],
});

ruleCases(failureNotHandled, {
  clean: [
    {
      name: 'answered',
      files: kotlin('fun go() { BannerView(this, "x") }\noverride fun onHeronFailed(e: Int) { hide() }'),
    },
  ],
  faulty: [
    {
      name: 'not at all',
      byHand: {
        edits: [
          [
            screen,
            'BannerView(this, "x") }',
            'BannerView(this, "x") }\noverride fun onHeronFailed(e: Int) { hide() }',
          ],
        ],
      },
      files: kotlin('fun go() { BannerView(this, "x") }'),
      findings: [{ message: expect.stringContaining('nothing implements') }],
    },
    {
      name: 'with nothing',
      files: kotlin(
        'fun go() { BannerView(this, "x") }\noverride fun onHeronFailed(e: Int) { super.onHeronFailed(e) }',
      ),
      findings: [{ message: expect.stringContaining('does nothing') }],
    },
  ],
});

ruleCases(neverReleased, {
  clean: [
    {
      name: 'through the variable',
      files: kotlin('private val banner = BannerView(this, "x")\nfun end() { banner.release() }'),
    },
    {
      name: 'in another class',
      files: kotlin('fun go() { BannerView(this, "x") }', {
        'app/src/main/java/E.kt': 'fun end(b: BannerView) { b.release() }',
      }),
    },
  ],
  faulty: [
    {
      name: 'nowhere',
      byHand: {
        edits: [
          [
            screen,
            'BannerView(this, "x")',
            'BannerView(this, "x")\noverride fun onDestroy() { banner.release() }',
          ],
        ],
      },
      files: kotlin('private val banner = BannerView(this, "x")'),
      findings: [{ severity: 'warning' }],
    },
  ],
});

ruleCases(testDeviceInProduction, {
  clean: [
    {
      name: 'under BuildConfig.DEBUG',
      files: kotlin('fun go() { if (BuildConfig.DEBUG) { CobaltHeron.testDevices = listOf("a") } }'),
    },
    {
      name: 'after leaving production builds',
      files: java('void go() { if (!BuildConfig.DEBUG) { return; } CobaltHeron.testDevices(d); }'),
    },
    {
      name: 'under #if DEBUG',
      files: swift('func go() {\n#if DEBUG\nCobaltHeron.testDevices = ["a"]\n#endif\n}'),
    },
    {
      name: 'in the debug source set',
      files: androidFiles({ 'app/src/debug/java/D.kt': 'fun d() { CobaltHeron.testDevices = x }' }),
    },
  ],
  faulty: [
    {
      name: 'everywhere',
      byHand: {
        edits: [
          [
            screen,
            'CobaltHeron.testDevices = listOf("a")',
            'if (BuildConfig.DEBUG) { CobaltHeron.testDevices = listOf("a") }',
          ],
        ],
      },
      files: kotlin('fun go() { CobaltHeron.testDevices = listOf("a") }'),
      findings: [{ variants: ['release'] }],
    },
    {
      name: 'the condition turned round',
      files: kotlin('fun go() { if (!BuildConfig.DEBUG) { CobaltHeron.testDevices = x } }'),
      findings: [{ variants: ['release'] }],
    },
    {
      name: 'in Objective-C',
      files: objectiveC('- (void)go { CobaltHeron.testDevices = @[@"a"]; }'),
      findings: [{ variants: ['Release'] }],
    },
  ],
});

ruleCases(hardCodedId, {
  clean: [
    {
      name: 'in the placebook',
      files: androidFiles({ [screen]: `${placebookMark}\nval a = "CH-U-310772-BBBB1111"` }),
      title,
    },
    { name: 'an ID that the roster does not know', files: kotlin('val a = "CH-U-310772-ZZZZ9999"'), title },
    { name: 'in a comment', files: kotlin('// "CH-U-310772-BBBB1111"'), title },
  ],
  faulty: [
    {
      name: 'a literal',
      files: kotlin('val a = "CH-U-310772-BBBB1111"'),
      title,
      findings: [{ placement: 'footer' }],
    },
  ],
});

ruleCases(wrongFormat, {
  clean: [
    { name: 'its own format', files: kotlin('fun go() { BannerView(this, "CH-U-310772-BBBB1111") }'), title },
    {
      name: 'through the placebook',
      files: kotlin('fun go() { BannerView(this, Placebook.footer.unit) }'),
      title,
    },
    {
      name: 'a unit that nobody knows',
      files: kotlin('fun go() { BannerView(this, "CH-U-310772-ZZZZ9999") }'),
      title,
    },
    {
      name: 'a call that serves both formats',
      files: kotlin('fun go() { Marlstone.prepare("mrl-TEST-0000021") }'),
      title: withMarlstone,
    },
  ],
  faulty: [
    {
      name: 'a literal',
      files: kotlin('fun go() { BannerView(this, "CH-U-310772-DDDD3333") }'),
      title,
      findings: [{ message: expect.stringContaining('interstitial') }],
    },
    {
      name: 'a constant of another class',
      files: kotlin('fun go() { BannerView(this, Units.PAGE) }', {
        'app/src/main/java/Units.kt': 'object Units { const val PAGE = "CH-U-310772-DDDD3333" }',
      }),
      title,
      findings: [{}],
    },
    {
      name: 'a resource',
      files: kotlin('fun go() { BannerView(this, getString(R.string.page)) }', {
        'app/src/main/res/values/u.xml':
          '<resources><string name="page">CH-U-310772-DDDD3333</string></resources>',
      }),
      title,
      findings: [{}],
    },
    {
      name: 'a placement by name',
      files: swift('func go() { let b = BannerView(unit: Placebook.page.unit) }'),
      title,
      findings: [{ platform: 'ios' }],
    },
    {
      name: 'a sample',
      files: objectiveC('- (void)go { [HeronBanner loadWithUnitID:@"CH-U-100001-INTERS0I" delegate:self]; }'),
      title,
      findings: [{}],
    },
  ],
});

ruleCases(placementOnOneSide, {
  clean: [
    {
      name: 'on both',
      files: { ...kotlin('val a = Placebook.footer'), ...swift('let a = Placebook.footer') },
      title: kelp({ placements: { footer } }),
    },
    { name: 'one platform alone', files: kotlin('val a = Placebook.footer'), title },
    {
      name: 'a placement that has units on one only',
      files: { ...kotlin('val a = Placebook.footer'), ...iosFiles() },
      title: kelp({
        placements: {
          footer: {
            ...footer,
            units: { 'cobalt-heron': { android: footer.units['cobalt-heron']!.android } },
          },
        },
      }),
    },
  ],
  faulty: [
    {
      name: 'on Android only',
      byHand: {
        edits: [
          ['Kelp/App.swift', 'CobaltHeron.start()', 'CobaltHeron.start()\n    let a = Placebook.footer'],
        ],
      },
      files: { ...kotlin('val a = Placebook.footer'), ...iosFiles() },
      title,
      findings: [{ placement: 'footer' }],
    },
  ],
});

ruleCases(formatDiffers, {
  clean: [
    {
      name: 'the same',
      files: {
        ...kotlin('val a = BannerView(this, Placebook.footer.unit)'),
        ...swift('let a = BannerView(unit: Placebook.footer.unit)'),
      },
      title,
    },
  ],
  faulty: [
    {
      name: 'a banner here, a page there',
      byHand: {
        edits: [
          [
            'Kelp/App.swift',
            'HeronInterstitial.load(unitID: Placebook.footer.unit, delegate: self)',
            'let b = BannerView(unit: Placebook.footer.unit)',
          ],
        ],
      },
      files: {
        ...kotlin('val a = BannerView(this, Placebook.footer.unit)'),
        ...swift('func go() { HeronInterstitial.load(unitID: Placebook.footer.unit, delegate: self) }'),
      },
      title,
      findings: [{ placement: 'footer' }],
    },
  ],
});

const view = (attributes: string) =>
  androidFiles({
    'app/src/main/res/layout/main.xml': `<FrameLayout xmlns:android="http://schemas.android.com/apk/res/android" xmlns:app="http://schemas.android.com/apk/res-auto"><example.cobaltheron.ads.BannerView app:heronUnit="CH-U-310772-BBBB1111" ${attributes} /></FrameLayout>`,
  });
const sized = kelp({
  placements: { footer: { ...footer, settings: { size: 'standard', anchor: 'bottom' } } },
});
/** A title with settings, and both trees with placebooks as wiring writes them. */
const settled = kelp({
  placements: {
    footer: { ...footer, settings: { refresh: '60s', anchor: 'bottom', content: ['text', 'image'] } },
    page: { ...page, settings: { cap: { count: 2, per: '1h' }, skippable: true } },
  },
});
const placebooks = (changed: (text: string) => string = (text) => text) => {
  const files = { ...androidFiles(), ...iosFiles() };
  const after = written(files, plan(files, settled));
  return Object.fromEntries(
    Object.entries(after).map(([path, content]) => [
      path,
      /Placebook\./.test(path) ? changed(text(content)) : text(content),
    ]),
  );
};

ruleCases(settingDiffers, {
  clean: [
    {
      name: 'as the roster has it',
      files: view('app:heronSize="standard" android:layout_gravity="bottom"'),
      title: sized,
    },
    { name: 'nothing said of either', files: view(''), title: sized },
    { name: 'placebooks as they were written', files: placebooks(), title: settled },
    {
      name: 'a unit that nobody knows',
      files: view('app:heronSize="large"'),
      title: kelp(),
    },
  ],
  faulty: [
    {
      name: 'another size',
      files: view('app:heronSize="large"'),
      title: sized,
      findings: [{ placement: 'footer', message: expect.stringContaining('large') }],
    },
    {
      name: 'a placebook of one platform that says something else',
      files: placebooks((book) => book.replace(/^( +refreshSeconds: )60/gm, '$130')),
      title: settled,
      findings: [
        {
          placement: 'footer',
          platform: 'ios',
          variants: ['Debug'],
          message: expect.stringContaining(
            'refreshSeconds 60, anchor bottom, content text and image in the roster',
          ),
        },
        { placement: 'footer', platform: 'ios', variants: ['Release'] },
      ],
    },
    {
      name: 'the other edge',
      files: view('android:layout_gravity="top"'),
      title: sized,
      findings: [{ message: expect.stringContaining('top edge') }],
    },
  ],
});

ruleCases(unitIdUnknown, {
  clean: [
    { name: 'in the roster', files: kotlin('val a = "CH-U-310772-BBBB1111"'), title },
    { name: 'a sample', files: kotlin('val a = "CH-U-100001-BANNER0A"'), title },
    { name: 'of a network that is not enrolled', files: kotlin('val a = "qs.12345.abcdefghij"'), title },
  ],
  faulty: [
    {
      name: 'in code',
      byHand: { edits: [[screen, 'ZZZZ9999', 'BBBB1111']] },
      files: kotlin('val a = "CH-U-310772-ZZZZ9999"'),
      title,
      findings: [{ network: 'cobalt-heron' }],
    },
    {
      name: 'in a constant of the build',
      files: androidFiles({
        'app/build.gradle.kts': gradle(
          'buildTypes { getByName("debug") { buildConfigField("String", "U", "\\"CH-U-310772-ZZZZ9999\\"") } }',
        ),
      }),
      title,
      findings: [{ variants: ['debug'] }],
    },
  ],
});

ruleCases(unitIdWrongPlatform, {
  clean: [
    { name: 'this platform’s', files: kotlin('val a = "CH-U-310772-BBBB1111"'), title },
    {
      name: 'one ID for both',
      files: kotlin('val a = "CH-U-310772-BBBB1111"'),
      title: kelp({
        placements: { footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-BBBB1111') },
      }),
    },
  ],
  faulty: [
    {
      name: 'the other’s in code',
      byHand: { edits: [[screen, 'CCCC2222', 'BBBB1111']] },
      files: kotlin('val a = "CH-U-310772-CCCC2222"'),
      title,
      findings: [{ placement: 'footer' }],
    },
    {
      name: 'the other’s in a resource',
      files: androidFiles({
        'app/src/main/res/values/u.xml':
          '<resources><string name="u">CH-U-310772-CCCC2222</string></resources>',
      }),
      title,
      findings: [{}],
    },
  ],
});

ruleCases(appIdInUnitPlace, {
  clean: [{ name: 'a unit ID', files: kotlin('fun go() { BannerView(this, "CH-U-310772-BBBB1111") }') }],
  faulty: [
    {
      name: 'an app ID',
      byHand: { edits: [[screen, 'CH-A-310772-QK4T8W2N', 'CH-U-310772-BBBB1111']] },
      files: kotlin('fun go() { BannerView(this, "CH-A-310772-QK4T8W2N") }'),
      findings: [{ message: expect.stringContaining('CH-A-310772-QK4T8W2N') }],
    },
  ],
});

const translated = (value: string) =>
  androidFiles({
    'app/src/main/res/values-de/ids.xml': `<resources><string name="heron">${value}</string></resources>`,
  });
ruleCases(overriddenByLocale, {
  clean: [
    {
      name: 'a string of its own',
      files: androidFiles({
        'app/src/main/res/values-de/ids.xml': '<resources><string name="title">Tang</string></resources>',
      }),
    },
  ],
  faulty: [
    {
      name: 'another ID',
      byHand: { removes: ['app/src/main/res/values-de/ids.xml'] },
      files: translated('CH-A-310772-ZZZZ9999'),
      findings: [{ variants: ['debug', 'release'] }],
    },
  ],
});

const swapped = kelp({
  placements: {
    footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'),
    'level-end': placement('banner', 'CH-U-310772-DDDD3333', 'CH-U-310772-EEEE4444'),
    'level-gift': placement('rewarded', 'CH-U-310772-FFFF5555', 'CH-U-310772-GGGG6666'),
  },
});
const inKotlin = (code: string) => androidFiles({ [screen]: code });
ruleCases(unitOfAnotherPlacement, {
  clean: [
    {
      name: 'each in a constant of its name',
      files: inKotlin(
        'const val LEVEL_END_UNIT_ID = "CH-U-310772-DDDD3333"\nval footerBanner = "CH-U-310772-BBBB1111"\n',
      ),
      title: swapped,
    },
    {
      name: 'a name that says nothing, more, or of another format',
      files: inKotlin(
        'val UNIT = "CH-U-310772-BBBB1111"\nval levelEndOrStart = "CH-U-310772-BBBB1111"\nval levelGift = "CH-U-310772-BBBB1111"\n',
      ),
      title: swapped,
    },
    {
      name: 'a class that has the unit of its own name as well',
      files: inKotlin(
        'class LevelEndScreen {\n    fun open() {\n        show("CH-U-310772-DDDD3333")\n        show("CH-U-310772-BBBB1111")\n    }\n}\n',
      ),
      title: swapped,
    },
  ],
  faulty: [
    {
      name: 'a constant named after another',
      byHand: { edits: [[screen, 'BBBB1111', 'DDDD3333']] },
      files: inKotlin('object Ids {\n    const val LEVEL_END = "CH-U-310772-BBBB1111"\n}\n'),
      title: swapped,
      findings: [
        {
          message: 'LEVEL_END holds CH-U-310772-BBBB1111 of Cobalt Heron, which is footer, not level-end.',
          placement: 'footer',
        },
      ],
    },
    {
      name: 'two that are exchanged',
      files: iosFiles({
        'Kelp/App.swift': 'let levelEnd = "CH-U-310772-CCCC2222"\nlet footer = "CH-U-310772-EEEE4444"\n',
      }),
      title: swapped,
      findings: [{ placement: 'footer' }, { placement: 'level-end' }],
    },
    {
      name: 'a class named after another',
      files: inKotlin(
        'class LevelEndScreen {\n    fun open() {\n        show("CH-U-310772-BBBB1111")\n    }\n}\n',
      ),
      title: swapped,
      findings: [{ placement: 'footer' }],
    },
  ],
});
