import { Document } from 'yaml';
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
      expect(() => read(text(30_000))).not.toThrow();
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
        message: expect.stringContaining('key c is twice'),
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

describe('the two parsers of a document', () => {
  const scalar = fc.oneof(
    fc.constantFrom(
      'yes',
      'null',
      '~',
      '017',
      '0o17',
      '0x1F',
      '1e3',
      '1_000',
      '2001-12-14',
      '-0',
      '.5',
      '<<',
      '=',
      'true',
    ),
    fc.integer(),
    fc.double({ noNaN: true, noDefaultInfinity: true }),
    fc.boolean(),
    fc.constant(null),
    fc.string({ unit: 'grapheme', maxLength: 20 }),
  );
  const { value } = fc.letrec<{ value: unknown }>((tie) => ({
    value: fc.oneof(
      { maxDepth: 4 },
      scalar,
      fc.array(tie('value'), { maxLength: 4 }),
      fc.dictionary(fc.string({ minLength: 1, maxLength: 8 }), tie('value'), { maxKeys: 4 }),
    ),
  }));

  it('agree on what it says', () => {
    fc.assert(
      fc.property(value, fc.boolean(), (made, flow) => {
        const document = new Document({ made });
        if (flow) document.contents = document.createNode({ made }, { flow: true });
        const text = document.toString();
        const read = readYaml(text);
        expect(read.problems).toEqual([]);
        expect(read.value).toEqual(read.document().toJS());
      }),
      { numRuns: 400 },
    );
  });

  it('agree on plain words that are more than texts', () => {
    const words = [
      'yes',
      'no',
      'null',
      '~',
      '',
      '017',
      '0o17',
      '0x1F',
      '1e3',
      '1_000',
      '.inf',
      '-.INF',
      '.nan',
      '0x',
      '+1',
      '1.',
      '2001-12-14',
      '12:30',
      '!!str 1',
      '|\n  a\n',
      '>-\n  a\n  b\n',
    ];
    for (const word of words) {
      const read = readYaml(`a: ${word}\nb: [${word.includes('\n') ? '1' : word}]\n`);
      expect(read.value).toEqual(read.document().toJS());
    }
  });

  it('leave documents with aliases to the one that knows how they would grow', () => {
    expect(readYaml('a: &x [1]\nb: *x\n').value).toEqual({ a: [1], b: [1] });
    const lines = Array.from({ length: 12 }, (_, at) => `a${at + 1}: &a${at + 1} [${`*a${at}, `.repeat(9)}]`);
    expect(readYaml(['a0: &a0 [1]', ...lines, ''].join('\n')).problems).toHaveLength(1);
  });
});
