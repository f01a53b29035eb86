import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readPnpmLock } from '../../../src/core/formats/package-json/locks.js';
import { readPodfileLock } from '../../../src/core/formats/podfile/lock.js';
import { readPubspecLock } from '../../../src/core/formats/pubspec/lock.js';
import { readPubspec } from '../../../src/core/formats/pubspec/read.js';
import { readYaml } from '../../../src/core/formats/yaml/read.js';
import { grows } from '../../support/growth.js';

/** Texts that a parser which calls itself, or compares all with all, does not survive. Each may be of any length. */
const hostile: Record<string, (length: number) => string> = {
  'open lists': (n) => '['.repeat(n),
  'open maps': (n) => '{a: '.repeat(n / 4),
  'explicit keys': (n) => '? '.repeat(n / 2),
  'items of items': (n) => '- '.repeat(n / 2),
  'lists below explicit keys': (n) => '? [\n'.repeat(n / 4),
  'brackets behind what looks like a comment': (n) => '["#", ['.repeat(n / 7),
  'maps in one line': (n) => '"a": '.repeat(n / 5),
  'levels of indentation': (n) =>
    Array.from({ length: Math.floor(Math.sqrt(2 * n)) }, (_, at) => `${' '.repeat(at)}a:`).join('\n'),
  'closing brackets': (n) => ']'.repeat(n),
  'empty lists in a row': (n) => '[]'.repeat(n / 2),
  'many keys': (n) => Array.from({ length: n / 10 }, (_, at) => `k${at}: 1`).join('\n'),
  'one key again and again': (n) => 'a: 1\n'.repeat(n / 5),
  'many documents': (n) => '--- a\n'.repeat(n / 6),
  'many aliases': (n) => `a: &a 1\n${Array.from({ length: n / 10 }, (_, at) => `k${at}: *a`).join('\n')}`,
  comments: (n) => '# x\n'.repeat(n / 4),
};

describe.each(Object.entries(hostile))('YAML of %s', (_, text) => {
  it('ends, whoever reads it', () => {
    for (const read of [readYaml, readPubspec, readPubspecLock, readPodfileLock, readPnpmLock])
      expect(() => read(text(60_000))).not.toThrow();
  });

  it('takes time that grows with its length', () => {
    grows((length) => {
      const made = text(length);
      return () => readYaml(made);
    });
  });
});

describe('YAML', () => {
  it('names a key that stands twice, with its place', () => {
    const { problems } = readYaml('a: 1\nb:\n  c: 1\n  c: 2\n');
    expect(problems).toEqual([
      expect.objectContaining({
        message: expect.stringContaining('c stands twice'),
        place: { line: 4, column: 3 },
      }),
    ]);
  });

  it('refuses a second document', () => {
    expect(readYaml('a: 1\n---\nb: 2\n').problems).toHaveLength(1);
  });

  it('reads whatever is nested as deep as people nest it', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('list', 'map', 'flow'), { maxLength: 60 }), (levels) => {
        let text = '1';
        for (const level of levels) text = level === 'map' ? `{ a: ${text} }` : `[${text}]`;
        expect(readYaml(text).problems).toEqual([]);
      }),
    );
  });
});
