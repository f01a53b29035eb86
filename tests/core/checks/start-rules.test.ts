import { expect } from 'vitest';
import { appIdDiffersFromRoster } from '../../../src/core/checks/rules/app-id-differs-from-roster.js';
import { hardCodedId } from '../../../src/core/checks/rules/code-hard-coded-id.js';
import { startAfterLoad } from '../../../src/core/checks/rules/code-start-after-load.js';
import { startInUnusedClass } from '../../../src/core/checks/rules/code-start-in-unused-class.js';
import { ruleCases } from '../../support/rules.js';
import { androidFiles, appIdMetaData, iosFiles, kelp, manifest } from '../../support/trees.js';

const home = 'app/src/main/java/example/brine/kelp';
const screen = (body: string) =>
  androidFiles({
    [`${home}/KelpApp.java`]: null,
    [`${home}/Screen.kt`]: `class Screen : Activity() {\n${body}\n}\n`,
  });
const swift = (body: string) =>
  iosFiles({ 'Kelp/App.swift': `class Screen: UIViewController {\n${body}\n}\n` });
const load = 'HeronInterstitial.load(this, "CH-U-310772-DDDD3333")';
const start = 'CobaltHeron.start(this)';

ruleCases(startAfterLoad, {
  clean: [
    { name: 'above it', files: screen(`fun go() {\n${start}\n${load}\n}`) },
    {
      name: 'in an earlier method',
      files: screen(`override fun onCreate() { ${start} }\noverride fun onResume() { ${load} }`),
    },
    {
      name: 'in another class',
      files: {
        ...screen(`fun go() {\n${load}\n}`),
        [`${home}/KelpApp.kt`]: `class KelpApp : Application() { override fun onCreate() { ${start} } }`,
      },
    },
    {
      name: 'in methods whose order nobody knows',
      files: screen(`fun one() { ${load} }\nfun two() { ${start} }`),
    },
    { name: 'again, below a first one', files: screen(`fun go() {\n${start}\n${load}\n${start}\n}`) },
  ],
  faulty: [
    {
      name: 'below it',
      byHand: { edits: [[`${home}/Screen.kt`, `${load}\n${start}`, `${start}\n${load}`]] },
      files: screen(`fun go() {\n${load}\n${start}\n}`),
      findings: [
        { place: expect.objectContaining({ line: 3 }), message: expect.stringContaining('in line 4') },
      ],
    },
    {
      name: 'in a later method',
      files: screen(`override fun onResume() { ${start} }\noverride fun onCreate() { ${load} }`),
      findings: [{ message: expect.stringContaining('onResume') }],
    },
    {
      name: 'in a later method of iOS',
      files: swift(
        'override func viewDidLoad() { HeronInterstitial.load("CH-U-310772-DDDD3333") }\noverride func viewDidAppear() { CobaltHeron.start() }',
      ),
      findings: [{ platform: 'ios' }],
    },
  ],
});

const named = (attribute: string) =>
  manifest(appIdMetaData('@string/heron')).replace('<application', `<application${attribute}`);
const main = 'app/src/main/AndroidManifest.xml';
const app = (text: string) => ({ [`${home}/KelpApp.java`]: text });
const delegate = (head: string, rest = '') =>
  iosFiles({
    'Kelp/App.swift': `import UIKit\n\n${head}class KelpDelegate: NSObject, UIApplicationDelegate {\n    func application(_ a: UIApplication) -> Bool {\n        CobaltHeron.start()\n        return true\n    }\n}\n${rest}`,
  });
const swiftUi = (inside: string) =>
  `\n@main\nstruct KelpApp: App {\n    ${inside}\n    var body: some Scene { WindowGroup { Text("x") } }\n}\n`;

ruleCases(startInUnusedClass, {
  clean: [
    { name: 'a delegate that is the entry point', files: delegate('@main\n') },
    {
      name: 'an adaptor of SwiftUI',
      files: delegate('', swiftUi('@UIApplicationDelegateAdaptor(KelpDelegate.self) var delegate')),
    },
    {
      name: 'an adaptor by its type',
      files: delegate('', swiftUi('@UIApplicationDelegateAdaptor private var delegate: KelpDelegate')),
    },
    { name: 'named', files: androidFiles() },
    {
      name: 'named in full',
      files: androidFiles({ [main]: named(' android:name="example.brine.kelp.KelpApp"') }),
    },
    {
      name: 'a class that is named extends it',
      files: androidFiles({
        [main]: named(' android:name=".ReleaseApp"'),
        [`${home}/ReleaseApp.kt`]: 'class ReleaseApp : KelpApp() {\n}\n',
      }),
    },
    {
      name: 'no application class',
      files: androidFiles({
        [main]: named(''),
        ...app('class KelpApp { void go() { CobaltHeron.start(this); } }'),
      }),
    },
    {
      name: 'started elsewhere too',
      files: androidFiles({
        [main]: named(''),
        [`${home}/Screen.kt`]: `class Screen : Activity() {\nfun go() { ${start} }\n}\n`,
      }),
    },
  ],
  faulty: [
    {
      name: 'a delegate that SwiftUI is not given',
      files: delegate('', swiftUi('')),
      findings: [
        { place: expect.objectContaining({ line: 3 }), mend: expect.stringContaining('KelpDelegate.self') },
      ],
    },
    {
      name: 'a delegate beside another one',
      files: delegate('', '\n@main\nclass MainDelegate: UIResponder, UIApplicationDelegate {\n}\n'),
      findings: [{ message: expect.stringContaining('MainDelegate') }],
    },
    {
      name: 'nothing is named',
      byHand: { edits: [[main, '<application', '<application android:name=".KelpApp"']] },
      files: androidFiles({ [main]: named('') }),
      findings: [
        {
          variants: ['debug', 'release'],
          place: expect.objectContaining({ path: main }),
          mend: expect.stringContaining('android:name=".KelpApp"'),
        },
      ],
    },
    {
      name: 'another class is named',
      files: androidFiles({ [main]: named(' android:name=".OtherApp"') }),
      findings: [{ message: expect.stringContaining('OtherApp') }],
    },
    {
      name: 'a class of its own that extends another of its own',
      files: androidFiles({
        [main]: named(''),
        [`${home}/Base.kt`]: 'open class Base : MultiDexApplication() {}\n',
        ...app('class KelpApp extends Base { public void onCreate() { CobaltHeron.start(this); } }'),
      }),
      findings: [{ network: 'cobalt-heron' }],
    },
  ],
});

const keys = kelp({
  networks: {
    marlstone: {
      android: { production: { app: 'mrl1-0123456789abcdef01234567' } },
      ios: { production: { app: 'mrl1-0123456789abcdef01234568' } },
    },
  },
});
const begins = (key: string) => screen(`fun go() {\nMarlstone.begin(this, ${key})\n}`);
ruleCases(hardCodedId, {
  clean: [{ name: 'from the placebook', files: begins('Placebook.MARLSTONE_APP'), title: keys }],
  faulty: [
    {
      name: 'an app key',
      files: begins('"mrl1-0123456789abcdef01234567"'),
      title: keys,
      findings: [{ network: 'marlstone', place: expect.objectContaining({ line: 3 }) }],
    },
  ],
});
ruleCases(appIdDiffersFromRoster, {
  clean: [{ name: 'the key of the platform', files: begins('"mrl1-0123456789abcdef01234567"'), title: keys }],
  faulty: [
    {
      name: 'the key of the other platform',
      files: begins('"mrl1-0123456789abcdef01234568"'),
      title: keys,
      findings: [
        { message: expect.stringContaining('on iOS') },
        { message: expect.stringContaining('on iOS') },
      ],
    },
    {
      name: 'a key of nobody',
      files: begins('"mrl1-ffffffffffffffffffffffff"'),
      title: keys,
      findings: [{ variants: ['debug'] }, { variants: ['release'] }],
    },
  ],
});
