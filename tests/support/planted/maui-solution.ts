import { androidManifest, infoPlist } from '../maui.js';
import { kelp, placement } from '../trees.js';
import type { PlantedTree } from './model.js';

const page = (name: string, body: string) => `using CobaltHeronAds;
using Brine.Kelp.Ads;

namespace Brine.Kelp.Pages;

public partial class ${name} : ContentPage
{
${body}}
`;
const banner = (unit: string) => `    private HeronBanner? banner;

    public async Task Load()
    {
        banner = await HeronBanner.LoadAsync(${unit});
        banner.OnHeronFailed += (_, reason) => Console.WriteLine(reason);
    }

    protected override void OnDisappearing()
    {
        banner?.Release();
        base.OnDisappearing();
    }
`;
const interstitial = (unit: string, show: string) => `    private HeronInterstitial? ad;

    public async Task Load()
    {
        ad = await HeronInterstitial.LoadAsync(${unit});
        ad.OnHeronFailed += (_, reason) => Next();
        ad.OnHeronClosed += (_, _) => Next();
    }

${show}
    private void Next() => Navigation.PopAsync();

    protected override void OnDisappearing()
    {
        ad?.Release();
        base.OnDisappearing();
    }
`;

/** Central properties and versions, shared code in a project of its own, an interface with a class for each platform. */
export const mauiSolution: PlantedTree = {
  name: 'a .NET MAUI solution with central properties and shared projects',
  files: {
    'Directory.Build.props':
      '<Project>\n  <PropertyGroup>\n    <KelpFrameworks>net8.0-android;net8.0-ios</KelpFrameworks>\n    <Nullable>enable</Nullable>\n  </PropertyGroup>\n</Project>\n',
    'Directory.Packages.props':
      '<Project>\n  <PropertyGroup>\n    <ManagePackageVersionsCentrally>true</ManagePackageVersionsCentrally>\n  </PropertyGroup>\n  <ItemGroup>\n    <PackageVersion Include="Microsoft.Maui.Controls" Version="8.0.91" />\n    <PackageVersion Include="CobaltHeron.Ads.Maui" Version="1.9.0" />\n  </ItemGroup>\n</Project>\n',
    'nuget.config':
      '<?xml version="1.0" encoding="utf-8"?>\n<configuration>\n  <packageSources>\n    <clear />\n    <add key="nuget" value="https://nuget.brine.example/v3/index.json" />\n    <add key="Cobalt Heron" value="https://nuget.cobaltheron.example/v3/index.json" />\n  </packageSources>\n</configuration>\n',
    'src/Kelp/Kelp.csproj': `<Project Sdk="Microsoft.NET.Sdk">
  <PropertyGroup>
    <TargetFrameworks>$(KelpFrameworks)</TargetFrameworks>
    <OutputType>Exe</OutputType>
    <RootNamespace>Brine.Kelp</RootNamespace>
    <UseMaui>true</UseMaui>
    <SingleProject>true</SingleProject>
    <ApplicationId>example.brine.kelp</ApplicationId>
    <SupportedOSPlatformVersion Condition="$([MSBuild]::GetTargetPlatformIdentifier('$(TargetFramework)')) == 'ios'">14.0</SupportedOSPlatformVersion>
    <SupportedOSPlatformVersion Condition="$([MSBuild]::GetTargetPlatformIdentifier('$(TargetFramework)')) == 'android'">24.0</SupportedOSPlatformVersion>
  </PropertyGroup>
  <PropertyGroup Condition="$([MSBuild]::GetTargetPlatformIdentifier('$(TargetFramework)')) == 'ios'">
    <MtouchExtraArgs>$(MtouchExtraArgs) --gcc_flags=-ObjC</MtouchExtraArgs>
  </PropertyGroup>
  <ItemGroup>
    <PackageReference Include="Microsoft.Maui.Controls" />
    <ProjectReference Include="../Kelp.Ads/Kelp.Ads.csproj" />
    <Compile Remove="Archive/**" />
  </ItemGroup>
</Project>
`,
    'src/Kelp/MauiProgram.cs': `using CobaltHeronAds;
using Brine.Kelp.Ads;

namespace Brine.Kelp;

public static class MauiProgram
{
    public static MauiApp CreateMauiApp()
    {
        var builder = MauiApp.CreateBuilder();
        CobaltHeron.Start();
#if DEBUG
        CobaltHeron.TestDevices = new[] { "a81f" };
#endif
        builder.UseMauiApp<App>();
#if ANDROID
        builder.Services.AddSingleton<IAdUnits, DroidUnits>();
#elif IOS
        builder.Services.AddSingleton<IAdUnits, AppleUnits>();
#endif
        return builder.Build();
    }
}
`,
    'src/Kelp/Platforms/Android/AndroidManifest.xml': androidManifest('', true),
    'src/Kelp/Platforms/Android/Ads.cs': `using Android.App;

#if DEBUG
[assembly: MetaData("example.cobaltheron.ads.APP_ID", Value = "CH-A-100001-SAMPLE0A")]
#else
[assembly: MetaData("example.cobaltheron.ads.APP_ID", Value = "CH-A-310772-QK4T8W2N")]
#endif
`,
    'src/Kelp/Platforms/iOS/Info.plist': infoPlist(
      '\t<key>CobaltHeronAppID</key>\n\t<string>CH-A-310772-QK4T8W2N</string>\n\t<key>NSUserTrackingUsageDescription</key>\n\t<string>Kelp is paid for by ads.</string>\n\t<key>SKAdNetworkItems</key>\n\t<array>\n\t\t<dict>\n\t\t\t<key>SKAdNetworkIdentifier</key>\n\t\t\t<string>ch7k2m9td4.skadnetwork</string>\n\t\t</dict>\n\t\t<dict>\n\t\t\t<key>SKAdNetworkIdentifier</key>\n\t\t\t<string>h3r0nw8ngs.skadnetwork</string>\n\t\t</dict>\n\t</array>\n',
    ),
    'src/Kelp/Pages/ShorePage.cs': page(
      'ShorePage',
      `    private readonly IAdUnits units;\n\n    public ShorePage(IAdUnits units) => this.units = units;\n\n${banner('units.Shore')}`,
    ),
    'src/Kelp/Pages/PoolPage.cs': page('PoolPage', banner('PoolUnits.Current')),
    'src/Kelp/Pages/TidePage.cs': page(
      'TidePage',
      interstitial(
        'TideUnits.Unit',
        '    private void OnTapped()\n    {\n        if (ad is { } && ad.IsReady) ad.Show();\n    }\n',
      ),
    ),
    'src/Kelp/Pages/ReefPage.cs': page(
      'ReefPage',
      interstitial(
        'TideUnits.Unit',
        '    protected override void OnAppearing()\n    {\n        base.OnAppearing();\n        if (ad?.IsReady == true) ad.Show();\n    }\n',
      ),
    ),
    'src/Kelp/Archive/OldPage.cs': page('OldPage', banner('"CH-U-310772-PL8V2MXC"')),
    'src/Kelp.Ads/Kelp.Ads.csproj':
      '<Project Sdk="Microsoft.NET.Sdk">\n  <PropertyGroup>\n    <TargetFrameworks>$(KelpFrameworks)</TargetFrameworks>\n    <UseMaui>true</UseMaui>\n    <RootNamespace>Brine.Kelp.Ads</RootNamespace>\n  </PropertyGroup>\n  <ItemGroup>\n    <PackageReference Include="CobaltHeron.Ads.Maui" />\n    <Compile Remove="**/*.ios.cs" Condition="$([MSBuild]::GetTargetPlatformIdentifier(\'$(TargetFramework)\')) != \'ios\'" />\n    <Compile Remove="**/*.android.cs" Condition="$([MSBuild]::GetTargetPlatformIdentifier(\'$(TargetFramework)\')) != \'android\'" />\n  </ItemGroup>\n</Project>\n',
    'src/Kelp.Ads/IAdUnits.cs':
      'namespace Brine.Kelp.Ads;\n\npublic interface IAdUnits\n{\n    string Shore { get; }\n}\n',
    'src/Kelp.Ads/DroidUnits.android.cs': `namespace Brine.Kelp.Ads;

public sealed class DroidUnits : IAdUnits
{
#if DEBUG
    public string Shore => "CH-U-100001-BANNER0A";
#else
    public string Shore => "CH-U-310772-SH4R7KQ2";
#endif
}
`,
    'src/Kelp.Ads/AppleUnits.ios.cs': `namespace Brine.Kelp.Ads;

public sealed class AppleUnits : IAdUnits
{
#if DEBUG
    public string Shore => "CH-U-100001-BANNER0I";
#else
    public string Shore => "CH-U-310772-SHW9N3TB";
#endif
}
`,
    'src/Kelp.Ads/PoolUnits.cs': `namespace Brine.Kelp.Ads;

public static partial class PoolUnits
{
    public static string Current =>
#if DEBUG
        Sample;
#else
        Store;
#endif
}
`,
    'src/Kelp.Ads/PoolUnits.android.cs':
      'namespace Brine.Kelp.Ads;\n\npublic static partial class PoolUnits\n{\n    private const string Sample = "CH-U-100001-BANNER0A";\n    private const string Store = "CH-U-310772-PL8V2MXC";\n}\n',
    'src/Kelp.Ads/PoolUnits.ios.cs':
      'namespace Brine.Kelp.Ads;\n\npublic static partial class PoolUnits\n{\n    private const string Sample = "CH-U-310772-PLJ6D5ZH";\n    private const string Store = "CH-U-100001-BANNER0I";\n}\n',
    'src/Kelp.Ads/TideUnits.cs': `namespace Brine.Kelp.Ads;

public static class TideUnits
{
    private static readonly Dictionary<DevicePlatform, string> Store = new()
    {
        [DevicePlatform.Android] = "CH-U-310772-TD3G9WKR",
        [DevicePlatform.iOS] = "CH-U-310772-TDQ7B4NM",
    };

    private static readonly Dictionary<DevicePlatform, string> Samples = new()
    {
        [DevicePlatform.Android] = "CH-U-100001-INTERS0A",
        [DevicePlatform.iOS] = "CH-U-100001-INTERS0I",
    };

#if DEBUG
    public static string Unit => Samples[DeviceInfo.Platform];
#else
    public static string Unit => Store[DeviceInfo.Platform];
#endif
}
`,
  },
  title: kelp({
    stages: { test: ['Debug'], production: ['Release'] },
    placements: {
      shore: placement('banner', 'CH-U-310772-SH4R7KQ2', 'CH-U-310772-SHW9N3TB'),
      pool: placement('banner', 'CH-U-310772-PL8V2MXC', 'CH-U-310772-PLJ6D5ZH'),
      tide: placement('interstitial', 'CH-U-310772-TD3G9WKR', 'CH-U-310772-TDQ7B4NM'),
    },
  }),
  book: 'src/Kelp.Ads/Ads/Placebook.cs',
  wrong: [
    [
      'stage/production-id-in-test',
      'src/Kelp.Ads/PoolUnits.ios.cs',
      'private const string Sample = "CH-U-310772-PLJ6D5ZH";',
      'the two constants are exchanged on iOS',
    ],
    [
      'stage/test-id-in-production',
      'src/Kelp.Ads/PoolUnits.ios.cs',
      'private const string Store = "CH-U-100001-BANNER0I";',
      'the other one',
    ],
    [
      'unit-id/not-in-build',
      'src/Kelp/Platforms/iOS/Info.plist',
      '<?xml version="1.0" encoding="UTF-8"?>',
      'so the shop has no unit of the pool on iOS',
    ],
    [
      'app-id/wrong-platform',
      'src/Kelp/Platforms/iOS/Info.plist',
      '<string>CH-A-310772-QK4T8W2N</string>',
      'the Android app ID was copied',
    ],
    [
      'build/dependency-too-old',
      'Directory.Packages.props',
      '<PackageVersion Include="CobaltHeron.Ads.Maui" Version="1.9.0" />',
      'the central list holds an old version',
    ],
    [
      'code/show-on-return',
      'src/Kelp/Pages/ReefPage.cs',
      'if (ad?.IsReady == true) ad.Show();',
      'each time the page comes back',
    ],
  ],
  byHand: {
    edits: [
      ['src/Kelp.Ads/PoolUnits.ios.cs', 'Store = "CH-U-100001-BANNER0I"', 'Store = "CH-U-310772-PLJ6D5ZH"'],
      ['src/Kelp/Platforms/iOS/Info.plist', 'CH-A-310772-QK4T8W2N', 'CH-I-310772-M6R9V3XC'],
      [
        'src/Kelp/Pages/ReefPage.cs',
        'protected override void OnAppearing()\n    {\n        base.OnAppearing();',
        'private void OnTapped()\n    {',
      ],
    ],
  },
  right: [
    ['src/Kelp/Kelp.csproj', '$(KelpFrameworks)', 'the frameworks come from a property of a file above'],
    [
      'src/Kelp.Ads/Kelp.Ads.csproj',
      '<PackageReference Include="CobaltHeron.Ads.Maui" />',
      'the SDK comes with the project of the ads',
    ],
    ['src/Kelp/Platforms/Android/Ads.cs', '#if DEBUG', 'the app ID of each stage, in attributes'],
    ['src/Kelp/MauiProgram.cs', 'CobaltHeron.TestDevices', 'test devices in debug builds alone'],
    [
      'src/Kelp.Ads/DroidUnits.android.cs',
      'DroidUnits : IAdUnits',
      'a class for each platform, by the suffix of its file',
    ],
    ['src/Kelp.Ads/TideUnits.cs', 'Samples[DeviceInfo.Platform]', 'tables by platform, chosen by stage'],
    ['src/Kelp/Archive/OldPage.cs', '"CH-U-310772-PL8V2MXC"', 'what is not compiled'],
    ['src/Kelp/Pages/TidePage.cs', 'if (ad is { } && ad.IsReady) ad.Show();', 'shown on a tap'],
  ],
};
