/** The settings for players, as far as anything is told from them. */
export const playerSettings = ({
  android = 'example.brine.kelp',
  ios = 'example.brine.kelp',
  symbols = '    Android: KELP;COBALT_HERON\n    iPhone: COBALT_HERON\n',
  more = '',
  minSdk = '24',
} = {}) => `%YAML 1.1
%TAG !u! tag:unity3d.com,2011:
--- !u!129 &1
PlayerSettings:
  m_ObjectHideFlags: 0
  serializedVersion: 26
  productName: Kelp
  defaultCursor: {fileID: 0}
  AndroidMinSdkVersion: ${minSdk}
  AndroidTargetSdkVersion: 34
  iOSTargetOSVersionString: 13.0
  applicationIdentifier:
${android ? `    Android: ${android}\n` : ''}${ios ? `    iPhone: ${ios}\n` : ''}  useCustomMainManifest: 0
  useCustomMainGradleTemplate: 0
${more}  scriptingDefineSymbols:${symbols === '' ? ' {}' : ''}
${symbols}  platformArchitecture: {}
`;

export const packageManifest = (
  dependencies: Record<string, string> = { 'com.unity.ugui': '1.0.0', 'example.cobaltheron.ads': '3.3.0' },
  registries = [
    { name: 'Cobalt Heron', url: 'https://unity.cobaltheron.example', scopes: ['example.cobaltheron'] },
  ],
) =>
  `${JSON.stringify({ dependencies, ...(registries.length > 0 ? { scopedRegistries: registries } : {}) }, null, 2)}\n`;

export const packagesLock = (version = '3.3.0') =>
  `${JSON.stringify({ dependencies: { 'example.cobaltheron.ads': { version, depth: 0, source: 'registry' } } }, null, 2)}\n`;

export const heronAsset = (android: string, ios: string) =>
  [
    '%YAML 1.1',
    '%TAG !u! tag:unity3d.com,2011:',
    '--- !u!114 &11400000',
    'MonoBehaviour:',
    '  m_ObjectHideFlags: 0',
    '  m_Script: {fileID: 11500000, guid: 7c4e0d1b96f24a3e8b5fc2a9d0e36718, type: 3}',
    '  m_Name: HeronSettings',
    '  m_EditorClassIdentifier: ',
    `  androidAppId: ${android}`,
    `  iosAppId: ${ios}`,
    '',
  ].join('\n');

export const assetPath = 'Assets/CobaltHeron/Resources/HeronSettings.asset';
export const stepsPath = 'Assets/Editor/AdsBuildSteps.cs';
export const placebookPath = 'Assets/Ads/Placebook.cs';

/** A script of the game that starts the SDK once, before anything is loaded. */
export const begins = `using CobaltHeronAds;
using UnityEngine;

public static class KelpGame
{
    [RuntimeInitializeOnLoadMethod(RuntimeInitializeLoadType.BeforeSceneLoad)]
    private static void Begin()
    {
        CobaltHeron.Start();
    }
}
`;

/** A behaviour that keeps a banner for as long as it lives; `unit` is what it is asked with. */
export const reef = (unit: string, more = '') => `using CobaltHeronAds;
using UnityEngine;

public sealed class Reef : MonoBehaviour
{
${more}
    private HeronBanner banner;

    private async void Start()
    {
        banner = await HeronBanner.LoadAsync(${unit});
        banner.OnHeronFailed += HandleFailed;
    }

    private void HandleFailed(string reason)
    {
        Debug.Log(reason);
    }

    private void OnDestroy()
    {
        banner?.Release();
    }
}
`;

/** A small Unity project that is right but for its IDs; give files to change or add. */
export function unityFiles(changes: Record<string, string | null> = {}): Record<string, string> {
  const files: Record<string, string | null> = {
    'ProjectSettings/ProjectSettings.asset': playerSettings(),
    'ProjectSettings/ProjectVersion.txt':
      'm_EditorVersion: 2022.3.40f1\nm_EditorVersionWithRevision: 2022.3.40f1 (0)\n',
    'Packages/manifest.json': packageManifest(),
    'Packages/packages-lock.json': packagesLock(),
    'Assets/CobaltHeron/Native/android.json': '{ "package": "3.3.0" }\n',
    'Assets/CobaltHeron/Native/ios.json': '{ "package": "3.3.0" }\n',
    [assetPath]: heronAsset('CH-A-310772-QK4T8W2N', 'CH-I-310772-M6R9V3XC'),
    'Assets/Scripts/KelpGame.cs': begins,
    ...changes,
  };
  return Object.fromEntries(
    Object.entries(files).filter((entry): entry is [string, string] => entry[1] !== null),
  );
}
