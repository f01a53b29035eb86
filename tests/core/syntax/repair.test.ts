import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { readSource } from '../../../src/core/code/read-source.js';
import { dialects } from '../../../src/core/languages/index.js';
import type { PlacebookStage } from '../../../src/core/languages/common/placebook.js';
import type { PlacebookWriter } from '../../../src/core/languages/language.js';
import { swiftSyntax } from '../../../src/core/languages/swift/syntax.js';
import { repaired } from '../../../src/core/syntax/repair.js';
import { filesBelow, root, syntax } from '../../support/trees.js';

const files = Object.entries(filesBelow(join(root, 'demo', 'trees')));
/** Texts that leave a parser in the middle of something. */
const broken = [
  '"',
  '"\\(',
  '#"',
  '"""',
  '`${',
  '/*',
  '{{{ ((( [[[',
  "'",
  '@"',
  'class A { func f() { "x\\(y)" } }}}',
];

const id = 'CH-U-310772-BBBB1111';

/** Grammars that do not know all that a placebook is written with, such as the macros of Apple's headers. */
const withGaps = new Set(['objc']);

/** A placebook of one placement, as a language writes it. */
function placebookOf(writer: PlacebookWriter): string {
  const placements = [
    { name: 'footer', format: 'banner' as const, units: { 'cobalt-heron': id }, settings: {} },
  ];
  const book: PlacebookStage = { apps: {}, placements, devices: {} };
  const stages = { test: book, production: book };
  const options = {
    title: 'Kelp',
    testCondition: 'false',
    packageName: 'example.brine',
    stage: 'test',
  } as const;
  if (writer.scope === 'stage') return writer.write(book, options).join('\n');
  if (writer.scope === 'platform') return writer.write(stages, options).join('\n');
  return writer.write({ android: stages }, options).join('\n');
}

describe.each(
  dialects.map(({ language, dialect }) => [dialect.syntax.grammar, dialect, language.placebook] as const),
)('the grammar %s', (_, { suffixes, syntax: dialect }, writer) => {
  it('reads the placebook of its language, also after texts that break off', () => {
    // Without the comment that it begins with: a scanner may start afresh there.
    const text = placebookOf(writer).replace(/^.*\n/, '');
    const treeNow = () => syntax.visit(dialect.grammar, text, (tree) => tree.toString());
    const first = treeNow();
    for (const before of [text, ...broken.map((end) => text + end.repeat(40))]) {
      readSource(dialect, before, syntax);
      const strings = readSource(dialect, text, syntax)?.strings ?? [];
      expect(strings.map(({ value }) => value)).toContain(id);
      expect(treeNow()).toBe(first);
      expect(syntax.visit(dialect.grammar, text, ({ hasError }) => hasError)).toBe(
        withGaps.has(dialect.grammar),
      );
    }
  });

  const texts = files
    .filter(([path]) => suffixes.some((suffix) => path.endsWith(suffix)))
    .map(([, bytes]) => bytes.toString('utf8'));

  it('reads a file the same whatever was read before it', () => {
    // A grammar that nothing of the demo is written in has no file that it is made for.
    const more = texts.length > 0 ? ['let a = #"CH-U-310772-BBBB1111"#\nlet b = "x"\n'] : [];
    for (const text of [...texts, ...more]) {
      const first = readSource(dialect, text, syntax);
      for (const other of broken) {
        readSource(dialect, text + other.repeat(40), syntax);
        expect(readSource(dialect, text, syntax)).toEqual(first);
      }
    }
  });
});

describe('a raw string of Swift', () => {
  it.each([`#"${id}"#`, `##"${id}"##`])('%s is read, whatever was read before it', (literal) => {
    const text = `let footer = ${literal}\nlet b = "x"\n`;
    for (let round = 0; round < 20; round++) {
      readSource(swiftSyntax, `${'class A { func f() { "x\\(y)" } }\n'.repeat(round)}}} (((`, syntax);
      const strings = readSource(swiftSyntax, text, syntax)?.strings ?? [];
      expect(strings.map(({ value, start, end }) => [value, text.slice(start, end)])).toEqual([
        [id, id],
        ['x', 'x'],
      ]);
    }
  });

  it('into which something is put is no plain text', () => {
    const strings = readSource(swiftSyntax, 'let a = #"CH-\\#(n)"#\n', syntax)?.strings;
    expect(strings).toEqual([]);
  });
});

describe('the repair of a grammar', () => {
  const bytes = readFileSync(
    join(root, 'node_modules', 'tree-sitter-wasms', 'out', 'tree-sitter-swift.wasm'),
  );
  it('changes one byte of the release in use', () => {
    const changed = repaired('swift', bytes);
    expect(changed.filter((byte, at) => byte !== bytes[at])).toEqual(Uint8Array.from([1]));
    expect(changed).toHaveLength(bytes.length);
  });

  it('leaves others alone, and one in which the fault is not found once', () => {
    expect(repaired('kotlin', bytes)).toBe(bytes);
    const twice = Buffer.concat([bytes, bytes]);
    expect(repaired('swift', twice)).toBe(twice);
    expect(repaired('swift', Buffer.from('none'))).toHaveLength(4);
  });
});
