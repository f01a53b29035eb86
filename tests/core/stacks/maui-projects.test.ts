import { describe, expect, it } from 'vitest';
import type { Plan } from '../../../src/core/planning.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { androidManifest, csproj, feeds, mauiFiles, reefPage } from '../../support/maui.js';
import { kelpWithBanner } from '../../support/flutter.js';
import { profiles, treeOf } from '../../support/trees.js';
import { asked, holds, plan, text, unplan, written, type Files } from '../../support/wiring.js';

const title = kelpWithBanner({ stages: { test: ['Debug'], production: ['Release'] } });
const survey = (files: Files) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title } }).survey;
const takenOut = (files: Files, { edits }: Plan): Files =>
  written(
    files,
    unplan(
      files,
      title,
      'cobalt-heron',
      edits.flatMap(({ adds }) => adds),
    ),
  );
const units = (files: Files) =>
  [
    ...new Set(
      survey(files).facts.flatMap(({ kind, platform, place }) =>
        kind === 'unit-id' ? [`${platform} ${place.path}`] : [],
      ),
    ),
  ].sort();
const library = (items = '') =>
  `<Project Sdk="Microsoft.NET.Sdk">\n  <PropertyGroup>\n    <TargetFrameworks>net8.0-android;net8.0-ios</TargetFrameworks>\n  </PropertyGroup>\n  <ItemGroup>\n${items}  </ItemGroup>\n</Project>\n`;
const page = reefPage('"CH-U-310772-BBBB1111"');
const below = (files: Record<string, string>) =>
  Object.fromEntries(Object.entries(files).map(([path, text]) => [`Kelp/${path}`, text]));
const withItems = (items: string) =>
  csproj({}).replace('</Project>', `  <ItemGroup>\n${items}  </ItemGroup>\n</Project>`);

describe('projects that an application of .NET MAUI is made of', () => {
  it.each([
    ['a property', '<KelpFrameworks>net8.0-android;net8.0-ios</KelpFrameworks>', '$(KelpFrameworks)'],
    ['two properties', '<A>net8.0-android</A><B>$(A);net8.0-ios</B>', '$(B)'],
    [
      'a property of its own name',
      '<TargetFrameworks>net8.0-android</TargetFrameworks>',
      '$(TargetFrameworks);net8.0-ios',
    ],
  ])('take their frameworks from %s of a file above', (_, given, list) => {
    const project = csproj({}).replace(
      /<TargetFrameworks>[^<]*<\/TargetFrameworks>/,
      `<TargetFrameworks>${list}</TargetFrameworks>`,
    );
    expect(project).toContain(list);
    const files = mauiFiles({
      'Kelp.csproj': project,
      'Directory.Build.props': `<Project><PropertyGroup>${given}</PropertyGroup></Project>`,
    });
    expect(survey(files).editions.map(({ platform }) => platform)).toEqual(['android', 'ios']);
  });

  it('end, where lists of frameworks go round', () => {
    const files = mauiFiles({
      'Kelp.csproj': csproj({}).replace(
        /<TargetFrameworks>[^<]*<\/TargetFrameworks>/,
        '<TargetFrameworks>$(A);net8.0-ios</TargetFrameworks>',
      ),
      'Directory.Build.props':
        '<Project><PropertyGroup><A>$(B)</A><B>$(A);$(B)</B></PropertyGroup></Project>',
    });
    expect(survey(files).editions.map(({ platform }) => platform)).toEqual(['ios']);
  });

  it('leave out what they remove, by platform, and take back what they include again', () => {
    const removal = [
      `    <Compile Remove="**\\*.ios.cs" Condition="'$(TargetPlatformIdentifier)' != 'ios'" />\n`,
      `    <Compile Remove="**\\*.android.cs" Condition="'$(TargetPlatformIdentifier)' != 'android'" />\n`,
      '    <Compile Remove="Old\\**" />\n    <Compile Include="Old\\Kept.cs" />\n',
    ].join('');
    const files = mauiFiles({
      'Kelp.csproj': withItems(removal),
      'Pages/Reef.ios.cs': page,
      'Pages/Reef.android.cs': page,
      'Old/Gone.cs': page,
      'Old/Kept.cs': page,
    });
    expect(units(files)).toEqual([
      'android Old/Kept.cs',
      'android Pages/Reef.android.cs',
      'ios Old/Kept.cs',
      'ios Pages/Reef.ios.cs',
    ]);
  });

  it('are evaluated each for itself, and referred to for one platform alone', () => {
    const references = [
      '    <ProjectReference Include="..\\Shared\\Shared.csproj" />\n',
      `    <ProjectReference Include="..\\Apple\\Apple.csproj" Condition="'$(TargetPlatformIdentifier)' == 'ios'" />\n`,
    ].join('');
    const files = {
      ...below(mauiFiles({ 'Kelp.csproj': withItems(references) })),
      'Shared/Shared.csproj': library(
        `    <Compile Remove="Droid\\**" Condition="'$(TargetPlatformIdentifier)' == 'ios'" />\n`,
      ),
      'Shared/Both.cs': page,
      'Shared/Droid/Only.cs': page,
      'Apple/Apple.csproj': library(),
      'Apple/Only.cs': page,
      'Beside/Beside.csproj': library(),
      'Beside/Other.cs': page,
    };
    expect(units(files)).toEqual([
      'android Shared/Both.cs',
      'android Shared/Droid/Only.cs',
      'ios Apple/Only.cs',
      'ios Shared/Both.cs',
    ]);
  });
});

describe('packages that come with another project', () => {
  const app = (items: string, packages = '') =>
    csproj({ packages }).replace('</Project>', `  <ItemGroup>\n${items}  </ItemGroup>\n</Project>`);
  const toShared = '    <ProjectReference Include="..\\Shared\\Shared.csproj" />\n';
  const heron = (more = '', version = '2.0.1') =>
    `    <PackageReference Include="CobaltHeron.Ads.Maui" Version="${version}"${more} />\n`;
  const tree = (items: string, shared: string, more: Record<string, string> = {}): Files => ({
    ...below(mauiFiles({ 'Kelp.csproj': app(items) })),
    'Shared/Shared.csproj': library(shared),
    ...more,
  });
  const rules = (files: Files) =>
    plan(files, title).remaining.map(({ rule, place }) => `${rule} ${place?.path}`);
  const packages = (files: Files) =>
    survey(files).facts.flatMap(({ kind, platform, value, place }) =>
      kind === 'dependency' ? [`${platform} ${value} ${place.path}`] : [],
    );
  const feedAt = (folder: string) => ({ [`${folder}nuget.config`]: feeds() });
  const feedless = (files: Files) =>
    Object.fromEntries(Object.entries(files).filter(([path]) => !path.endsWith('nuget.config')));

  it('are the application’s, unless that project keeps them for itself', () => {
    expect(packages(tree(toShared, heron()))).toEqual([
      'android 2.0.1 Shared/Shared.csproj',
      'ios 2.0.1 Shared/Shared.csproj',
    ]);
    for (const kept of [' PrivateAssets="all"', ' PrivateAssets="runtime;All"'])
      expect(packages(tree(toShared, heron(kept)))).toEqual([]);
    const unused = toShared.replace(' />', ' ReferenceOutputAssembly="false" />');
    expect(packages(tree(unused, heron()))).toEqual([]);
  });

  it('give way to what is nearer', () => {
    const files = tree(toShared + heron('', '2.1.0'), heron());
    expect(packages(files)).toEqual(['android 2.1.0 Kelp/Kelp.csproj', 'ios 2.1.0 Kelp/Kelp.csproj']);
  });

  it('are not added again; they are raised where they are, and taken out from there', () => {
    const files = tree(toShared, heron('', '1.9.0'), feedAt(''));
    const { after, plan: made } = holds(files, title);
    expect(text(after['Kelp/Kelp.csproj'])).not.toContain('CobaltHeron.Ads.Maui');
    expect(text(after['Shared/Shared.csproj'])).toContain('Include="CobaltHeron.Ads.Maui" Version="2.0.1"');
    const out = takenOut(after, made);
    expect(text(out['Shared/Shared.csproj'])).not.toContain('CobaltHeron');
  });

  it('stay where projects that are none of this application use them too', () => {
    const other = `<Project Sdk="Microsoft.NET.Sdk">\n  <ItemGroup>\n${toShared}  </ItemGroup>\n</Project>\n`;
    const files = tree(toShared, heron(), { ...feedAt(''), 'Other/Other.csproj': other });
    const out = unplan(files, title, 'cobalt-heron');
    expect(text(written(files, out)['Shared/Shared.csproj'])).toContain('CobaltHeron.Ads.Maui');
    expect(text(written(files, out)['nuget.config'])).toContain('cobaltheron');
    expect(out.byHand.map(({ what }) => what)).toContain(
      'Take the reference to CobaltHeron.Ads.Maui out of Shared/Shared.csproj, if no other application needs it.',
    );
  });

  it('are referred to for the platform that has none, and for no other', () => {
    const onAndroid = ` Condition="$([MSBuild]::GetTargetPlatformIdentifier('$(TargetFramework)')) == 'android'"`;
    const files = { ...below(mauiFiles({ 'Kelp.csproj': app('', heron(onAndroid)) })), ...feedAt('') };
    expect(packages(files)).toEqual(['android 2.0.1 Kelp/Kelp.csproj']);
    const { after, plan: made } = holds(files, title);
    expect(packages(after)).toEqual(['android 2.0.1 Kelp/Kelp.csproj', 'ios 2.0.1 Kelp/Kelp.csproj']);
    const out = takenOut(after, made);
    expect(text(out['Kelp/Kelp.csproj'])).not.toContain('CobaltHeron');
  });

  it('are left to a person where some configurations have them', () => {
    const inDebug = ` Condition="'$(Configuration)' == 'Debug'"`;
    const files = { ...below(mauiFiles({ 'Kelp.csproj': app('', heron(inDebug)) })), ...feedAt('') };
    const { after, plan: made } = holds(files, title);
    expect(text(after['Kelp/Kelp.csproj']).split('CobaltHeron.Ads.Maui')).toHaveLength(2);
    expect(made.byHand.map(({ what }) => what)).toContain(
      'Refer to CobaltHeron.Ads.Maui in Release too, or take the condition from its reference.',
    );
  });

  it('need their feed in every project that refers to them', () => {
    const missing = (files: Files) => rules(files).filter((one) => one.startsWith('build/feed-missing'));
    const planted = feedless(tree(toShared, heron()));
    for (const at of [[''], ['Kelp/', 'Shared/']])
      expect(missing({ ...planted, ...Object.assign({}, ...at.map(feedAt)) })).toEqual([]);
    for (const at of ['Kelp/', 'Shared/', null]) {
      const files = at === null ? planted : { ...planted, ...feedAt(at) };
      const { after } = holds(files, title);
      const made = Object.keys(after).filter((path) => path.endsWith('nuget.config'));
      expect(made.sort()).toEqual(
        at === null ? ['nuget.config'] : ['Kelp/nuget.config', 'Shared/nuget.config'],
      );
    }
  });

  it('have no feed where it is cleared or switched off, and one where a property names it', () => {
    const files = feedless(below(mauiFiles({ 'Kelp.csproj': app('', heron()) })));
    const url = 'https://nuget.cobaltheron.example/v3/index.json';
    const has = (more: Record<string, string>) =>
      survey({ ...files, ...more }).facts.some(({ kind }) => kind === 'repository');
    const config = (body: string) => `<configuration>\n${body}</configuration>\n`;
    expect(has(feedAt(''))).toBe(true);
    expect(
      has({
        ...feedAt(''),
        'Kelp/nuget.config': config('<packageSources><add key="a" value="b" /></packageSources>'),
      }),
    ).toBe(true);
    expect(
      has({ ...feedAt(''), 'Kelp/nuget.config': config('<packageSources><clear /></packageSources>') }),
    ).toBe(false);
    const off = '<disabledPackageSources><add key="Cobalt Heron" value="true" /></disabledPackageSources>';
    expect(has({ ...feedAt(''), 'Kelp/nuget.config': config(off) })).toBe(false);
    const property = `<PropertyGroup><RestoreAdditionalProjectSources>https://a.example;${url}</RestoreAdditionalProjectSources></PropertyGroup>`;
    expect(has({ 'Directory.Build.props': `<Project>${property}</Project>` })).toBe(true);
  });

  it('keep the version in a central list that others share', () => {
    const central = (version: string) =>
      `<Project>\n  <PropertyGroup>\n    <ManagePackageVersionsCentrally>true</ManagePackageVersionsCentrally>\n  </PropertyGroup>\n  <ItemGroup>\n    <PackageVersion Include="CobaltHeron.Ads.Maui" Version="${version}" />\n  </ItemGroup>\n</Project>\n`;
    const reference = '    <PackageReference Include="CobaltHeron.Ads.Maui" />\n';
    const files = tree(toShared, reference, { ...feedAt(''), 'Directory.Packages.props': central('1.0.0') });
    expect(packages(files)[0]).toBe('android 1.0.0 Directory.Packages.props');
    const { after } = holds(files, title);
    expect(text(after['Directory.Packages.props'])).toBe(central('2.0.1'));
    const other = library(reference);
    const shared: Files = { ...after, 'Other/Other.csproj': other };
    const out = written(shared, unplan(shared, title, 'cobalt-heron'));
    expect(text(out['Directory.Packages.props'])).toBe(central('2.0.1'));
    expect(text(out['Shared/Shared.csproj'])).not.toContain('CobaltHeron');
    expect(text(out['Other/Other.csproj'])).toBe(other);
  });
});

describe('the placebook of several projects', () => {
  const sharedPage = page.replace('Brine.Kelp.Pages', 'Brine.Kelp.Shared');
  const files = (frameworks: string, own = ''): Files => ({
    ...below(
      mauiFiles({
        'Kelp.csproj': withItems('    <ProjectReference Include="..\\Shared\\Shared.csproj" />\n'),
        ...(own === '' ? {} : { 'Pages/ReefPage.cs': own }),
      }),
    ),
    'Shared/Shared.csproj': library().replace('net8.0-android;net8.0-ios', frameworks),
    'Shared/Page.cs': sharedPage,
  });
  const wired = (tree: Files) => {
    const { after } = holds(tree, title, asked({ callSites: true }));
    const book = Object.keys(after).find((path) => path.endsWith('Placebook.cs')) ?? '';
    return { after, book };
  };

  it('is in the one that all code refers to, in its namespace', () => {
    const { after, book } = wired(files('net8.0-android;net8.0-ios', page));
    expect(book).toBe('Shared/Ads/Placebook.cs');
    expect(text(after[book])).toContain('namespace Shared');
    expect(text(after['Kelp/Pages/ReefPage.cs'])).toContain('using Shared;');
    expect(text(after['Shared/Page.cs'])).toContain('Placebook.Footer');
  });

  it('stays out of one that is built for no platform, whose IDs are left', () => {
    const { after, book } = wired(files('net8.0', page));
    expect(book).toBe('Kelp/Ads/Placebook.cs');
    expect(text(after['Kelp/Pages/ReefPage.cs'])).toContain('Placebook.Footer');
    expect(text(after['Shared/Page.cs'])).toBe(sharedPage);
  });
});

describe('attributes of C# under #if', () => {
  const attributes = (text: string, path = 'Platforms/Android/Ads.cs') =>
    survey(mauiFiles({ 'Platforms/Android/AndroidManifest.xml': androidManifest('', false), [path]: text }))
      .facts.filter(({ kind, place }) => (kind === 'permission' || kind === 'app-id') && place.path === path)
      .map(({ variants, value }) => `${variants.join('+')} ${value}`);
  const appId = (value: string) =>
    `[assembly: MetaData("example.cobaltheron.ads.APP_ID", Value = "${value}")]`;
  const permission = '[assembly: UsesPermission("android.permission.INTERNET")]';

  it('count for the builds that compile them', () => {
    expect(
      attributes(
        `using Android.App;\n#if DEBUG\n${appId('CH-A-100001-SAMPLE0A')}\n#else\n${appId('CH-A-310772-K5T8W2ZB')}\n#endif\n${permission}\n`,
      ),
    ).toEqual([
      'Debug CH-A-100001-SAMPLE0A',
      'Debug+Release android.permission.INTERNET',
      'Release CH-A-310772-K5T8W2ZB',
    ]);
  });

  it('may stand beside the code of both platforms', () => {
    const path = 'AssemblyInfo.cs';
    expect(attributes(`#if ANDROID\n${permission}\n#endif\n`, path)).toEqual([
      'Debug+Release android.permission.INTERNET',
    ]);
    expect(attributes(`#if IOS\n${permission}\n#endif\n`, path)).toEqual([]);
  });
});
