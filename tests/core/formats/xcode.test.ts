import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { appendItem, insertLine, pbxString, setPbxString } from '../../../src/core/formats/pbxproj/edit.js';
import {
  entryOf,
  maxPbxDepth,
  readPbxproj,
  stringOf,
  stringsOf,
  type PbxDict,
} from '../../../src/core/formats/pbxproj/read.js';
import { readPodfile } from '../../../src/core/formats/podfile/read.js';
import { readXcconfig } from '../../../src/core/formats/xcconfig/read.js';
import { applyEdits } from '../../../src/core/text/edit.js';
import { pbxproj, root, syntax } from '../../support/trees.js';

const template = readFileSync(
  join(
    root,
    'node_modules/@react-native-community/template/template/ios/HelloWorld.xcodeproj/project.pbxproj',
  ),
  'utf8',
);

describe('project files', () => {
  it.each([
    ['a small one', pbxproj()],
    ['a real one', template],
    [
      'the demo’s',
      readFileSync(join(root, 'demo/trees/tidewick/ios/Tidewick.xcodeproj/project.pbxproj'), 'utf8'),
    ],
  ])('%s is read with the place of every value', (_, text) => {
    const { root: dict, problems } = readPbxproj(text);
    expect(problems).toEqual([]);
    const walk = (value: PbxDict['entries'][number]['value']): void => {
      const written = text.slice(value.start, value.end);
      if (value.type === 'string')
        expect(value.quoted ? written.startsWith('"') : written === value.value).toBe(true);
      else expect(written).toMatch(value.type === 'dict' ? /^\{[^]*\}$/ : /^\([^]*\)$/);
      if (value.type === 'list') value.items.forEach(walk);
      if (value.type === 'dict') value.entries.forEach((entry) => walk(entry.value));
    };
    walk(dict!);
    expect(stringOf(dict!, 'rootObject')).toMatch(/^[0-9A-F]{24}$/);
  });

  it.each([
    ['{ a = b }', 'A ";" is missing after the value of a.', 8],
    ['{ a b; }', 'A "=" is missing after the key a.', 4],
    ['( a )', 'A project file must be one dictionary in braces.', 0],
    ['{ a = ( b c ); }', 'A "," or ")" is missing in this list.', 10],
    ['{ a = "b; }', 'This string is never closed.', 6],
    ['{ /* a', 'This comment is never closed.', 2],
    ['{ a = ; }', 'A value is expected here, not ";".', 6],
    ['{ a = b; } c', 'There is text after the closing brace.', 11],
    ['{ a = ', 'The file ends in the middle of a value.', 6],
  ])('reports the fault in %j', (text, message, start) => {
    expect(readPbxproj(text).problems).toMatchObject([{ message, start }]);
  });

  it('bounds nesting', () => {
    expect(readPbxproj('{a='.repeat(10_000)).problems[0]?.message).toContain(`more than ${maxPbxDepth} deep`);
  });

  it('writes strings so that they read back', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 20 }).map((text) => text.replace(/\0/g, '')),
        (value) => {
          const { root: dict, problems } = readPbxproj(`{ a = ${pbxString(value)}; }`);
          expect(problems).toEqual([]);
          expect(stringOf(dict!, 'a')).toBe(value);
        },
      ),
    );
  });

  it('sets a key in place, or in the order of the alphabet', () => {
    const text = '{\n\ta = 1;\n\tc = (\n\t\tx,\n\t);\n}\n';
    const dict = readPbxproj(text).root!;
    expect(applyEdits(text, setPbxString(text, dict, 'a', '2', '\n'))).toBe(text.replace('a = 1', 'a = 2'));
    expect(applyEdits(text, setPbxString(text, dict, 'b', 'x y', '\n'))).toBe(
      text.replace('\tc = (', '\tb = "x y";\n\tc = ('),
    );
    expect(applyEdits(text, setPbxString(text, dict, 'z', '1', '\n'))).toBe(
      '{\n\ta = 1;\n\tc = (\n\t\tx,\n\t);\n\tz = 1;\n}\n',
    );
    expect(setPbxString(text, dict, 'a', '1', '\n')).toEqual([]);
    expect(applyEdits(text, [appendItem(text, entryOf(dict, 'c')!.value, 'y', '\n')])).toContain(
      '\t\tx,\n\t\ty,\n\t);',
    );
    expect(applyEdits(text, [insertLine(text, entryOf(dict, 'a')!.start, 'A = 0;', '\n')])).toContain(
      '{\n\tA = 0;\n\ta = 1;',
    );
  });

  it('follows references quickly in large files, and takes the first of equal keys', () => {
    const many = Array.from({ length: 40 }, (_, i) => `k${i} = ${i};`).join(' ');
    const dict = readPbxproj(`{ ${many} k3 = again; list = (a, "b c"); }`).root!;
    expect(stringOf(dict, 'k3')).toBe('3');
    expect(stringsOf(dict, 'list')).toEqual(['a', 'b c']);
    expect(stringsOf(dict, 'k1')).toEqual([]);
  });

  it('never fails on a damaged file', () => {
    fc.assert(
      fc.property(
        fc.nat(template.length - 1),
        fc.nat(20),
        fc.constantFrom('', '{', ')', '"', ';', '\\', '/*'),
        (at, length, insert) => {
          const damaged = template.slice(0, at) + insert + template.slice(at + length);
          const { problems } = readPbxproj(damaged);
          for (const { start, end } of problems) expect(start <= end && end <= damaged.length).toBe(true);
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('configuration files', () => {
  it('give settings, conditions and includes, without comments', () => {
    const { settings, includes, problems } = readXcconfig(
      '// head\n#include "a.xcconfig"\n#include? "b.xcconfig"\nA = 1 // one\nB[sdk=iphoneos*] = x y;\nC =\nwhat is this\n',
    );
    expect(settings.map(({ key, value }) => [key, value])).toEqual([
      ['A', '1'],
      ['B[sdk=iphoneos*]', 'x y'],
      ['C', ''],
    ]);
    expect(includes.map(({ path, optional }) => [path, optional])).toEqual([
      ['a.xcconfig', false],
      ['b.xcconfig', true],
    ]);
    expect(problems).toHaveLength(1);
  });
});

describe('Podfiles', () => {
  it('give pods with the targets around them', () => {
    const { pods, targets } = readPodfile(
      "platform :ios, '13'\npod 'Shared'\ntarget 'Kelp' do\n  pod 'A', '~> 1.0' # why\n  if ENV['X']\n    pod 'B'\n  end\n  target 'KelpTests' do\n    pod \"C\"\n  end\nend\npost_install do |installer|\nend\npod 'D'\n",
      syntax,
    );
    expect(pods.map(({ name, version, targets: around }) => [name, version, around])).toEqual([
      ['Shared', '', []],
      ['A', '~> 1.0', ['Kelp']],
      ['B', '', ['Kelp']],
      ['C', '', ['Kelp', 'KelpTests']],
      ['D', '', []],
    ]);
    expect(targets.map(({ name, parent }) => [name, parent])).toEqual([
      ['Kelp', null],
      ['KelpTests', 'Kelp'],
    ]);
  });
});
