import { describe, expect, it } from 'vitest';
import { compiledAt, evaluateCondition, preprocessed } from '../../../src/core/syntax/preprocessor.js';
import { readGradle } from '../../../src/core/formats/gradle/read.js';
import { readingOf } from '../../../src/core/code/source-files.js';
import { Tree } from '../../../src/core/tree/tree.js';
import { grows } from '../../support/growth.js';
import { flutterFiles, kelpWithBanner } from '../../support/flutter.js';
import { findingsOf } from '../../support/rules.js';
import { androidFiles, syntax, treeOf } from '../../support/trees.js';

describe('Gradle scripts', () => {
  it('end, however deep their conditions are', () => {
    const { problems } = readGradle('if (a) '.repeat(20_000));
    expect(problems.map(({ message }) => message)).toContain('Conditions are nested more than 120 deep.');
  });

  it('with open placeholders are read in time that grows with their length', () => {
    grows((length) => () => readGradle('"${'.repeat(length / 3)));
  });
});

describe('preprocessors', () => {
  it('end, however deep conditions are', () => {
    expect(evaluateCondition('!'.repeat(50_000) + 'A', () => 'yes')).toBe('unknown');
    expect(evaluateCondition('('.repeat(50_000), () => 'yes')).toBe('unknown');
    expect(preprocessed('#if A\n'.repeat(10_000))).toHaveLength(1);
  });

  it('tell what is compiled in time that grows with the number of conditions', () => {
    grows((length) => {
      const text = '#if A\nb\n#endif\n'.repeat(length / 15);
      return () => {
        const compiled = compiledAt(text, () => 'yes');
        for (let at = 0; at < text.length; at += 10) compiled(at);
      };
    });
  });
});

describe('a tree', () => {
  it('does without the syntax of files that took too long, and without those that did so again', () => {
    const files = { 'a.kt': 'val a = "one"', 'b.kt': 'val b = "two"', 'c.kt': 'val c = "three"' };
    const hashOf = (path: string) => treeOf(files).file(path)?.hash ?? '';
    const began: string[] = [];
    const plain = treeOf(files);
    const tree = new Tree(
      plain.paths.flatMap((path) => plain.file(path) ?? []),
      {
        syntax,
        costly: new Map([
          [hashOf('b.kt'), 'without-syntax'],
          [hashOf('c.kt'), 'not-at-all'],
        ]),
        watch: { begins: (hash) => began.push(hash), ends: () => began.push('end') },
      },
    );
    const strings = (path: string) => readingOf(tree, path).strings.map(({ value }) => value);
    expect([strings('a.kt'), strings('b.kt'), strings('c.kt')]).toEqual([['one'], ['two'], []]);
    expect(tree.problems.map(({ path, message }) => [path, message.slice(0, 32)])).toEqual([
      ['b.kt', 'Not parsed: it takes too long or'],
      ['c.kt', 'Not read: reading it takes too l'],
    ]);
    expect(began).toEqual([hashOf('a.kt'), 'end', hashOf('b.kt'), 'end']);
  });

  it('goes on when the reader of one file fails', () => {
    const tree: Tree = treeOf({ 'a.kt': 'class A', 'b.kt': 'class B' });
    const failing = (text: string): { text: string; problems: [] } => {
      if (text.includes('A')) throw new RangeError('Maximum call stack size exceeded');
      return { text, problems: [] };
    };
    expect(tree.read('a.kt', failing)).toBeUndefined();
    expect(tree.read('a.kt', failing)).toBeUndefined();
    expect(tree.read('b.kt', failing)?.text).toBe('class B');
    expect(tree.problems).toEqual([
      { path: 'a.kt', line: 1, column: 1, kind: 'not-read', message: 'Not read: it is nested too deep.' },
    ]);
  });
});

it('is reported as a file that was not read', () => {
  const files = androidFiles({
    'app/src/main/java/example/brine/kelp/Long.java': `// ${'long '.repeat(220_000)}`,
  });
  const found = findingsOf(files).filter(({ place }) => place?.path.endsWith('Long.java'));
  expect(found).toEqual([
    expect.objectContaining({
      rule: 'tree/file-not-read',
      severity: 'warning',
      message: expect.stringContaining('takes too long'),
    }),
  ]);
});

describe('code that says the same thing very often', () => {
  const sdk =
    "import 'package:cobalt_heron_ads/cobalt_heron_ads.dart';\nimport 'package:flutter/foundation.dart';\n";
  const unit = (at: number) => `CH-U-310772-${String(at).padStart(8, '0').replaceAll('0', 'A')}`;
  const each = (count: number, line: (at: number) => string) =>
    Array.from({ length: count }, (_, at) => line(at)).join('\n');
  const body = (text: string) => `void go() {\n${text}\n}\n`;
  const ways: [string, (count: number) => string][] = [
    [
      'constants, each used under a condition',
      (count) =>
        `class Ids {\n${each(count, (at) => `static const a${at} = '${unit(at)}';`)}\n}\n` +
        body(each(count, (at) => `if (kDebugMode) HeronBanner(unitId: Ids.a${at});`)),
    ],
    [
      'methods of one name in as many classes',
      (count) =>
        `${each(count, (at) => `class C${at} { String unit() => '${unit(at)}'; }`)}\n` +
        body(each(count, (at) => `if (kDebugMode) HeronBanner(unitId: C${at}().unit());`)),
    ],
    [
      'a method that is called from everywhere',
      (count) =>
        `class S {\n${body(each(count, (at) => `HeronInterstitial.load('${unit(at)}');`))}` +
        `void initState() {\n${'go();\n'.repeat(count)}}\n}\n`,
    ],
    [
      'a start before every load',
      (count) =>
        body(
          each(count, (at) => `CobaltHeron.start().then((_) { HeronInterstitial.load('${unit(at)}'); });`),
        ),
    ],
  ];
  it.each(ways)('is checked in time that grows with its length: %s', (_, text) => {
    grows((length) => {
      const files = flutterFiles({ 'lib/reef.dart': sdk + text(length / 100) });
      return () => findingsOf(files, kelpWithBanner());
    });
  });
});
