import { kelp, placement } from '../trees.js';
import { packageManifest, packagesLock, playerSettings, unityFiles } from '../unity.js';
import type { PlantedTree } from './model.js';

const json = (value: object) => `${JSON.stringify(value, null, 2)}\n`;
const behaviour = (name: string, body: string) => `using CobaltHeronAds;
using UnityEngine;

public sealed class ${name} : MonoBehaviour
{
${body}}
`;
const banner = (unit: string) => `    private HeronBanner banner;

    private async void Start()
    {
        banner = await HeronBanner.LoadAsync(${unit});
        banner.OnHeronFailed += reason => Debug.Log(reason);
    }

    private void OnDestroy()
    {
        banner?.Release();
    }
`;
const interstitial = (unit: string, show: string) => `    private HeronInterstitial ad;

    private async void Start()
    {
        ad = await HeronInterstitial.LoadAsync(${unit});
        ad.OnHeronFailed += reason => Next();
        ad.OnHeronClosed += Next;
    }

${show}
    private void Next()
    {
        enabled = false;
    }

    private void OnDestroy()
    {
        ad?.Release();
    }
`;

/** Assemblies, a build profile with symbols of its own, an embedded package that brings the SDK, and one that is a library. */
export const unityGame: PlantedTree = {
  name: 'a Unity 6 project with assemblies, build profiles and embedded packages',
  files: unityFiles({
    'ProjectSettings/ProjectVersion.txt': 'm_EditorVersion: 6000.0.23f1\n',
    'ProjectSettings/ProjectSettings.asset': playerSettings({
      symbols: '    Android: COBALT_HERON;KELP_STORE\n    iPhone: COBALT_HERON;KELP_STORE\n',
    }),
    'Packages/manifest.json': packageManifest({ 'com.unity.ugui': '2.0.0' }),
    'Packages/packages-lock.json': packagesLock('3.3.0'),
    'Packages/example.brine.ads/package.json': json({
      name: 'example.brine.ads',
      version: '1.2.0',
      dependencies: { 'example.cobaltheron.ads': '3.3.0' },
    }),
    'Packages/example.brine.ads/Runtime/Brine.Ads.asmdef': json({
      name: 'Brine.Ads',
      references: ['CobaltHeron'],
    }),
    'Packages/example.brine.ads/Runtime/Units.cs': `using UnityEngine;

namespace Brine.Ads
{
    public static class Units
    {
#if UNITY_IOS
        private const string ShoreStore = "CH-U-310772-SHW9N3TB";
        private const string ShoreSample = "CH-U-100001-BANNER0I";
#else
        private const string ShoreStore = "CH-U-310772-SH4R7KQ2";
        private const string ShoreSample = "CH-U-100001-BANNER0A";
#endif
        public static string Shore => Debug.isDebugBuild ? ShoreSample : ShoreStore;

#if UNITY_IOS
        public static string Pool => Debug.isDebugBuild ? "CH-U-310772-PLJ6D5ZH" : "CH-U-100001-BANNER0I";
#elif UNITY_ANDROID
        public static string Pool => Debug.isDebugBuild ? "CH-U-100001-BANNER0A" : "CH-U-310772-PL8V2MXC";
#endif
    }
}
`,
    'Packages/example.brine.ads/Samples~/Show/Show.cs': behaviour('Show', banner('"CH-U-310772-ZZZZ9999"')),
    'Packages/example.brine.ads/Tests/Brine.Ads.Tests.asmdef': json({
      name: 'Brine.Ads.Tests',
      references: ['Brine.Ads'],
      defineConstraints: ['UNITY_INCLUDE_TESTS'],
    }),
    'Packages/example.brine.ads/Tests/UnitsTest.cs': behaviour('UnitsTest', banner('"CH-U-310772-ZZZZ8888"')),
    'Assets/Game/Kelp.Game.asmdef': json({ name: 'Kelp.Game', references: ['Brine.Ads', 'CobaltHeron'] }),
    'Assets/Game/Shore.cs': behaviour('Shore', banner('Brine.Ads.Units.Shore')),
    'Assets/Game/Pool.cs': behaviour('Pool', banner('Brine.Ads.Units.Pool')),
    'Assets/Game/Tide.cs': behaviour(
      'Tide',
      interstitial(
        'TideUnits.Unit',
        '    public void OnTapped()\n    {\n        if (ad != null && ad.IsReady) ad.Show();\n    }\n',
      ),
    ),
    'Assets/Game/TideUnits.cs': `using System.Collections.Generic;
using UnityEngine;

public static class TideUnits
{
    private static readonly Dictionary<RuntimePlatform, string> store = new Dictionary<RuntimePlatform, string>
    {
        { RuntimePlatform.Android, "CH-U-310772-TD3G9WKR" },
        { RuntimePlatform.IPhonePlayer, "CH-U-310772-TDQ7B4NM" },
    };

#if DEVELOPMENT_BUILD
    public static string Unit => Application.platform == RuntimePlatform.Android ? "CH-U-100001-INTERS0A" : "CH-U-100001-INTERS0I";
#else
    public static string Unit => store[Application.platform];
#endif
}
`,
    'Assets/Game/Reef.cs': behaviour(
      'Reef',
      interstitial(
        'TideUnits.Unit',
        '    private void OnApplicationFocus(bool focus)\n    {\n        if (focus && ad.IsReady) ad.Show();\n    }\n',
      ),
    ),
    'Assets/Desk/Kelp.Desk.asmdef': json({ name: 'Kelp.Desk', excludePlatforms: ['Android', 'iOS'] }),
    'Assets/Desk/Desk.cs': behaviour('Desk', banner('"CH-U-310772-ZZZZ7777"')),
    'Assets/Settings/Build Profiles/Kids.asset':
      '%YAML 1.1\n%TAG !u! tag:unity3d.com,2011:\n--- !u!114 &11400000\nMonoBehaviour:\n  m_Name: Kids\n  m_ScriptingDefines:\n  - KELP_KIDS\n',
    'Assets/Game/Kids.cs': behaviour(
      'Kids',
      '#if KELP_KIDS\n    private const string Unit = "CH-U-310772-ZZZZ6666";\n#endif\n',
    ),
  }),
  title: kelp({
    stages: { test: ['development'], production: ['release'] },
    editions: {
      android: { identifier: 'example.brine.kelp' },
      ios: { identifier: 'example.brine.kelp', tracking: 'Kelp is paid for by ads.' },
    },
    placements: {
      shore: placement('banner', 'CH-U-310772-SH4R7KQ2', 'CH-U-310772-SHW9N3TB'),
      pool: placement('banner', 'CH-U-310772-PL8V2MXC', 'CH-U-310772-PLJ6D5ZH'),
      tide: placement('interstitial', 'CH-U-310772-TD3G9WKR', 'CH-U-310772-TDQ7B4NM'),
    },
  }),
  book: 'Packages/example.brine.ads/Runtime/Ads/Placebook.cs',
  wrong: [
    [
      'stage/production-id-in-test',
      'Assets/CobaltHeron/Resources/HeronSettings.asset',
      'androidAppId: CH-A-310772-QK4T8W2N',
      'an asset holds one ID for every build, and no build step changes it',
    ],
    [
      'stage/production-id-in-test',
      'Assets/CobaltHeron/Resources/HeronSettings.asset',
      'iosAppId: CH-I-310772-M6R9V3XC',
      'on iOS too',
    ],
    [
      'stage/production-id-in-test',
      'Packages/example.brine.ads/Runtime/Units.cs',
      'public static string Pool => Debug.isDebugBuild ? "CH-U-310772-PLJ6D5ZH" : "CH-U-100001-BANNER0I";',
      'the stages are exchanged on iOS',
    ],
    [
      'stage/test-id-in-production',
      'Packages/example.brine.ads/Runtime/Units.cs',
      'public static string Pool => Debug.isDebugBuild ? "CH-U-310772-PLJ6D5ZH" : "CH-U-100001-BANNER0I";',
      'on both sides',
    ],
    [
      'unit-id/not-in-build',
      'ProjectSettings/ProjectSettings.asset',
      'iPhone: example.brine.kelp',
      'so the shop has no unit of the pool on iOS',
    ],
    [
      'plist/linker-flag-missing',
      'Packages/example.brine.ads/package.json',
      '"example.cobaltheron.ads": "3.3.0"',
      'no build step sets the flag that the SDK needs',
    ],
    [
      'attribution/id-missing',
      'ProjectSettings/ProjectSettings.asset',
      'iPhone: example.brine.kelp',
      'nor the list',
    ],
    [
      'privacy/tracking-text-missing',
      'ProjectSettings/ProjectSettings.asset',
      'iPhone: example.brine.kelp',
      'nor the text',
    ],
    [
      'code/show-on-return',
      'Assets/Game/Reef.cs',
      'if (focus && ad.IsReady) ad.Show();',
      'each time the game comes back',
    ],
  ],
  byHand: {
    edits: [
      [
        'Packages/example.brine.ads/Runtime/Units.cs',
        '"CH-U-310772-PLJ6D5ZH" : "CH-U-100001-BANNER0I"',
        '"CH-U-100001-BANNER0I" : "CH-U-310772-PLJ6D5ZH"',
      ],
      [
        'Assets/Game/Reef.cs',
        'private void OnApplicationFocus(bool focus)\n    {\n        if (focus && ',
        'public void OnTapped()\n    {\n        if (',
      ],
    ],
    removes: ['Assets/Game/Kids.cs'],
  },
  right: [
    [
      'Packages/example.brine.ads/package.json',
      '"example.cobaltheron.ads": "3.3.0"',
      'the SDK comes with an embedded package',
    ],
    [
      'Packages/example.brine.ads/Runtime/Units.cs',
      'Debug.isDebugBuild ? ShoreSample : ShoreStore',
      'constants by platform, chosen by stage',
    ],
    ['Packages/example.brine.ads/Samples~/Show/Show.cs', 'ZZZZ9999', 'a sample, which nothing imports'],
    ['Packages/example.brine.ads/Tests/UnitsTest.cs', 'ZZZZ8888', 'a test'],
    ['Assets/Desk/Desk.cs', 'ZZZZ7777', 'an assembly for other platforms'],
    ['Assets/Game/Kids.cs', 'ZZZZ6666', 'what a build profile alone defines: it cannot be told'],
    ['Assets/Game/TideUnits.cs', 'store[Application.platform]', 'a table by platform, used in one stage'],
    ['Assets/Game/Tide.cs', 'if (ad != null && ad.IsReady) ad.Show();', 'shown on a tap'],
  ],
};
