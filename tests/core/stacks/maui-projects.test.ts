import { describe, expect, it } from 'vitest';
import { runSurvey } from '../../../src/core/surveying.js';
import { csproj, mauiFiles, reefPage } from '../../support/maui.js';
import { kelpWithBanner } from '../../support/flutter.js';
import { profiles, treeOf } from '../../support/trees.js';
import type { Files } from '../../support/wiring.js';

const title = kelpWithBanner({ stages: { test: ['Debug'], production: ['Release'] } });
const survey = (files: Files) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title } }).survey;
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
