import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addPackage, removePackage, setPackageVersion } from '../../../src/core/formats/package-json/edit.js';
import {
  lockFiles,
  readBunLock,
  readNpmLock,
  readPnpmLock,
  readYarnLock,
} from '../../../src/core/formats/package-json/locks.js';
import { isVersionRange, readPackageJson } from '../../../src/core/formats/package-json/read.js';
import { applyEdits } from '../../../src/core/text/edit.js';
import { npmLock, packageJson } from '../../support/react-native.js';

const add = { name: 'kelp-ads', range: '^2.0.0', lineEnd: '\n' };
const added = (text: string, more: Partial<typeof add> = {}) =>
  applyEdits(text, addPackage(text, readPackageJson(text), { ...add, ...more }));

describe('package.json', () => {
  const shapes: [string, string][] = [
    ['two spaces', packageJson('')],
    ['CRLF', packageJson('').replace(/\n/g, '\r\n')],
    ['tabs', packageJson('').replace(/^ +/gm, (space) => '\t'.repeat(space.length / 2))],
    ['one line', '{"name":"a","dependencies":{"react":"1.0.0"}}'],
    ['an order of its own', '{\n  "dependencies": {\n    "z": "1",\n    "b": "1"\n  }\n}\n'],
    ['before all others', '{\n  "dependencies": {\n    "zone": "1"\n  }\n}'],
    ['an empty object', '{\n  "dependencies": {}\n}\n'],
  ];
  it.each(shapes)('takes a package in, and gives it back: %s', (_, before) => {
    const after = added(before, before.includes('\r\n') ? { lineEnd: '\r\n' } : {});
    const read = readPackageJson(after);
    const entry = read.dependencies.find(({ name }) => name === 'kelp-ads');
    if (!entry) throw new Error('The package is not there.');
    expect(entry).toMatchObject({ section: 'dependencies', version: '^2.0.0' });
    expect(JSON.parse(after)).toMatchObject({ dependencies: { 'kelp-ads': '^2.0.0' } });
    expect(applyEdits(after, removePackage(read, entry))).toBe(before);
  });

  it('keeps the order of the alphabet where there is one', () => {
    const names = (text: string) =>
      readPackageJson(text)
        .dependencies.filter(({ section }) => section === 'dependencies')
        .map(({ name }) => name);
    expect(names(added(packageJson('    "@a/b": "1",\n')))).toEqual([
      '@a/b',
      'kelp-ads',
      'react',
      'react-native',
    ]);
    expect(names(added('{"dependencies":{"z":"1","b":"1"}}'))).toEqual(['z', 'b', 'kelp-ads']);
  });

  it('writes a block where there is none', () => {
    expect(added('{\n  "name": "a"\n}\n')).toBe(
      '{\n  "name": "a",\n  "dependencies": {\n    "kelp-ads": "^2.0.0"\n  }\n}\n',
    );
    expect(JSON.parse(added('{}'))).toEqual({ dependencies: { 'kelp-ads': '^2.0.0' } });
    expect(added('[]')).toBe('[]');
  });

  it('changes a version and nothing else', () => {
    const before = packageJson();
    const [first] = readPackageJson(before).dependencies;
    if (!first) throw new Error('The package was not read.');
    expect(applyEdits(before, setPackageVersion(first, '^6.0.0'))).toBe(before.replace('^5.0.2', '^6.0.0'));
  });

  it('tells a range from a place', () => {
    for (const range of ['^1.0.0', '1.x', '*', '>=1 <2', '', 'latest', '~5.0.2'])
      expect(isVersionRange(range)).toBe(true);
    for (const place of ['file:../a', 'workspace:*', 'git+https://git.example/a.git', 'kelp/ads', '../a'])
      expect(isVersionRange(place)).toBe(false);
  });

  it('never throws, whatever stands in it', () => {
    const part = fc.constantFrom(
      '{',
      '}',
      '[',
      ']',
      ':',
      ',',
      '"dependencies"',
      '"a"',
      '1',
      'null',
      ' ',
      '\n',
      '//',
      '"',
    );
    fc.assert(
      fc.property(fc.array(part, { maxLength: 60 }), (parts) => {
        const text = parts.join('');
        added(text);
        for (const { read } of Object.values(lockFiles)) read(text);
      }),
      { numRuns: 400 },
    );
    expect(readNpmLock('{"packages":'.repeat(5_000)).problems).toHaveLength(1);
  });
});

describe('lock files', () => {
  const held = (packages: { name: string; version: string; of?: string }[]) =>
    packages.map(({ name, version, of }) => [name, version, ...(of === undefined ? [] : [of])].join(' '));

  it('of npm, old and new, give what stands at the top', () => {
    expect(held(readNpmLock(npmLock()).packages)).toEqual([
      '@cobaltheron.example/react-native 5.0.2',
      'react-native 0.76.5',
    ]);
    expect(
      held(
        readNpmLock('{"lockfileVersion":1,"dependencies":{"a":{"version":"1.2.3","requires":{"b":"1"}}}}')
          .packages,
      ),
    ).toEqual(['a 1.2.3']);
    expect(
      held(readNpmLock('{"packages":{"apps/kelp/node_modules/a":{"version":"2.0.0"}}}').packages),
    ).toEqual(['a 2.0.0 apps/kelp']);
  });

  it('of yarn, old and new, give the ranges that each was worked out for', () => {
    const old =
      '# yarn lockfile v1\n\n"@a/b@^1.0.0", "@a/b@~1.2.0":\n  version "1.2.9"\n  dependencies:\n    c "^3.0.0"\n\nc@^3.0.0:\n  version "3.1.0"\n';
    expect(readYarnLock(old).packages).toMatchObject([
      { name: '@a/b', version: '1.2.9', asked: ['^1.0.0', '~1.2.0'] },
      { name: 'c', version: '3.1.0', asked: ['^3.0.0'] },
    ]);
    const berry =
      '__metadata:\n  version: 8\n\n"@a/b@npm:^1.0.0":\n  version: 1.4.0\n  resolution: "@a/b@npm:1.4.0"\n';
    expect(readYarnLock(berry.replace(/\n/g, '\r\n')).packages).toMatchObject([
      { name: '@a/b', version: '1.4.0', asked: ['^1.0.0'] },
    ]);
  });

  it('of pnpm give what each project asks for, without its peers', () => {
    const lock =
      "lockfileVersion: '9.0'\nimporters:\n  .:\n    dependencies:\n      '@a/b':\n        specifier: ^1.0.0\n        version: 1.2.0(react-native@0.76.5)\n  apps/kelp:\n    dependencies:\n      c:\n        specifier: ^3.0.0\n        version: 3.0.1\npackages:\n  c@3.0.1: {}\n";
    expect(held(readPnpmLock(lock).packages)).toEqual(['@a/b 1.2.0', 'c 3.0.1 apps/kelp']);
    expect(held(readPnpmLock('dependencies:\n  a: 1.0.0_react@18.2.0\n').packages)).toEqual(['a 1.0.0']);
  });

  it('of bun give the version at the head of each list', () => {
    const lock =
      '{\n  "lockfileVersion": 1,\n  "packages": {\n    "@a/b": ["@a/b@1.2.0", "", {}, "sha"],\n    "@a/b/c": ["c@1.0.0", ""],\n  }\n}\n';
    expect(held(readBunLock(lock).packages)).toEqual(['@a/b 1.2.0']);
  });
});
