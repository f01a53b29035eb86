import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { conditionHolds, expand } from '../../../src/core/formats/msbuild/conditions.js';
import { addItem, removeGroup, removeItem, setGroup } from '../../../src/core/formats/msbuild/edit.js';
import { readMsBuild } from '../../../src/core/formats/msbuild/read.js';
import { evaluateProject } from '../../../src/core/stacks/maui/survey/evaluate.js';
import { applyEdits } from '../../../src/core/text/edit.js';
import { csproj } from '../../support/maui.js';
import { treeOf } from '../../support/trees.js';

const values: Record<string, string> = {
  Configuration: 'Debug',
  TargetFramework: 'net8.0-android34.0',
  Big: '10',
};
const lookup = (name: string) => (values[name] === undefined ? undefined : { value: values[name] });

describe('conditions of MSBuild', () => {
  it.each([
    ["'$(Configuration)' == 'Debug'", 'yes'],
    ["'$(Configuration)'=='debug'", 'yes'],
    ["'$(Configuration)|$(Platform)' == 'Debug|'", 'yes'],
    ["'$(Configuration)' != 'Debug'", 'no'],
    ["!('$(Configuration)' == 'Debug')", 'no'],
    ["'$(Configuration)' == 'Debug' And '$(Other)' == ''", 'yes'],
    ["'$(Configuration)' == 'Release' or $(TargetFramework.Contains('-android'))", 'yes'],
    ["$([MSBuild]::GetTargetPlatformIdentifier('$(TargetFramework)')) == 'android'", 'yes'],
    ["$([MSBuild]::GetTargetPlatformIdentifier('$(TargetFramework)')) == 'ios'", 'no'],
    ["$(TargetFramework.EndsWith('ios'))", 'no'],
    ["'$(Big)' > 9", 'yes'],
    ["$([MSBuild]::IsOSPlatform('windows'))", 'unknown'],
    ["Exists('x.props')", 'unknown'],
    ["Exists('x.props') And '$(Configuration)' == 'Release'", 'no'],
    ['', 'yes'],
    ['true', 'yes'],
    ["'$(Other)'", 'unknown'],
  ])('%s: %s', (text, holds) => {
    expect(conditionHolds(text, lookup)).toBe(holds);
  });

  it('put properties in, and say what they cannot work out', () => {
    expect(expand('a $(Configuration.ToLower()) $(Nothing)!', lookup)).toEqual({ value: 'a debug !' });
    expect(expand("$([System.IO.File]::ReadAllText('x'))", lookup)).toEqual({
      value: null,
      reason: expect.stringContaining('computed only by the build'),
    });
  });

  it('never throw or hang', () => {
    const sign = fc.constantFrom(..."'$()=!<> andorx[]:.;".split(''), 'And', 'Or', '$(A)', "'x'", '==');
    fc.assert(
      fc.property(fc.array(sign, { maxLength: 60 }), (signs) => {
        conditionHolds(signs.join(''), lookup);
        expand(signs.join(''), lookup);
      }),
      { numRuns: 500 },
    );
    conditionHolds('('.repeat(3000), lookup);
    expand(`$(${"'".repeat(3000)}`, lookup);
  });
});

describe('projects of MSBuild', () => {
  const given = { Configuration: 'Debug', TargetFramework: 'net8.0-ios' };
  const evaluated = (files: Record<string, string>, more: Record<string, string> = {}) =>
    evaluateProject(treeOf(files), 'app/Kelp.csproj', { ...given, ...more });
  const group = (body: string) => `<Project><PropertyGroup>${body}</PropertyGroup></Project>`;

  it('are read in the order in which they count', () => {
    const files = {
      'Directory.Build.props': group('<A>outer</A><B>far</B>'),
      'app/Directory.Build.props': group('<A>props</A>'),
      'app/shared.props': group('<B>$(A)-shared</B>'),
      'app/Kelp.csproj': `<Project>
  <Import Project="$(MSBuildThisFileDirectory)shared.props" />
  <PropertyGroup><C>$(B)</C><B Condition="'$(Configuration)' == 'Release'">never</B><Configuration>Other</Configuration></PropertyGroup>
  <Choose>
    <When Condition="'$(TargetFramework)' == 'net8.0-android'"><PropertyGroup><D>android</D></PropertyGroup></When>
    <Otherwise><PropertyGroup><D>other</D></PropertyGroup></Otherwise>
  </Choose>
</Project>`,
      'app/Directory.Build.targets': group('<E>$(D)</E>'),
    };
    const project = evaluated(files);
    expect(['A', 'B', 'C', 'D', 'E'].map((name) => project.property(name)?.value)).toEqual([
      'props',
      'props-shared',
      'props-shared',
      'other',
      'other',
    ]);
    expect(project.property('B')?.chain.map(({ place }) => [place?.path, place?.line])).toEqual([
      ['app/shared.props', 1],
    ]);
    expect(evaluated(files, { TargetFramework: 'net8.0-android' }).property('E')?.value).toBe('android');
  });

  it('leave open what only the build knows', () => {
    const project = evaluated({ 'app/Kelp.csproj': group('<A Condition="Exists(\'x\')">1</A>') });
    expect(project.property('A')).toMatchObject({
      value: null,
      reason: expect.stringContaining('condition'),
    });
  });

  it('do not run in circles', () => {
    const loop =
      '<Project><Import Project="Kelp.csproj" /><PropertyGroup><A>$(A)x</A></PropertyGroup></Project>';
    expect(evaluated({ 'app/Kelp.csproj': loop }).property('A')?.value).toBe('x');
  });

  it.each([
    ['plain', csproj()],
    ['CRLF', csproj().replace(/\n/g, '\r\n')],
    ['no packages', csproj({ packages: '' }).replace(/ *<PackageReference.*\n/g, '')],
    ['empty', '<Project Sdk="Microsoft.NET.Sdk" />\n'],
  ])('take groups and items in, and give them back: %s', (name, text) => {
    const eol = text.includes('\r\n') ? '\r\n' : '\n';
    const entries = ['<A>$(A);x=1</A>'];
    const added = applyEdits(
      text,
      setGroup(
        text,
        readMsBuild(text),
        { kind: 'PropertyGroup', label: 'Ads & more', condition: "'a' == 'b'", entries },
        eol,
      ),
    );
    expect(readMsBuild(added).entries).toContainEqual(
      expect.objectContaining({ name: 'A', value: '$(A);x=1' }),
    );
    const changed = applyEdits(
      added,
      setGroup(added, readMsBuild(added), { kind: 'PropertyGroup', label: 'Ads & more', entries }, eol),
    );
    expect(changed).not.toContain("'a' == 'b'");
    const back = applyEdits(changed, removeGroup(changed, readMsBuild(changed), 'Ads & more'));
    expect(back).toBe(name === 'empty' ? '<Project Sdk="Microsoft.NET.Sdk">\n</Project>\n' : text);

    const item = { type: 'PackageReference', include: 'Reef.Ads', version: '1.0.0' };
    const more = applyEdits(text, addItem(text, readMsBuild(text), item, eol));
    const made = readMsBuild(more).entries.find(
      (entry) => entry.is === 'item' && entry.metadata.get('include') === 'Reef.Ads',
    );
    if (!made) throw new Error('The item was not read.');
    expect(applyEdits(more, [removeItem(more, made.element)])).toBe(
      name === 'empty' ? '<Project Sdk="Microsoft.NET.Sdk">\n</Project>\n' : text,
    );
  });
});
