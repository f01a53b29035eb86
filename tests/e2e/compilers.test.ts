import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { transformSync, type PluginItem } from '@babel/core';
import metro from 'metro-transform-plugins';
import { describe, expect, it } from 'vitest';
import { csharpPlacebook } from '../../src/core/languages/csharp/placebook.js';
import { dartPlacebook } from '../../src/core/languages/dart/placebook.js';
import { javaPlacebook } from '../../src/core/languages/java/placebook.js';
import { kotlinPlacebook } from '../../src/core/languages/kotlin/placebook.js';
import { objectiveCHeader, objectiveCSource } from '../../src/core/languages/objective-c/placebook.js';
import { readRoster } from '../../src/core/roster/document.js';
import { isSameGeneratedText } from '../../src/core/languages/common/placebook.js';
import { readPlacebook, settingsInWords } from '../../src/core/placebook/read.js';
import { swiftPlacebook } from '../../src/core/languages/swift/placebook.js';
import { typescriptPlacebook } from '../../src/core/languages/typescript/placebook.js';
import { sdkTypes, unityTypes } from '../support/csharp-stubs.js';
import { brackwater, onBrackwater } from '../support/brackwater.js';
import { book, options, packageName, title } from '../support/kelp.js';
import { compiling } from '../support/compilers.js';
import { androidFiles, appIdMetaData, filesBelow, gradle, manifest, root, syntax } from '../support/trees.js';
import { assetPath, packageManifest, stepsPath, unityFiles } from '../support/unity.js';
import { asked, handedOut, plan, text, titleOn, written } from '../support/wiring.js';

const { constantFoldingPlugin, inlinePlugin } = metro;

// Real compilers as judges: what is generated compiles, and says at run time what the roster says.

const { at, run, put } = compiling();

/** What each stage's code prints: units, settings, and devices for testing. */
const expected = {
  test: 'test CH-U-100001-BANNER0A 60 bottom text,image 3 false [MARLSTONE, COBALT_HERON] 2 pixel-on-my-desk,a"b$c\\d 4',
  production: 'production CH-U-310772-AAAA1111 60 bottom text,image 3 false [MARLSTONE, COBALT_HERON] 2  4',
};

const shared = Object.fromEntries(
  (['android', 'ios'] as const).map((platform) => [
    platform,
    { test: book(platform, 'test'), production: book(platform, 'production') },
  ]),
);
/** As the framework declares them. */
const platformTypes = `declare const __DEV__: boolean;
declare module 'react-native' {
  type PlatformName = 'ios' | 'android' | 'macos' | 'windows' | 'web';
  export const Platform: {
    OS: PlatformName;
    select<T>(specifics: { [platform in PlatformName | 'native' | 'default']?: T }): T | undefined;
  };
}
`;

/** What the bundler’s own plugins make of a source, as for a release: names of the build put in, dead branches gone. */
function bundle(source: string, platform: string, dev: boolean): string {
  const inline = { dev, platform, inlinePlatform: true, isWrapped: false, requireName: 'require' };
  const presets = ['@babel/preset-typescript'];
  const plugins = [
    [inlinePlugin, inline],
    [constantFoldingPlugin, {}],
  ] satisfies PluginItem[];
  const made = transformSync(source, {
    filename: 'placebook.ts',
    cwd: root,
    configFile: false,
    presets,
    plugins,
  });
  return made?.code ?? '';
}

describe.each(['test', 'production'] as const)('a placebook for %s', (stage) => {
  it('in Java compiles, and says what the roster says', () => {
    put({
      'Placebook.java': javaPlacebook(book('android', stage), { ...options, packageName, stage }),
      'Main.java': `import ${packageName}.Placebook;
public class Main {
    public static void main(String[] args) {
        Placebook.Placement footer = Placebook.TIDE_LIST_FOOTER;
        Placebook.Placement gift = Placebook.DEFAULT_PLACEMENT;
        System.out.println(Placebook.STAGE + " " + footer.unit(Placebook.Network.COBALT_HERON) + " " + footer.refreshSeconds
            + " " + footer.anchor + " " + String.join(",", footer.content) + " " + gift.rewardAmount + " " + gift.skippable
            + " " + gift.fallback + " " + Placebook.CLASS_PLACEMENT.first + " "
            + String.join(",", Placebook.testDevices(Placebook.Network.COBALT_HERON)) + " " + Placebook.ALL.size());
    }
}
`,
    });
    run('javac', ['-Xlint:all', '-Werror', '-d', 'out', 'Placebook.java', 'Main.java']);
    expect(run('java', ['-cp', 'out', 'Main']).trim()).toBe(expected[stage]);
  });

  it('in Kotlin compiles, and says what the roster says', () => {
    put({
      'Placebook.kt': kotlinPlacebook(book('android', stage), { ...options, packageName, stage }),
      'Main.kt': `import ${packageName}.Placebook
fun main() {
    val footer = Placebook.tideListFooter
    val gift = Placebook.defaultPlacement
    println("\${Placebook.STAGE} \${footer.unit(Placebook.Network.COBALT_HERON)} \${footer.refreshSeconds} \${footer.anchor} \${footer.content.joinToString(",")} \${gift.rewardAmount} \${gift.skippable} \${gift.fallback} \${Placebook.classPlacement.first} \${(Placebook.testDevices[Placebook.Network.COBALT_HERON] ?: emptyList()).joinToString(",")} \${Placebook.all.size}")
}
`,
    });
    run('kotlinc', ['Placebook.kt', 'Main.kt', '-d', 'out']);
    const stdlib = '/usr/share/java/kotlin-stdlib.jar';
    expect(run('java', ['-cp', `out:${stdlib}`, 'MainKt']).trim()).toBe(expected[stage]);
  }, 120_000);

  it('in TypeScript compiles under every strictness, and says what the roster says', () => {
    for (const platform of ['android', 'ios'] as const) {
      put({
        'src/placebook.ts': typescriptPlacebook(shared, { ...options, testCondition: '__DEV__' }),
        'src/react-native.d.ts': platformTypes,
        'src/main.ts': `import { Placebook, PlacebookApps, PlacebookNetwork } from './placebook';
const footer = Placebook.tideListFooter;
const gift = Placebook.defaultPlacement;
const app: string = PlacebookApps.marlstone;
export const said = [Placebook.stage, footer.unit(PlacebookNetwork.cobaltHeron), footer.refreshSeconds, footer.anchor,
  footer.content?.join(','), gift.rewardAmount, gift.skippable, gift.fallback?.join(', '), Placebook.classPlacement.first,
  Placebook.testDevices[PlacebookNetwork.cobaltHeron]?.join(','), Placebook.all.length].join(' ') + ' ' + app;
`,
        'out/node_modules/react-native/index.js': `exports.Platform = { OS: '${platform}', select: all => all['${platform}'] };\n`,
      });
      const strict = ['strict', 'noUncheckedIndexedAccess', 'exactOptionalPropertyTypes', 'isolatedModules'];
      const more = ['noUnusedLocals', 'noUnusedParameters', 'noImplicitReturns', 'verbatimModuleSyntax'];
      const flags = [...strict, ...more.slice(0, 3)].map((name) => `--${name}`);
      const tsc = join(root, 'node_modules', 'typescript', 'bin', 'tsc');
      const files = ['src/react-native.d.ts', 'src/main.ts'];
      run(process.execPath, [
        tsc,
        ...flags,
        '--target',
        'es2022',
        '--module',
        'commonjs',
        '--outDir',
        'out',
        ...files,
      ]);
      const script = `globalThis.__DEV__ = ${stage === 'test'}; console.log(require('./out/main.js').said)`;
      const said = run(process.execPath, ['-e', script]).trim();
      const own = book(platform, stage);
      const device = own.devices['cobalt-heron']?.join(',') ?? '';
      const wanted = expected[stage]
        .replace('MARLSTONE, COBALT_HERON', 'marlstone, cobalt-heron')
        .replace(/[[\]]/g, '')
        .replace(/CH-U-\S+/, own.placements[0]?.units['cobalt-heron'] ?? '')
        .replace(/ \S* 4$/, ` ${device} 4`);
      expect(said).toBe(`${wanted} ${own.apps.marlstone ?? ''}`);
    }
  }, 120_000);

  it('in TypeScript leaves a release with the IDs of its own platform and stage alone', () => {
    const source = typescriptPlacebook(shared, { ...options, testCondition: '__DEV__' });
    for (const platform of ['android', 'ios'] as const) {
      const bundled = bundle(source, platform, stage === 'test');
      const ids = (text: string) =>
        new Set(text.match(/CH-U-\d{6}-\w{8}|mrl-\w{4}-\d{7}|mrl1-\w{24}/g) ?? []);
      const { placements, apps, devices } = book(platform, stage);
      if (stage === 'production') expect(ids(bundled)).toEqual(ids(JSON.stringify({ placements, apps })));
      // While developing, bundles keep both stages, and their own platform alone.
      for (const id of ids(JSON.stringify(book(platform === 'ios' ? 'android' : 'ios', stage))))
        expect(bundled).not.toContain(id);
      for (const device of ['pixel-on-my-desk', 'phone-1'])
        expect(bundled.includes(device)).toBe(Object.values(devices).flat().includes(device));
    }
  });

  it.each([
    ['UNITY_ANDROID', 'UNITY_IOS', 'DEVELOPMENT_BUILD || UNITY_EDITOR', 'DEVELOPMENT_BUILD', undefined],
    ['ANDROID', 'IOS', 'DEBUG', 'DEBUG', 'Brine.Kelp'],
  ])(
    'in C# for %s compiles, and says what the roster says',
    (android, ios, testCondition, testSymbol, namespace) => {
      const symbols = { android, ios };
      put({
        'Placebook.cs': csharpPlacebook(shared, { ...options, testCondition, symbols, namespace }),
        'Main.cs': `${namespace === undefined ? '' : `using ${namespace};`}
public static class Program
{
    public static void Main()
    {
        var footer = Placebook.TideListFooter;
        var gift = Placebook.DefaultPlacement;
        string[] devices;
        Placebook.TestDevices.TryGetValue(PlacebookNetwork.CobaltHeron, out devices);
        System.Console.WriteLine(Placebook.Stage + " " + footer.Unit(PlacebookNetwork.CobaltHeron) + " " + footer.RefreshSeconds
            + " " + footer.Anchor + " " + string.Join(",", footer.Content) + " " + gift.RewardAmount + " " + gift.Skippable.ToString().ToLower()
            + " " + string.Join(", ", gift.Fallback) + " " + Placebook.ClassPlacement.First
            + " " + string.Join(",", devices ?? new string[0]) + " " + Placebook.All.Length + " " + PlacebookApps.Marlstone);
    }
}
`,
      });
      for (const platform of ['android', 'ios'] as const) {
        const defined = [symbols[platform], ...(stage === 'test' ? [testSymbol] : [])];
        run('mcs', [
          '-warnaserror',
          '-warn:4',
          `-define:${defined.join(';')}`,
          '-out:book.exe',
          'Placebook.cs',
          'Main.cs',
        ]);
        const own = book(platform, stage);
        const wanted = expected[stage]
          .replace('[MARLSTONE, COBALT_HERON]', 'Marlstone, CobaltHeron')
          .replace(/CH-U-\S+/, own.placements[0]?.units['cobalt-heron'] ?? '')
          .replace(/ \S* 4$/, ` ${own.devices['cobalt-heron']?.join(',') ?? ''} 4`);
        expect(run('mono', ['book.exe']).trim()).toBe(`${wanted} ${own.apps.marlstone ?? ''}`);
      }
      // Elsewhere, such as in an editor that builds for a desk, there are no IDs, and it compiles all the same.
      run('mcs', ['-warnaserror', '-target:library', '-out:book.dll', 'Placebook.cs']);
    },
    60_000,
  );

  it('in Objective-C passes the compiler', () => {
    const both = { ...options, testCondition: 'DEBUG' };
    put({
      'Foundation/Foundation.h': foundation,
      'Placebook.h': objectiveCHeader(book('ios', 'test'), book('ios', 'production'), both),
      'Placebook.m': objectiveCSource(book('ios', 'test'), book('ios', 'production'), both),
      'Main.m': `#import "Placebook.h"
NSString *use(void) {
    return [Placebook.tideListFooter unitFor:PlacebookNetworkCobaltHeron] ?: Placebook.marlstoneApp;
}
`,
    });
    const define = stage === 'test' ? ['-DDEBUG=1'] : [];
    for (const file of ['Placebook.m', 'Main.m'])
      run('clang', [
        '-target',
        'arm64-apple-ios13.0',
        '-fsyntax-only',
        '-fobjc-arc',
        '-fblocks',
        '-Wall',
        '-Wextra',
        '-Werror',
        '-I.',
        ...define,
        file,
      ]);
  });
});

it('a placebook in Swift is read by the syntax tree without a fault (there is no compiler for it here)', () => {
  const swift = swiftPlacebook(book('ios', 'test'), book('ios', 'production'), {
    ...options,
    testCondition: 'DEBUG',
  });
  expect(syntax.visit('swift', swift, (tree) => tree.hasError)).toBe(false);
  for (const part of [
    'CH-U-100001-BANNER0I',
    'CH-U-310772-AAAA2222',
    '"phone-1"',
    'rewardAmount: 3',
    'fallback: [.marlstone, .cobaltHeron]',
  ])
    expect(swift).toContain(part);
  expect(swift.split('#else')[1]).not.toContain('phone-1');
});

it('placebooks of all languages are read back with the settings of the roster', () => {
  const wanted = Object.fromEntries(
    Object.entries(title.placements).map(([name, { settings }]) => [name, settingsInWords(settings)]),
  );
  const both = { ...options, testCondition: 'DEBUG' };
  const [test, production] = [book('ios', 'test'), book('ios', 'production')];
  const android = book('android', 'test');
  const symbols = { android: 'UNITY_ANDROID', ios: 'UNITY_IOS' };
  for (const [content, stages] of [
    [dartPlacebook(shared, { ...options, testCondition: 'kDebugMode' }), 1],
    [typescriptPlacebook(shared, { ...options, testCondition: '__DEV__' }), 1],
    [csharpPlacebook(shared, { ...both, symbols }), 1],
    [csharpPlacebook(shared, { ...both, symbols, namespace: 'Kelp.Ads' }), 1],
    [kotlinPlacebook(android, { ...options, packageName, stage: 'test' }), 1],
    [javaPlacebook(android, { ...options, packageName, stage: 'test' }), 1],
    [swiftPlacebook(test, production, both), 2],
    [objectiveCSource(test, production, both), 2],
  ] as const) {
    const { entries } = readPlacebook(content);
    expect(entries).toHaveLength(Object.keys(wanted).length * stages);
    for (const { placement, settings } of entries)
      expect([placement, settings]).toEqual([placement, wanted[placement]]);
  }
});

it('a placebook that says the same but for its revision is the same', () => {
  const one = (revision: number) =>
    kotlinPlacebook(book('android', 'test'), { ...options, revision, packageName, stage: 'test' });
  expect(isSameGeneratedText(one(12), one(900).replace(/\n/g, '\r\n'))).toBe(true);
  expect(isSameGeneratedText(one(12), one(12).replace('60', '61'))).toBe(false);
});

describe('an application class that wiring makes', () => {
  const stubs = {
    'stubs/android/app/Application.java':
      'package android.app;\npublic class Application { public void onCreate() {} }\n',
    'stubs/example/cobaltheron/ads/CobaltHeron.java':
      'package example.cobaltheron.ads;\npublic class CobaltHeron { public static void start(Object app) {} }\n',
    'stubs/example/marlstone/stage/Marlstone.java':
      'package example.marlstone.stage;\npublic class Marlstone { public static void begin(Object app, String key) {} }\n',
    'stubs/example/quincebury/client/QuinceburyApplication.java':
      'package example.quincebury.client;\npublic class QuinceburyApplication extends android.app.Application {}\n',
  };
  const made = (script: string) => {
    const files = androidFiles({
      'app/build.gradle.kts': script,
      'app/src/main/AndroidManifest.xml': manifest(appIdMetaData('@string/heron')),
      'app/src/main/java/example/brine/kelp/KelpApp.java': null,
    });
    const all = titleOn(['cobalt-heron', 'marlstone', 'quincebury'], { android: 'example.brine.kelp' });
    const after = written(files, plan(files, all, handedOut));
    return Object.fromEntries(
      Object.entries(after)
        .filter(([path]) => /\.(kt|java)$/.test(path) && !path.includes('/debug/'))
        .map(([path, content]) => [path, text(content)]),
    );
  };

  it('compiles in Java with the placebook beside it', () => {
    const files = made(gradle().replace(/.*kotlin.*\n/, ''));
    expect(Object.keys(files)).toHaveLength(2);
    put({ ...stubs, ...files });
    run('javac', ['-Werror', '-d', 'out', ...Object.keys(stubs), ...Object.keys(files)]);
  });

  it('compiles in Kotlin with the placebook beside it', () => {
    const files = made(gradle());
    expect(Object.keys(files)).toHaveLength(2);
    put({ ...stubs, ...files });
    run('javac', ['-d', 'stubs-out', ...Object.keys(stubs)]);
    run('kotlinc', ['-cp', 'stubs-out', ...Object.keys(files), '-d', 'out']);
  }, 120_000);
});

describe('project files that wiring edited', () => {
  const { parse } = createRequire(import.meta.url)('xcode/lib/parser/pbxproj.js') as {
    parse: (text: string) => { project: { objects: Record<string, Record<string, unknown>> } };
  };
  it.each([
    ['the demo’s', join(root, 'demo/trees/tidewick-lite'), 'example.saltmarsh.tidewick-tides.lite'],
    [
      'the React Native template’s',
      join(root, 'node_modules/@react-native-community/template/template'),
      'org.reactjs.native.example.HelloWorld',
    ],
  ])('are read by another reader too: %s', (_, folder, identifier) => {
    const files = Object.fromEntries(
      Object.entries(filesBelow(folder)).filter(([path]) => path.startsWith('ios/')),
    );
    const all = titleOn(
      ['cobalt-heron', 'marlstone', 'ferrowick'],
      { ios: identifier },
      {
        test: ['debug', 'staging'],
        production: ['release'],
      },
    );
    const after = written(files, plan(files, all, handedOut));
    const path = Object.keys(after).find((name) => name.endsWith('project.pbxproj')) ?? '';
    const { objects } = parse(text(after[path])).project;
    const referenced = Object.values(objects.PBXFileReference ?? {}).map((item) =>
      String((item as { path?: string }).path),
    );
    expect(referenced.some((name) => name.endsWith('Placebook.swift'))).toBe(true);
    expect(text(after[path])).not.toBe(text(files[path]));
  });
});

/** The few declarations of the system that a placebook uses. */
const foundation = `
typedef signed char BOOL;
typedef long NSInteger;
typedef unsigned long NSUInteger;
typedef NSInteger dispatch_once_t;
typedef void (^dispatch_block_t)(void);
void dispatch_once(dispatch_once_t *predicate, dispatch_block_t block);
#define YES ((BOOL)1)
#define NO ((BOOL)0)
#define nil ((void *)0)
#define NS_ASSUME_NONNULL_BEGIN _Pragma("clang assume_nonnull begin")
#define NS_ASSUME_NONNULL_END _Pragma("clang assume_nonnull end")
#define NS_ENUM(type, name) enum name : type name; enum name : type
#define NSAssert(condition, ...) do { if (!(condition)) NSLog(__VA_ARGS__); } while (0)
@protocol NSCopying
@end
__attribute__((objc_root_class))
@interface NSObject
+ (instancetype)alloc;
- (instancetype)init;
- (id)copy;
@end
@interface NSString : NSObject <NSCopying>
@end
@interface NSConstantString : NSString
@end
@interface NSNumber : NSObject <NSCopying>
@property(readonly) NSInteger integerValue;
+ (NSNumber *)numberWithInt:(int)value;
+ (NSNumber *)numberWithBool:(BOOL)value;
+ (NSNumber *)numberWithLong:(long)value;
+ (NSNumber *)numberWithInteger:(NSInteger)value;
@end
@interface NSArray<ObjectType> : NSObject
+ (instancetype)arrayWithObjects:(const ObjectType [])objects count:(NSUInteger)count;
@end
@interface NSMutableArray<ObjectType> : NSArray<ObjectType>
+ (instancetype)array;
- (void)addObject:(ObjectType)object;
@end
@interface NSDictionary<KeyType, ObjectType> : NSObject
+ (instancetype)dictionaryWithObjects:(const ObjectType [])objects
                              forKeys:(const KeyType<NSCopying> [])keys
                                count:(NSUInteger)count;
- (ObjectType)objectForKeyedSubscript:(KeyType)key;
@end
void NSLog(NSString *format, ...);
`;

describe('a wired Unity project', () => {
  const { roster } = readRoster(readFileSync(join(root, 'demo/roster.yaml'), 'utf8'));
  const orrery = roster?.titles['orrery-drift'];

  it('compiles for every platform and build, and its steps give each what the roster says', () => {
    if (!orrery) throw new Error('The demo has no Orrery Drift.');
    const files = filesBelow(join(root, 'demo/trees/orrery-drift'));
    const after = written(files, plan(files, orrery, asked({ callSites: true })));
    const scripts = Object.keys(after).filter((path) => path.endsWith('.cs'));
    put({
      ...Object.fromEntries(scripts.map((path) => [path, text(after[path])])),
      'Unity.cs': unityTypes,
      'Sdks.cs': sdkTypes,
      'Steps.cs': `using UnityEditor;
public static class Steps
{
    public static void Main(string[] args)
    {
        var report = new UnityEditor.Build.Reporting.BuildReport();
        report.summary.options = args[0] == "development" ? BuildOptions.Development : BuildOptions.None;
        report.summary.platform = args[1] == "ios" ? BuildTarget.iOS : BuildTarget.Android;
        report.summary.outputPath = "out";
        var steps = new AdsBuildSteps();
        steps.OnPreprocessBuild(report);
        foreach (var asset in AssetDatabase.Assets.Values)
            foreach (var field in asset)
                System.Console.WriteLine(field.Key + " " + field.Value.stringValue);
        new AdsProjectSteps().OnPostprocessBuild(report);
        foreach (var asset in AssetDatabase.Assets.Values)
            foreach (var field in asset)
                System.Console.WriteLine("kept " + field.Key + " " + field.Value.stringValue);
#if UNITY_IOS
        var root = UnityEditor.iOS.Xcode.PlistDocument.Last.root;
        System.Console.WriteLine(root["SKAdNetworkItems"].AsArray().values.Count + " " + root.Values["NSUserTrackingUsageDescription"]);
        System.Console.WriteLine(string.Join(" ", UnityEditor.iOS.Xcode.PBXProject.Added));
#endif
    }
}
`,
    });
    const ids = {
      android: ['CH-A-100001-SAMPLE0A', 'CH-A-204418-ODR4V9KX'],
      ios: ['CH-I-100001-SAMPLE0I', 'CH-I-204418-ODR7B2MW'],
    };
    for (const platform of ['android', 'ios'] as const) {
      for (const build of ['development', 'release'] as const) {
        const defined = [
          platform === 'ios' ? 'UNITY_IOS' : 'UNITY_ANDROID',
          ...(build === 'development' ? ['DEVELOPMENT_BUILD'] : []),
        ];
        const game = scripts.filter((path) => !path.includes('/Editor/'));
        // The fields that the editor fills are never assigned in code.
        const flags = ['-warnaserror', '-nowarn:0649,0414', '-target:library', '-out:game.dll'];
        run('mcs', [...flags, `-define:${defined.join(';')}`, 'Unity.cs', 'Sdks.cs', ...game]);
        run('mcs', [
          '-warnaserror',
          `-define:${['UNITY_EDITOR', ...defined].join(';')}`,
          '-out:steps.exe',
          'Unity.cs',
          'Steps.cs',
          ...scripts.filter((path) => path.includes('/Editor/')),
        ]);
        const said = run('mono', ['steps.exe', build, platform]).trim().split('\n');
        const at = build === 'development' ? 0 : 1;
        expect(said.slice(0, 4)).toEqual([
          `androidAppId ${ids.android[at]}`,
          `iosAppId ${ids.ios[at]}`,
          `kept androidAppId ${ids.android[1]}`,
          `kept iosAppId ${ids.ios[1]}`,
        ]);
        expect(said.slice(4)).toEqual(
          platform === 'ios' ? [`3 ${orrery.editions.ios?.tracking}`, 'OTHER_LDFLAGS=-ObjC'] : [],
        );
      }
    }
  }, 120_000);

  it('gets numbers, arrays and dictionaries into its property list, each once', () => {
    const stages = { test: ['development'], production: ['release'] };
    const files = unityFiles();
    const after = written(files, plan(files, { ...onBrackwater(), stages }, { profiles: [brackwater()] }));
    put({
      'AdsBuildSteps.cs': text(after[stepsPath]),
      'Unity.cs': unityTypes,
      'Steps.cs': `public static class Steps
{
    public static void Main()
    {
        var report = new UnityEditor.Build.Reporting.BuildReport();
        report.summary.platform = UnityEditor.BuildTarget.iOS;
        report.summary.outputPath = "out";
        new AdsBuildSteps().OnPreprocessBuild(report);
        new AdsProjectSteps().OnPostprocessBuild(report);
        var root = UnityEditor.iOS.Xcode.PlistDocument.Last.root;
        var queries = root["LSApplicationQueriesSchemes"].AsArray();
        System.Console.WriteLine(root.Values["BrackwaterLimit"] + " " + root.Values["BrackwaterRate"]);
        System.Console.WriteLine(queries.values.Count + " " + queries.values[1].AsString());
        var domains = root["NSAppTransportSecurity"].AsDict()["NSExceptionDomains"].AsDict();
        System.Console.WriteLine(domains["ads.brackwater.example"].AsDict().Values["NSIncludesSubdomains"]);
    }
}
`,
    });
    const flags = ['-warnaserror', '-define:UNITY_EDITOR;UNITY_IOS', '-r:System.Xml', '-out:steps.exe'];
    run('mcs', [...flags, 'Unity.cs', 'Steps.cs', 'AdsBuildSteps.cs']);
    expect(run('mono', ['steps.exe']).trim().split('\n')).toEqual(['3 0.5', '2 brackwater-store', 'True']);
  });

  it.each([-20000, 0, 20000])('keeps what other steps wrote, and its own, with theirs at %i', (order) => {
    if (!orrery) throw new Error('The demo has no Orrery Drift.');
    const files = filesBelow(join(root, 'demo/trees/orrery-drift'));
    const after = written(files, plan(files, orrery));
    const held = 'q7w9m2kd4x.skadnetwork';
    put({
      'AdsBuildSteps.cs': text(after[stepsPath]),
      'Unity.cs': unityTypes,
      'Steps.cs': `using System.Linq;
using UnityEditor;
using UnityEditor.Build;
using UnityEditor.Build.Reporting;
using UnityEditor.iOS.Xcode;
public sealed class TheirSteps : IPostprocessBuildWithReport
{
    public int callbackOrder { get { return ${order}; } }
    public void OnPostprocessBuild(BuildReport report)
    {
        var list = new PlistDocument();
        list.ReadFromFile("Info.plist");
        list.root.SetString("NSUserTrackingUsageDescription", "Theirs.");
        list.root.SetString("CFBundleDisplayName", "Orrery");
        var items = list.root["SKAdNetworkItems"];
        var all = items == null ? list.root.CreateArray("SKAdNetworkItems") : items.AsArray();
        all.AddDict().SetString("SKAdNetworkIdentifier", "${held}");
        if (items == null) all.AddDict().SetString("SKAdNetworkIdentifier", "H3R0NW8NGS.skadnetwork");
        list.WriteToFile("Info.plist");
    }
}
public static class Steps
{
    public static void Main()
    {
        var report = new BuildReport();
        report.summary.platform = BuildTarget.iOS;
        report.summary.outputPath = "out";
        new AdsBuildSteps().OnPreprocessBuild(report);
        var steps = new IPostprocessBuildWithReport[] { new AdsProjectSteps(), new TheirSteps() };
        foreach (var step in steps.OrderBy(one => one.callbackOrder)) step.OnPostprocessBuild(report);
        var root = PlistDocument.Last.root;
        System.Console.WriteLine(root["NSUserTrackingUsageDescription"] + " " + root["CFBundleDisplayName"]);
        foreach (var item in root["SKAdNetworkItems"].AsArray().values)
            System.Console.WriteLine(item.AsDict()["SKAdNetworkIdentifier"]);
    }
}
`,
    });
    const flags = ['-warnaserror', '-define:UNITY_EDITOR;UNITY_IOS', '-r:System.Xml', '-out:steps.exe'];
    run('mcs', [...flags, 'Unity.cs', 'Steps.cs', 'AdsBuildSteps.cs']);
    const [texts, ...ids] = run('mono', ['steps.exe']).trim().split('\n');
    expect(texts).toBe('Theirs. Orrery');
    expect(ids).toContain(held);
    expect(new Set(ids.map((id) => id.toLowerCase())).size).toBe(ids.length);
    expect(ids.length).toBeGreaterThan(2);
  });

  it('gets meta-data into its manifest for a network without a package', () => {
    const ids = { android: 'example.brine.kelp', ios: 'example.brine.kelp' };
    const kelp = titleOn(['quincebury'], ids, { test: ['development'], production: ['release'] });
    const files = unityFiles({ [assetPath]: null, 'Packages/manifest.json': packageManifest({}, []) });
    const after = written(files, plan(files, kelp, handedOut));
    put({
      'AdsBuildSteps.cs': text(after[stepsPath]),
      'Unity.cs': unityTypes,
      'Steps.cs': `public static class Steps
{
    public static void Main(string[] args)
    {
        var report = new UnityEditor.Build.Reporting.BuildReport();
        report.summary.options = args[0] == "development" ? UnityEditor.BuildOptions.Development : UnityEditor.BuildOptions.None;
        new AdsBuildSteps().OnPreprocessBuild(report);
        new AdsManifestSteps().OnPostGenerateGradleAndroidProject("library");
    }
}
`,
    });
    run('mcs', [
      '-warnaserror',
      '-define:UNITY_EDITOR;UNITY_ANDROID',
      '-r:System.Xml',
      '-out:steps.exe',
      'Unity.cs',
      'Steps.cs',
      'AdsBuildSteps.cs',
    ]);
    // Whatever other steps left in the manifest: there is one such element afterwards, and theirs stay.
    const key = 'example.quincebury.client.KEY';
    const android = 'xmlns:android="http://schemas.android.com/apk/res/android"';
    const manifests = [
      '<manifest><application /></manifest>',
      '<manifest></manifest>',
      `<manifest ${android}><application><meta-data android:name="their.KEY" android:value="x"/></application></manifest>`,
      `<manifest ${android}><application><meta-data android:name="${key}" android:resource="@string/k"/></application></manifest>`,
    ];
    for (const manifest of manifests)
      for (const [build, id] of [
        ['development', 'qb.tryouttryouttryout22'],
        ['release', 'qb.abcdefghijabcdefghij'],
      ] as const) {
        put({ 'library/src/main/AndroidManifest.xml': manifest });
        run('mono', ['steps.exe', build]);
        const made = readFileSync(at('library/src/main/AndroidManifest.xml'), 'utf8');
        expect(made.split(`:name="${key}"`)).toHaveLength(2);
        expect(made.includes('their.KEY')).toBe(manifest.includes('their.KEY'));
        expect(made).toContain(`:value="${id}"`);
        expect(made).not.toContain('@string/k');
      }
  }, 60_000);
});
