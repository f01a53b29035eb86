import { factDetail } from '../../../src/core/facts/show.js';
import { describe, expect, it } from 'vitest';
import { runSurvey } from '../../../src/core/surveying.js';
import { kelpWithBanner } from '../../support/flutter.js';
import { findingsOf } from '../../support/rules.js';
import { manifest, profiles, treeOf } from '../../support/trees.js';
import {
  assetPath,
  begins,
  heronAsset,
  packageManifest,
  packagesLock,
  placebookPath,
  playerSettings,
  reef,
  stepsPath,
  unityFiles,
} from '../../support/unity.js';
import {
  asked,
  comesBack,
  handedOut,
  holds,
  plan,
  text,
  titleOn,
  written,
  type Files,
} from '../../support/wiring.js';

const stages = { test: ['development'], production: ['release'] };
const tracking = 'Kelp is paid for by ads.';
const title = kelpWithBanner({
  stages,
  editions: {
    android: { identifier: 'example.brine.kelp' },
    ios: { identifier: 'example.brine.kelp', tracking },
  },
});

const survey = (files: Files, of = title) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title: of } }).survey;
const settingsPath = 'ProjectSettings/ProjectSettings.asset';

describe('recognising Unity', () => {
  it('says why', () => {
    const found = survey(unityFiles({ 'Assets/Plugins/Android/AndroidManifest.xml': manifest('') }));
    expect(found.stacks).toEqual([
      {
        stack: 'unity',
        root: '',
        evidence: [
          `${settingsPath} has an identifier for Android and iOS`,
          'ProjectSettings/ProjectVersion.txt names the editor 2022.3.40f1',
          'Packages/manifest.json lists its packages',
          'Assets/Plugins/Android/AndroidManifest.xml (Custom Main Manifest) is off',
        ],
      },
    ]);
    expect(found.editions.map(({ platform, module, identifier }) => [platform, module, identifier])).toEqual([
      ['android', 'android', 'example.brine.kelp'],
      ['ios', 'ios', 'example.brine.kelp'],
    ]);
  });

  it('passes over the samples of a package, and finds several projects below one root', () => {
    const below = (folder: string) =>
      Object.fromEntries(
        Object.entries(unityFiles()).map(([path, content]) => [`${folder}/${path}`, content]),
      );
    const found = survey({ ...below('games/kelp'), ...below('package/Samples~/Kelp') });
    expect(found.stacks.map(({ root }) => root)).toEqual(['games/kelp']);
    expect(found.passedOver.map(({ root }) => root)).toEqual(['package/Samples~/Kelp']);
  });
});

describe('what a Unity build would carry', () => {
  const unitsOf = (code: string, more: Record<string, string> = {}) =>
    survey(unityFiles({ 'Assets/Scripts/Reef.cs': code, ...more }))
      .facts.filter(({ kind }) => kind === 'unit-id')
      .map(({ platform, variants, value }) => `${platform} ${variants.join('+')} ${value}`)
      .sort();

  it('weighs every #if by platform, build and symbol', () => {
    const ids = `
#if UNITY_ANDROID && DEVELOPMENT_BUILD
    private const string Unit = "CH-U-100001-BANNER0A";
#elif UNITY_ANDROID
    private const string Unit = "CH-U-310772-BBBB1111";
#elif UNITY_IOS && !KELP
    private const string Unit = "CH-U-310772-CCCC2222";
#else
    private const string Unit = "CH-U-310772-ZZZZ9999";
#endif
#if UNITY_EDITOR || UNITY_2099_1_OR_NEWER
    private const string Other = "CH-U-310772-YYYY8888";
#endif`;
    expect(unitsOf(reef('Unit', ids))).toEqual([
      'android development CH-U-100001-BANNER0A',
      'android release CH-U-310772-BBBB1111',
      'ios development+release CH-U-310772-CCCC2222',
    ]);
    const calls = survey(unityFiles({ 'Assets/Scripts/Reef.cs': reef('Unit', ids) })).facts.filter(
      (fact) => fact.kind === 'call' && fact.action === 'load' && fact.format === 'banner',
    );
    expect(calls.map(({ platform, variants, code }) => [platform, variants, code?.argument?.ids])).toEqual([
      ['android', ['development'], ['CH-U-100001-BANNER0A']],
      ['android', ['release'], ['CH-U-310772-BBBB1111']],
      ['ios', ['development', 'release'], ['CH-U-310772-CCCC2222']],
    ]);
  });

  it('weighs what is asked at run time where the build decides it', () => {
    const choice =
      'Application.platform == RuntimePlatform.Android ? "CH-U-310772-BBBB1111" : "CH-U-310772-CCCC2222"';
    expect(unitsOf(reef(choice))).toEqual([
      'android development+release CH-U-310772-BBBB1111',
      'ios development+release CH-U-310772-CCCC2222',
    ]);
    expect(unitsOf(reef('Debug.isDebugBuild ? "CH-U-100001-BANNER0A" : "CH-U-310772-BBBB1111"'))).toContain(
      'android development CH-U-100001-BANNER0A',
    );
    const bySwitch =
      'Application.platform switch { RuntimePlatform.Android => "CH-U-310772-BBBB1111", _ => "CH-U-310772-CCCC2222" }';
    expect(unitsOf(reef(bySwitch))).toEqual([
      'android development+release CH-U-310772-BBBB1111',
      'ios development+release CH-U-310772-CCCC2222',
    ]);
  });

  it('says where it cannot tell', () => {
    const open = survey(
      unityFiles({
        'Assets/Scripts/Reef.cs': reef(
          'Unit',
          '#if ENABLE_IL2CPP\n    const string Unit = "CH-U-310772-BBBB1111";\n#endif',
        ),
        [settingsPath]: playerSettings().replace('AndroidTargetSdkVersion: 34', 'AndroidTargetSdkVersion: 0'),
      }),
    ).unresolved;
    expect(open.map(({ kind, platform }) => `${kind} ${platform}`).sort()).toEqual([
      'compile-sdk android',
      'target-sdk android',
      'unit-id android',
      'unit-id ios',
    ]);
  });

  it('cannot tell what a build profile of Unity 6 decides', () => {
    const code = reef(
      '"CH-U-310772-BBBB1111"',
      '#if ADS_SAMPLE\nprivate const string Sample = "CH-U-100001-BANNER0A";\n#endif\n',
    );
    const profile = (names: string) =>
      `%YAML 1.1\n%TAG !u! tag:unity3d.com,2011:\n--- !u!114 &11400000\nMonoBehaviour:\n  m_Name: Sample\n  m_BuildTarget: 13\n  m_ScriptingDefines:${names}\n`;
    const of = (more: Record<string, string>) =>
      survey(unityFiles({ 'Assets/Scripts/Reef.cs': code, ...more })).unresolved.filter(({ what }) =>
        what.includes('BANNER0A'),
      ).length;
    expect(of({})).toBe(0);
    expect(of({ 'Assets/Settings/Build Profiles/Sample.asset': profile(' []') })).toBe(0);
    expect(
      of({ 'Assets/Settings/Build Profiles/Sample.asset': profile('\n  - ADS_SAMPLE\n  - OTHER') }),
    ).toBeGreaterThan(0);
  });

  it('leaves out what only the editor, a test or another platform compiles', () => {
    const code = reef('"CH-U-310772-BBBB1111"');
    const only = (path: string, more: Record<string, string> = {}) =>
      survey(unityFiles({ [path]: code, ...more })).facts.filter(({ kind }) => kind === 'unit-id').length;
    expect(only('Assets/Editor/Reef.cs')).toBe(0);
    expect(only('Assets/Samples~/Reef.cs')).toBe(0);
    const assembly = (content: object) => ({ 'Assets/Lib/Lib.asmdef': JSON.stringify(content) });
    expect(only('Assets/Lib/Reef.cs', assembly({ includePlatforms: ['Editor'] }))).toBe(0);
    expect(only('Assets/Lib/Reef.cs', assembly({ defineConstraints: ['UNITY_INCLUDE_TESTS'] }))).toBe(0);
    expect(only('Assets/Lib/Reef.cs', assembly({ excludePlatforms: ['iOS'] }))).toBe(1);
    expect(only('Assets/Lib/Editor/Reef.cs', assembly({ name: 'Lib' }))).toBe(2);
    expect(only('Packages/example.brine.reef/Runtime/Reef.cs')).toBe(2);
  });

  it('reads a settings asset, and a step that sets it while a build is made', () => {
    const appIds = (files: Files) =>
      survey(files)
        .facts.filter(({ kind }) => kind === 'app-id')
        .map((fact) => `${fact.platform} ${fact.variants.join('+')} ${fact.value} ${factDetail(fact)}`)
        .sort();
    expect(appIds(unityFiles())).toEqual([
      'android development+release CH-A-310772-QK4T8W2N in the settings asset',
      'ios development+release CH-I-310772-M6R9V3XC in the settings asset',
    ]);
    const files = unityFiles();
    const after = written(files, plan(files, title));
    expect(appIds(after)).toEqual([
      'android development CH-A-100001-SAMPLE0A in a build step',
      'android release CH-A-310772-QK4T8W2N in a build step',
      'ios development CH-I-100001-SAMPLE0I in a build step',
      'ios release CH-I-310772-M6R9V3XC in a build step',
    ]);
    const chain = survey(after).facts.find(
      ({ kind, variants }) => kind === 'app-id' && variants[0] === 'release',
    )?.chain;
    expect(chain?.map(({ what, place }) => [what, place?.path])).toEqual([
      ['settings asset', assetPath],
      ['build step', stepsPath],
    ]);
  });

  it("reads a person's own build steps", () => {
    const own = `using UnityEditor;
using UnityEditor.iOS.Xcode;
public static class OwnSteps {
  static readonly string[] Ids = { "ch7k2m9td4.skadnetwork", "h3r0nw8ngs.skadnetwork" };
  static void Change(string path) {
    var list = new PlistDocument();
    list.root.SetString("NSUserTrackingUsageDescription", "Kelp is paid for by ads.");
    var items = list.root.CreateArray("SKAdNetworkItems");
    foreach (var id in Ids) items.AddDict().SetString("SKAdNetworkIdentifier", id);
    var project = new PBXProject();
    project.AddBuildProperty(project.GetUnityFrameworkTargetGuid(), "OTHER_LDFLAGS", "-ObjC");
  }
}
`;
    const files = unityFiles({ 'Assets/Editor/OwnSteps.cs': own });
    const rules = (all: Files) => findingsOf(all as Record<string, string>, title).map(({ rule }) => rule);
    expect(rules(files).filter((rule) => /^(plist|privacy|attribution)/.test(rule))).toEqual([]);
    expect(rules(unityFiles())).toEqual(
      expect.arrayContaining(['plist/linker-flag-missing', 'attribution/id-missing']),
    );
    const steps = text(written(files, plan(files, title))[stepsPath]);
    expect(steps).toContain('SetField(');
    expect(steps).not.toContain('PlistDocument');
  });

  it('reads manifests of library folders, and the own one where it is switched on', () => {
    const path = 'Assets/Plugins/Android/AndroidManifest.xml';
    const on = playerSettings().replace('useCustomMainManifest: 0', 'useCustomMainManifest: 1');
    const permissions = (files: Record<string, string>) =>
      survey(unityFiles(files))
        .facts.filter(({ kind }) => kind === 'permission')
        .map(({ place }) => place.path);
    expect(permissions({ [path]: manifest('') })).toEqual([]);
    expect(permissions({ [path]: manifest(''), [settingsPath]: on })).toEqual([path, path]);
    const library = 'Assets/Plugins/Android/Reef.androidlib/AndroidManifest.xml';
    expect(permissions({ [library]: manifest('') })).toEqual([library, library]);
  });
});

describe('what is wrong with Unity projects', () => {
  const rules = (changes: Record<string, string | null>, of = title) =>
    findingsOf(unityFiles(changes), of).map(({ rule, platform }) => `${rule} ${platform}`);

  it('sees packages that are missing, old, not installed or held back', () => {
    expect(rules({ 'Packages/manifest.json': packageManifest({}) })).toContain(
      'build/dependency-missing android',
    );
    expect(
      rules({ 'Packages/manifest.json': packageManifest({ 'example.cobaltheron.ads': '3.0.0' }) }),
    ).toContain('build/dependency-too-old null');
    expect(rules({ 'Packages/packages-lock.json': '{ "dependencies": {} }' })).toContain(
      'build/install-not-run null',
    );
    expect(rules({ 'Packages/packages-lock.json': packagesLock('3.1.0') })).toContain(
      'build/version-held-back null',
    );
    expect(rules({ 'Packages/packages-lock.json': null })).toContain('build/not-locked null');
    expect(rules({ 'ProjectSettings/ProjectVersion.txt': 'm_EditorVersion: 2020.3.1f1\n' })).toContain(
      'build/framework-too-old null',
    );
  });

  it('sees ads that are asked for with every frame, and shown on every return', () => {
    const code = `using CobaltHeronAds;
public class Reef : MonoBehaviour {
  HeronInterstitial ad;
  void Update() { HeronBanner.LoadAsync("CH-U-310772-BBBB1111"); }
  void OnApplicationFocus(bool focus) { ad.Show(); }
}
`;
    expect(rules({ 'Assets/Scripts/Reef.cs': code })).toEqual(
      expect.arrayContaining(['code/made-while-building null', 'code/show-on-return null']),
    );
    expect(
      rules({ 'Assets/Scripts/Reef.cs': reef('Placebook.Footer.Unit(PlacebookNetwork.CobaltHeron)') }),
    ).not.toContain('code/made-while-building null');
  });
});

describe('wiring Unity', () => {
  const game = reef('"CH-U-310772-BBBB1111"');

  it('leaves nothing to mend where call sites are replaced too', () => {
    const code = reef(
      'Application.platform == RuntimePlatform.IPhonePlayer ? "CH-U-310772-CCCC2222" : "CH-U-310772-BBBB1111"',
    );
    const files = unityFiles({ 'Assets/Scripts/Reef.cs': code });
    const { after } = holds(files, title, asked({ callSites: true }));
    expect(text(after['Assets/Scripts/Reef.cs'])).toContain(
      'HeronBanner.LoadAsync(Placebook.Footer.Unit(PlacebookNetwork.CobaltHeron));',
    );
    expect(findingsOf(after as Record<string, string>, title)).toEqual([]);
  });

  it('makes a constant of the compiler a value that is worked out', () => {
    const constant =
      'internal static class Ids\n{\n    public const string Footer = "CH-U-310772-BBBB1111";\n}\n';
    const local =
      'class A\n{\n    void B()\n    {\n        const string c = "CH-U-310772-BBBB1111";\n    }\n}\n';
    const files = unityFiles({ 'Assets/Scripts/Ids.cs': constant, 'Assets/Scripts/A.cs': local });
    const after = written(files, plan(files, title, asked({ callSites: true })));
    expect(text(after['Assets/Scripts/Ids.cs'])).toContain(
      'public static readonly string Footer = Placebook.Footer.Unit(PlacebookNetwork.CobaltHeron);',
    );
    expect(text(after['Assets/Scripts/A.cs'])).toContain(
      '        string c = Placebook.Footer.Unit(PlacebookNetwork.CobaltHeron);',
    );
  });

  it('puts the placebook into the assembly of the code that asks for ads', () => {
    const files = unityFiles({
      'Assets/Game/Game.asmdef': '{ "name": "Game" }',
      'Assets/Game/Reef.cs': game,
      'Assets/Scripts/KelpGame.cs': null,
    });
    expect(Object.keys(holds(files, title).after)).toContain('Assets/Game/Ads/Placebook.cs');
    expect(Object.keys(holds(unityFiles({ 'Assets/Scripts/Reef.cs': game }), title).after)).toContain(
      placebookPath,
    );
  });

  it('says where the start-up call goes, until it is there', () => {
    const steps = (files: Files) =>
      plan(files, title).byHand.filter(({ rule }) => rule === 'code/never-started');
    expect(
      steps(unityFiles({ 'Assets/Scripts/KelpGame.cs': begins.replace('CobaltHeron.Start();', '') })),
    ).toMatchObject([
      { where: 'Assets/Scripts/KelpGame.cs', what: expect.stringContaining('CobaltHeron.Start();') },
    ]);
    expect(steps(unityFiles())).toEqual([]);
  });

  it('asks for one switch that keeps the stages apart', () => {
    const odd = kelpWithBanner({ stages: { test: ['release'], production: ['development'] } });
    const { edits, byHand } = plan(unityFiles(), odd);
    expect(edits.map(({ path }) => path)).not.toContain(placebookPath);
    expect(byHand.map(({ what }) => what)).toContain(
      'Give development builds the test stage and all others production, then wire again.',
    );
  });

  it('leaves an asset alone that it could not make, and says so', () => {
    const without = profiles.map((profile) =>
      profile.id === 'cobalt-heron'
        ? JSON.parse(JSON.stringify(profile).replace(/,"script":"[0-9a-f]+"/, ''))
        : profile,
    );
    const { edits, byHand } = plan(unityFiles({ [assetPath]: null }), title, { profiles: without });
    expect(edits.map(({ path }) => path)).not.toContain(assetPath);
    expect(byHand).toContainEqual(expect.objectContaining({ where: assetPath, rule: 'app-id/missing' }));
  });

  it('raises levels only when it is asked to', () => {
    const files = unityFiles({ [settingsPath]: playerSettings({ minSdk: '21' }) });
    expect(text(written(files, plan(files, title))[settingsPath])).toContain('AndroidMinSdkVersion: 21');
    const { after } = holds(files, title, asked({ levels: true }));
    expect(text(after[settingsPath])).toContain('AndroidMinSdkVersion: 23');
  });
});

describe('wiring Unity for any networks', () => {
  const own = `<?xml version="1.0" encoding="utf-8"?>
<manifest xmlns:android="http://schemas.android.com/apk/res/android">
    <application>
        <activity android:name="com.unity3d.player.UnityPlayerActivity" android:exported="true" />
    </application>
</manifest>
`;
  const fresh = unityFiles({
    [assetPath]: null,
    'Packages/manifest.json': packageManifest({ 'com.unity.ugui': '1.0.0' }, []),
    [settingsPath]: playerSettings({ symbols: '' }),
  });
  const shapes: [string, Files][] = [
    ['fresh', fresh],
    ['with a manifest of its own', { ...fresh, 'Assets/Plugins/Android/AndroidManifest.xml': own }],
    [
      'with CRLF line ends',
      Object.fromEntries(
        Object.entries(fresh).map(([path, content]) => [path, content.replace(/\n/g, '\r\n')]),
      ),
    ],
    [
      'with a registry and symbols already',
      {
        ...fresh,
        'Packages/manifest.json': packageManifest({}, [
          { name: 'Marlstone', url: 'https://unity.marlstone.example/', scopes: ['example.other'] },
        ]),
        [settingsPath]: playerSettings({ symbols: '    Android: KELP\n' }),
      },
    ],
  ];
  const networks = ['cobalt-heron', 'marlstone', 'quincebury', 'ferrowick', 'tallowfield'];
  const pairs = networks.flatMap((one, index) =>
    networks.slice(index + 1).map((other) => [one, other] as const),
  );
  const identifiers = { android: 'example.brine.kelp', ios: 'example.brine.kelp' };

  it.each(pairs)('%s and %s: every law holds, and the tree comes back', (one, other) => {
    for (const [, files] of shapes) {
      const both = titleOn([one, other], identifiers, stages);
      comesBack(files, both, holds(files, both, handedOut));
    }
  });

  it('keeps what only one of two networks asks for when the other goes', () => {
    const both = titleOn(['cobalt-heron', 'tallowfield'], identifiers, stages);
    const first = holds(fresh, both, {
      choice: { networks: ['cobalt-heron'], rules: [], variants: [], groups: [] },
    });
    expect(text(first.after[stepsPath])).not.toContain('t4ll0wf13d');
    expect(text(first.after[stepsPath])).toContain('ch7k2m9td4');
  });

  it('writes the production IDs of an asset back where somebody exchanged them', () => {
    const files = { ...fresh, [assetPath]: heronAsset('CH-I-310772-M6R9V3XC', 'CH-A-310772-QK4T8W2N') };
    const one = titleOn(['cobalt-heron'], identifiers, stages);
    expect(findingsOf(files as Record<string, string>, one).map(({ rule }) => rule)).toContain(
      'app-id/wrong-platform',
    );
    const { after } = holds(files, one);
    expect(text(after[assetPath])).toBe(heronAsset('CH-A-310772-QK4T8W2N', 'CH-I-310772-M6R9V3XC'));
  });
});
