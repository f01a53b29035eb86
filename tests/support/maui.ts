/** A project file as the template writes it; `more` goes before its end. */
export const csproj = ({
  packages = '    <PackageReference Include="CobaltHeron.Ads.Maui" Version="2.0.1" />\n',
  frameworks = 'net8.0-android;net8.0-ios',
  more = '',
} = {}) => `<Project Sdk="Microsoft.NET.Sdk">

  <PropertyGroup>
    <TargetFrameworks>${frameworks}</TargetFrameworks>
    <TargetFrameworks Condition="$([MSBuild]::IsOSPlatform('windows'))">$(TargetFrameworks);net8.0-windows10.0.19041.0</TargetFrameworks>
    <OutputType>Exe</OutputType>
    <RootNamespace>Brine.Kelp</RootNamespace>
    <UseMaui>true</UseMaui>
    <SingleProject>true</SingleProject>
    <ApplicationId>example.brine.kelp</ApplicationId>
    <SupportedOSPlatformVersion Condition="$([MSBuild]::GetTargetPlatformIdentifier('$(TargetFramework)')) == 'ios'">14.0</SupportedOSPlatformVersion>
    <SupportedOSPlatformVersion Condition="$([MSBuild]::GetTargetPlatformIdentifier('$(TargetFramework)')) == 'android'">24.0</SupportedOSPlatformVersion>
  </PropertyGroup>

  <ItemGroup>
    <PackageReference Include="Microsoft.Maui.Controls" Version="8.0.91" />
${packages}  </ItemGroup>
${more}
</Project>
`;

export const androidManifest = (body = '', permissions = true) => `<?xml version="1.0" encoding="utf-8"?>
<manifest xmlns:android="http://schemas.android.com/apk/res/android">
  <application android:allowBackup="true" android:icon="@mipmap/appicon">
${body}  </application>
${permissions ? '  <uses-permission android:name="android.permission.ACCESS_NETWORK_STATE" />\n  <uses-permission android:name="android.permission.INTERNET" />\n' : ''}</manifest>
`;

export const heronMeta = (value: string) =>
  `    <meta-data android:name="example.cobaltheron.ads.APP_ID" android:value="${value}" />\n`;

export const infoPlist = (keys = '') => `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE plist PUBLIC "-//Apple//DTD PLIST 1.0//EN" "http://www.apple.com/DTDs/PropertyList-1.0.dtd">
<plist version="1.0">
<dict>
	<key>LSRequiresIPhoneOS</key>
	<true/>
${keys}</dict>
</plist>
`;

export const heronKey = (value: string) => `	<key>CobaltHeronAppID</key>\n	<string>${value}</string>\n`;

export const feeds = (
  url = 'https://nuget.cobaltheron.example/v3/index.json',
) => `<?xml version="1.0" encoding="utf-8"?>
<configuration>
  <packageSources>
    <add key="Cobalt Heron" value="${url}" />
  </packageSources>
</configuration>
`;

/** The builder of the application; `calls` stand between its beginning and its end. */
export const program = (calls = '        CobaltHeron.Start();\n') => `using CobaltHeronAds;

namespace Brine.Kelp;

public static class MauiProgram
{
    public static MauiApp CreateMauiApp()
    {
        var builder = MauiApp.CreateBuilder();
        builder.UseMauiApp<App>();
${calls}        return builder.Build();
    }
}
`;

/** A page that keeps a banner for as long as it is seen; `unit` is what it is asked with. */
export const reefPage = (unit: string, more = '') => `using CobaltHeronAds;

namespace Brine.Kelp.Pages;

public partial class ReefPage : ContentPage
{
${more}
    private HeronBanner? banner;

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
}
`;

export const manifestPath = 'Platforms/Android/AndroidManifest.xml';
export const listPath = 'Platforms/iOS/Info.plist';

/** A small MAUI project that is right but for its IDs; give files to change or add. */
export function mauiFiles(changes: Record<string, string | null> = {}): Record<string, string> {
  const files: Record<string, string | null> = {
    'Kelp.csproj': csproj(),
    'nuget.config': feeds(),
    'MauiProgram.cs': program(),
    [manifestPath]: androidManifest(),
    [listPath]: infoPlist(),
    ...changes,
  };
  return Object.fromEntries(
    Object.entries(files).filter((entry): entry is [string, string] => entry[1] !== null),
  );
}
