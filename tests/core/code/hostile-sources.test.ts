import { describe, expect, it } from 'vitest';
import { compiledAt, evaluateCondition, preprocessed } from '../../../src/core/code/preprocessor.js';
import { sourceReaders } from '../../../src/core/code/source-files.js';
import { readGradle } from '../../../src/core/formats/gradle/read.js';
import { nestsBeyondReason } from '../../../src/core/syntax/nesting.js';
import type { Tree } from '../../../src/core/tree/tree.js';
import { grows } from '../../support/growth.js';
import { findingsOf } from '../../support/rules.js';
import { androidFiles, syntax, treeOf } from '../../support/trees.js';

/** Texts that are nested as no person nests them. Grammars, and readers that call themselves, break down on them. */
const nested = ['a<', '(', '[', '{', '"${', 'if (a) ', 'List<List<', '#if A\n', 'f('];

describe.each([...sourceReaders])('a source file that is nested beyond reason', ({ id }, read) => {
  it.each(nested)(`is read by its string literals, or not at all, in ${id}: %s`, (part) => {
    expect(() => read(part.repeat(15_000 / part.length), syntax)).not.toThrow();
    // The runtime of the grammars is as good as before.
    expect(read('"a"', syntax).problems).toEqual([]);
  });
});

describe('nesting', () => {
  it('is told from comparisons and from what people write', () => {
    expect(nestsBeyondReason('if (a < b) { c(); }\n'.repeat(5_000))).toBe(false);
    expect(nestsBeyondReason(`${'f('.repeat(300)}${')'.repeat(300)}`)).toBe(false);
    expect(nestsBeyondReason('a<\n'.repeat(1_000))).toBe(true);
  });
});

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
      { path: 'a.kt', line: 1, column: 1, message: 'Not read: it is nested too deep.' },
    ]);
  });
});

it('is reported as a file that was not read', () => {
  const files = androidFiles({ 'app/src/main/java/example/brine/kelp/Odd.java': 'a<\n'.repeat(1_000) });
  const found = findingsOf(files).filter(({ place }) => place?.path.endsWith('Odd.java'));
  expect(found).toEqual([
    expect.objectContaining({
      rule: 'tree/file-not-read',
      severity: 'warning',
      message: expect.stringContaining('too costly'),
    }),
  ]);
});
