import { factDetail } from '../../../src/core/facts/show.js';
import { describe, expect, it } from 'vitest';
import { runSurvey } from '../../../src/core/surveying.js';
import { kelpWithBanner } from '../../support/flutter.js';
import {
  androidManifest,
  csproj,
  feeds,
  heronKey,
  heronMeta,
  infoPlist,
  listPath,
  manifestPath,
  mauiFiles,
  program,
  reefPage,
} from '../../support/maui.js';
import { findingsOf } from '../../support/rules.js';
import { profiles, treeOf } from '../../support/trees.js';
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

const stages = { test: ['Debug'], production: ['Release'] };
const title = kelpWithBanner({
  stages,
  editions: {
    android: { identifier: 'example.brine.kelp' },
    ios: { identifier: 'example.brine.kelp', tracking: 'Kelp is paid for by ads.' },
  },
});

const survey = (files: Files, of = title) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title: of } }).survey;
const factsOf = (files: Files, kind: string) =>
  survey(files)
    .facts.filter((fact) => fact.kind === kind)
    .map(({ platform, variants, value }) => `${platform} ${variants.join('+')} ${value}`)
    .sort();

describe('recognising MAUI', () => {
  it('says why', () => {
    const { stacks, editions } = survey(mauiFiles());
    expect(stacks).toEqual([
      {
        stack: 'maui',
        root: '',
        evidence: [
          'Kelp.csproj builds an application with MAUI for net8.0-android and net8.0-ios',
          'its configurations are Debug, Release',
        ],
      },
    ]);
    expect(
      editions.map(({ platform, identifier, variants }) => [platform, identifier, variants.length]),
    ).toEqual([
      ['android', 'example.brine.kelp', 2],
      ['ios', 'example.brine.kelp', 2],
    ]);
  });

  it.each([
    'net8.0-android;net9.0-android34.0;net9.0-android35.0',
    'net9.0-android35.0;net10.0-android35.0;net9.0-android34.0',
  ])('builds for the newest of several frameworks: %s', (frameworks) => {
    const newest = frameworks.includes('net10.0') ? 'net10.0-android35.0' : 'net9.0-android35.0';
    const { stacks } = survey(mauiFiles({ 'Kelp.csproj': csproj({ frameworks }) }));
    expect(stacks[0]?.evidence[0]).toBe(`Kelp.csproj builds an application with MAUI for ${newest}`);
  });

  it('takes a library of controls, a console and a test for none', () => {
    const others = {
      'Lib/Lib.csproj': csproj().replace('<OutputType>Exe</OutputType>', ''),
      'Tool/Tool.csproj':
        '<Project><PropertyGroup><OutputType>Exe</OutputType><TargetFramework>net8.0</TargetFramework></PropertyGroup></Project>',
    };
    expect(survey(others).stacks).toEqual([]);
    expect(survey({ ...mauiFiles(), ...others }).stacks.map(({ root }) => root)).toEqual(['']);
  });

  it('reads what stands above the project and beside it', () => {
    const files = {
      ...Object.fromEntries(
        Object.entries(mauiFiles()).map(([path, content]) => [`src/Kelp/${path}`, content]),
      ),
      'Directory.Build.props':
        '<Project><PropertyGroup><Configurations>Debug;Staging;Release</Configurations></PropertyGroup></Project>',
      'src/Kelp/Kelp.csproj': csproj({
        packages:
          '    <PackageReference Include="cobaltheron.ads.maui" />\n    <ProjectReference Include="..\\Reef\\Reef.csproj" />\n',
      }),
      'Directory.Packages.props':
        '<Project><PropertyGroup><ManagePackageVersionsCentrally>true</ManagePackageVersionsCentrally></PropertyGroup><ItemGroup><PackageVersion Include="CobaltHeron.Ads.Maui" Version="2.0.1" /></ItemGroup></Project>',
      'src/Reef/Reef.csproj': '<Project />',
      'src/Reef/Reef.cs': reefPage('"CH-U-310772-BBBB1111"'),
      'src/Other/Other.csproj': '<Project />',
      'src/Other/Other.cs': reefPage('"CH-U-310772-CCCC2222"'),
    };
    expect(factsOf(files, 'dependency')).toEqual([
      'android Debug+Staging+Release 2.0.1',
      'ios Debug+Staging+Release 2.0.1',
    ]);
    expect(factsOf(files, 'unit-id')).toEqual([
      'android Debug+Staging+Release CH-U-310772-BBBB1111',
      'ios Debug+Staging+Release CH-U-310772-BBBB1111',
    ]);
  });
});

describe('what a MAUI build would carry', () => {
  it('has levels, identifiers and frameworks for each platform', () => {
    const files = mauiFiles({
      [listPath]: infoPlist('\t<key>CFBundleIdentifier</key>\n\t<string>example.brine.kelp.phone</string>\n'),
    });
    expect(factsOf(files, 'identifier')).toEqual([
      'android Debug+Release example.brine.kelp',
      'ios Debug+Release example.brine.kelp.phone',
    ]);
    expect(factsOf(files, 'min-sdk')).toEqual(['android Debug+Release 24']);
    expect(factsOf(files, 'compile-sdk')).toEqual(['android Debug+Release 34']);
    expect(factsOf(files, 'deployment-target')).toEqual(['ios Debug+Release 14.0']);
    expect(factsOf(files, 'framework')).toEqual(['android Debug+Release 8.0', 'ios Debug+Release 8.0']);
  });

  it('follows an app ID through placeholders, strings, attributes and partial lists', () => {
    const group = (configuration: string, id: string) =>
      `  <PropertyGroup Condition="'$(Configuration)' == '${configuration}'">\n    <AndroidManifestPlaceholders>$(AndroidManifestPlaceholders);other=1;heron=${id}</AndroidManifestPlaceholders>\n  </PropertyGroup>\n`;
    const placeholders = mauiFiles({
      'Kelp.csproj': csproj({
        more: group('Debug', 'CH-A-100001-SAMPLE0A') + group('Release', 'CH-A-310772-QK4T8W2N'),
      }),
      [manifestPath]: androidManifest(heronMeta('${heron}')),
    });
    expect(factsOf(placeholders, 'app-id')).toEqual([
      'android Debug CH-A-100001-SAMPLE0A',
      'android Release CH-A-310772-QK4T8W2N',
    ]);
    const strings = mauiFiles({
      [manifestPath]: androidManifest(heronMeta('@string/heron')),
      'Platforms/Android/Resources/values/ads.xml':
        '<resources><string name="heron">CH-A-310772-QK4T8W2N</string></resources>',
    });
    expect(factsOf(strings, 'app-id')).toEqual(['android Debug+Release CH-A-310772-QK4T8W2N']);
    const attributes = (on: string) =>
      survey(
        mauiFiles({
          'Platforms/Android/MainApplication.cs': `[${on}]\n[MetaData("example.cobaltheron.ads.APP_ID", Value = "CH-A-310772-QK4T8W2N")]\npublic class Main : X { }\n`,
        }),
      )
        .facts.filter(({ kind }) => kind === 'app-id')
        .map((fact) => `${fact.value} ${factDetail(fact)}`);
    expect(attributes('Application')).toEqual(['CH-A-310772-QK4T8W2N in the manifest']);
    expect(attributes('Activity(MainLauncher = true)')).toEqual([
      'CH-A-310772-QK4T8W2N in activity Main, where the SDK does not look',
    ]);
    const partial = mauiFiles({
      'Kelp.csproj': csproj({
        more: '  <ItemGroup><PartialAppManifest Include="Platforms\\iOS\\Ads.plist" Condition="\'$(Configuration)\' == \'Release\'" /></ItemGroup>\n',
      }),
      [listPath]: infoPlist(heronKey('CH-I-100001-SAMPLE0I')),
      'Platforms/iOS/Ads.plist': infoPlist(heronKey('CH-I-310772-M6R9V3XC')),
    });
    expect(factsOf(partial, 'app-id')).toEqual([
      'ios Debug CH-I-100001-SAMPLE0I',
      'ios Release CH-I-310772-M6R9V3XC',
    ]);
  });

  it('takes permissions from attributes too', () => {
    const files = mauiFiles({
      [manifestPath]: androidManifest('', false),
      'Platforms/Android/Permissions.cs':
        '[assembly: UsesPermission(Android.Manifest.Permission.Internet)]\n[assembly: UsesPermission("android.permission.ACCESS_NETWORK_STATE")]\n',
    });
    expect(factsOf(files, 'permission')).toEqual([
      'android Debug+Release android.permission.ACCESS_NETWORK_STATE',
      'android Debug+Release android.permission.INTERNET',
    ]);
  });

  it('weighs every #if by platform, configuration and what the project defines', () => {
    const ids = `
#if ANDROID && DEBUG
    const string Unit = "CH-U-100001-BANNER0A";
#elif ANDROID
    const string Unit = "CH-U-310772-BBBB1111";
#elif IOS && NET8_0_OR_GREATER && TIDE
    const string Unit = "CH-U-310772-CCCC2222";
#else
    const string Unit = "CH-U-310772-ZZZZ9999";
#endif`;
    const files = mauiFiles({
      'Kelp.csproj': csproj({
        more: '  <PropertyGroup><DefineConstants>$(DefineConstants);TIDE</DefineConstants></PropertyGroup>\n',
      }),
      'Pages/ReefPage.cs': reefPage('Unit', ids),
    });
    expect(factsOf(files, 'unit-id')).toEqual([
      'android Debug CH-U-100001-BANNER0A',
      'android Release CH-U-310772-BBBB1111',
      'ios Debug+Release CH-U-310772-CCCC2222',
    ]);
  });

  it('weighs choices at run time, and the folders of platforms', () => {
    const choice =
      'DeviceInfo.Platform == DevicePlatform.iOS ? "CH-U-310772-CCCC2222" : "CH-U-310772-BBBB1111"';
    expect(factsOf(mauiFiles({ 'A.cs': reefPage(choice) }), 'unit-id')).toEqual([
      'android Debug+Release CH-U-310772-BBBB1111',
      'ios Debug+Release CH-U-310772-CCCC2222',
    ]);
    expect(
      factsOf(
        mauiFiles({
          'Platforms/iOS/A.cs': reefPage('OperatingSystem.IsIOS() ? "CH-U-310772-CCCC2222" : ""'),
        }),
        'unit-id',
      ),
    ).toEqual(['ios Debug+Release CH-U-310772-CCCC2222']);
    const removed = csproj({
      more: `  <ItemGroup Condition="$(TargetFramework.StartsWith('net8.0-android')) != true">\n    <Compile Remove="**\\*.android.cs" />\n  </ItemGroup>\n`,
    });
    expect(
      factsOf(
        mauiFiles({ 'Kelp.csproj': removed, 'Ads/Ids.android.cs': reefPage('"CH-U-310772-BBBB1111"') }),
        'unit-id',
      ),
    ).toEqual(['android Debug+Release CH-U-310772-BBBB1111']);
  });

  const page = (inner: string) =>
    `<ContentPage xmlns="http://schemas.microsoft.com/dotnet/2021/maui" xmlns:ads="clr-namespace:CobaltHeronAds">\n  ${inner}\n</ContentPage>\n`;

  it.each([
    [
      'an extension',
      `<ads:BannerView Unit="{OnPlatform Android=CH-U-310772-BBBB1111, iOS='CH-U-310772-CCCC2222'}" />`,
    ],
    [
      'a default',
      `<ads:BannerView Unit="{OnPlatform CH-U-310772-CCCC2222, Android=CH-U-310772-BBBB1111}" />`,
    ],
    [
      'elements',
      `<ads:BannerView><ads:BannerView.Unit><OnPlatform x:TypeArguments="x:String"><On Platform="Android" Value="CH-U-310772-BBBB1111" /><On Platform="iOS, WinUI" Value="CH-U-310772-CCCC2222" /></OnPlatform></ads:BannerView.Unit></ads:BannerView>`,
    ],
  ])('reads the platforms of markup: %s', (_, inner) => {
    const files = mauiFiles({ 'Pages/ReefPage.xaml': page(inner) });
    expect(factsOf(files, 'unit-id')).toEqual([
      'android Debug+Release CH-U-310772-BBBB1111',
      'ios Debug+Release CH-U-310772-CCCC2222',
    ]);
    const places = survey(files).facts.filter(({ kind }) => kind === 'unit-id');
    for (const { value, place } of places)
      expect(
        page(inner)
          .split('\n')
          [place.line - 1]?.slice(place.column - 1),
      ).toMatch(new RegExp(`^${value}`));
  });

  it('sees markup that leaves a platform open, swaps two, or says one for both', () => {
    const rules = (inner: string) =>
      findingsOf(mauiFiles({ 'Pages/ReefPage.xaml': page(inner) }), title)
        .map(({ rule }) => rule)
        .filter((rule) => rule.startsWith('platform/'));
    expect(rules('<ads:BannerView Unit="{OnPlatform iOS=CH-U-310772-CCCC2222}" />')).toEqual([
      'platform/case-missing',
      'platform/placement-on-one-side',
    ]);
    expect(
      rules('<ads:BannerView Unit="{OnPlatform iOS=CH-U-310772-BBBB1111, Android=CH-U-310772-CCCC2222}" />'),
    ).toEqual(['platform/branches-swapped', 'platform/branches-swapped']);
    expect(rules('<ads:BannerView Unit="CH-U-310772-BBBB1111" />')).toEqual(['platform/one-id-for-both']);
  });
});

describe('what is wrong with MAUI projects', () => {
  const rules = (changes: Record<string, string | null>) =>
    findingsOf(mauiFiles(changes), title).map(({ rule, platform }) => `${rule} ${platform}`);

  it('sees packages that are missing, old, without a feed, or held back by a lock', () => {
    expect(rules({ 'Kelp.csproj': csproj({ packages: '' }) })).toContain('build/dependency-missing android');
    const old = csproj({
      packages: '    <PackageReference Include="CobaltHeron.Ads.Maui" Version="1.9.0" />\n',
    });
    expect(rules({ 'Kelp.csproj': old })).toContain('build/dependency-too-old null');
    expect(rules({ 'nuget.config': feeds('https://nuget.other.example/index.json') })).toContain(
      'build/feed-missing null',
    );
    const lock = (version: string) =>
      JSON.stringify({
        version: 1,
        dependencies: {
          'net8.0-android34.0': { 'CobaltHeron.Ads.Maui': { type: 'Direct', resolved: version } },
          'net8.0-ios17.2': { 'CobaltHeron.Ads.Maui': { type: 'Direct', resolved: version } },
        },
      });
    expect(rules({ 'packages.lock.json': lock('2.0.0') })).toContain('build/version-held-back android');
    expect(rules({ 'packages.lock.json': '{ "version": 1, "dependencies": {} }' })).toContain(
      'build/install-not-run null',
    );
    expect(
      rules({ 'packages.lock.json': lock('2.0.1') }).filter((rule) => rule.startsWith('build/')),
    ).toEqual([]);
    expect(rules({ 'Kelp.csproj': csproj({ frameworks: 'net7.0-android;net7.0-ios' }) })).toContain(
      'build/framework-too-old null',
    );
  });

  it('sees a start-up before there is a builder, and after it has built', () => {
    const early = program('').replace(
      '        var builder',
      '        CobaltHeron.Start();\n        var builder',
    );
    const late = program('').replace(
      'return builder.Build();',
      'var app = builder.Build();\n        CobaltHeron.Start();\n        return app;',
    );
    expect(rules({ 'MauiProgram.cs': early })).toContain('code/start-before-ready null');
    expect(rules({ 'MauiProgram.cs': late })).toContain('code/start-before-ready null');
    expect(rules({})).not.toContain('code/start-before-ready null');
  });
});

describe('wiring MAUI', () => {
  it('leaves nothing to mend where call sites are replaced too', () => {
    const code = reefPage(
      'DeviceInfo.Platform == DevicePlatform.Android ? "CH-U-310772-BBBB1111" : "CH-U-310772-CCCC2222"',
    );
    const files = mauiFiles({ 'Pages/ReefPage.cs': code });
    const { after } = holds(files, title, asked({ callSites: true }));
    expect(text(after['Pages/ReefPage.cs'])).toContain(
      'HeronBanner.LoadAsync(Placebook.Footer.Unit(PlacebookNetwork.CobaltHeron));',
    );
    expect(text(after['Pages/ReefPage.cs'])).not.toContain('using Brine.Kelp;');
    expect(findingsOf(after as Record<string, string>, title)).toEqual([]);
  });

  it('names the namespace of the placebook where code stands in another', () => {
    const code = reefPage('"CH-U-310772-BBBB1111"').replace('Brine.Kelp.Pages', 'Other.Pages');
    const after = written(
      mauiFiles({ 'A.cs': code }),
      plan(mauiFiles({ 'A.cs': code }), title, asked({ callSites: true })),
    );
    expect(text(after['A.cs'])).toContain('using CobaltHeronAds;\nusing Brine.Kelp;\n');
  });

  it('keeps a way of its own that a project has', () => {
    const group = (configuration: string, id: string) =>
      `  <PropertyGroup Condition="'$(Configuration)' == '${configuration}'">\n    <AndroidManifestPlaceholders>heron=${id}</AndroidManifestPlaceholders>\n  </PropertyGroup>\n`;
    const files = mauiFiles({
      'Kelp.csproj': csproj({
        more: group('Debug', 'CH-A-310772-QK4T8W2N') + group('Release', 'CH-A-100001-SAMPLE0A'),
      }),
      [manifestPath]: androidManifest(heronMeta('${heron}')),
    });
    const { after } = holds(files, title);
    expect(text(after['Kelp.csproj'])).toContain(
      group('Debug', 'CH-A-100001-SAMPLE0A') + group('Release', 'CH-A-310772-QK4T8W2N'),
    );
    expect(text(after[manifestPath])).toBe(files[manifestPath]);
  });

  it('leaves attributes of C# to a person', () => {
    const files = mauiFiles({
      'Platforms/Android/Main.cs':
        '[Application]\n[MetaData("example.cobaltheron.ads.APP_ID", Value = "CH-A-310772-QK4T8W2N")]\nclass Main { }\n',
    });
    const { edits, byHand } = plan(files, title);
    expect(edits.map(({ path }) => path)).not.toContain(manifestPath);
    expect(byHand).toContainEqual(expect.objectContaining({ where: 'Platforms/Android/Main.cs:2' }));
  });

  it('puts versions into the central list where there is one', () => {
    const files = mauiFiles({
      'Kelp.csproj': csproj({ packages: '' }).replace(' Version="8.0.91"', ''),
      'Directory.Packages.props':
        '<Project>\n  <PropertyGroup>\n    <ManagePackageVersionsCentrally>true</ManagePackageVersionsCentrally>\n  </PropertyGroup>\n  <ItemGroup>\n    <PackageVersion Include="Microsoft.Maui.Controls" Version="8.0.91" />\n  </ItemGroup>\n</Project>\n',
    });
    const { after } = holds(files, title);
    expect(text(after['Kelp.csproj'])).toContain('<PackageReference Include="CobaltHeron.Ads.Maui" />');
    expect(text(after['Directory.Packages.props'])).toContain(
      '<PackageVersion Include="CobaltHeron.Ads.Maui" Version="2.0.1" />',
    );
  });

  it('raises levels only when it is asked to', () => {
    const files = mauiFiles({ 'Kelp.csproj': csproj().replace('>24.0<', '>21.0<') });
    expect(text(written(files, plan(files, title))['Kelp.csproj'])).toContain('>21.0<');
    expect(text(holds(files, title, asked({ levels: true })).after['Kelp.csproj'])).toContain('>23.0<');
  });

  it('says in markup what code has to do', () => {
    const inner =
      '<Page xmlns="x"><Banner Unit="{OnPlatform Android=CH-U-310772-BBBB1111, iOS=CH-U-310772-CCCC2222}" /></Page>\n';
    const { byHand } = plan(mauiFiles({ 'A.xaml': inner }), title, asked({ callSites: true }));
    expect(byHand).toContainEqual(expect.objectContaining({ where: 'A.xaml:1', rule: 'code/hard-coded-id' }));
  });
});

describe('wiring MAUI for any networks', () => {
  const fresh = mauiFiles({
    'Kelp.csproj': csproj({ packages: '' }),
    'nuget.config': null,
    [manifestPath]: androidManifest('', false),
  });
  const shapes: Files[] = [
    fresh,
    Object.fromEntries(
      Object.entries(fresh).map(([path, content]) => [path, content.replace(/\n/g, '\r\n')]),
    ),
    Object.fromEntries(
      Object.entries(fresh).map(([path, content]) => [path, content.replace(/^( {2})+/gm, '\t')]),
    ),
    { ...fresh, 'nuget.config': feeds('https://nuget.other.example/index.json') },
  ];
  const networks = ['cobalt-heron', 'marlstone', 'quincebury', 'ferrowick', 'tallowfield'];
  const pairs = networks.flatMap((one, index) =>
    networks.slice(index + 1).map((other) => [one, other] as const),
  );
  const identifiers = { android: 'example.brine.kelp', ios: 'example.brine.kelp' };

  it.each(pairs)('%s and %s: every law holds, and the tree comes back', (one, other) => {
    for (const files of shapes) {
      const both = titleOn([one, other], identifiers, stages);
      comesBack(files, both, holds(files, both, handedOut));
    }
  });

  it('serves three configurations and two stages', () => {
    const three = titleOn(['cobalt-heron', 'marlstone'], identifiers, {
      test: ['Debug', 'Staging'],
      production: ['Release'],
    });
    const files = {
      ...fresh,
      'Directory.Build.props':
        '<Project><PropertyGroup><Configurations>Debug;Staging;Release</Configurations></PropertyGroup></Project>',
    };
    const { after } = holds(files, three);
    expect(text(after['Ads/Placebook.cs'])).toContain('#if ANDROID && !RELEASE');
    expect(text(after['Kelp.csproj'])).toContain(`Condition="'$(Configuration)' != 'Release'"`);
    const units = survey(after, three).facts.filter(
      ({ kind, platform }) => kind === 'unit-id' && platform === 'ios',
    );
    expect(units.map(({ variants }) => variants.join('+')).sort()).toEqual([
      'Debug+Staging',
      'Debug+Staging',
      'Release',
      'Release',
    ]);
  });
});
