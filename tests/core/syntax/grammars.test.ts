import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { Grammars, ParserBrokenError } from '../../../src/core/syntax/grammars.js';
import { root } from '../../support/trees.js';

function counted() {
  const asked: string[] = [];
  const grammars = new Grammars((file) => {
    asked.push(file);
    const folder = file === 'tree-sitter.wasm' ? 'web-tree-sitter' : 'tree-sitter-wasms/out';
    return readFileSync(join(root, 'node_modules', folder, file));
  });
  return { asked, grammars };
}

it('loads each grammar once, also for callers that ask at the same time', async () => {
  const { asked, grammars } = counted();
  await Promise.all([grammars.load(['ruby', 'java']), grammars.load(['java', 'ruby'])]);
  await grammars.load(['java']);
  expect(asked.sort()).toEqual(['tree-sitter-java.wasm', 'tree-sitter-ruby.wasm', 'tree-sitter.wasm']);
  expect(grammars.visit('java', 'class A {}', (tree) => tree.type)).toBe('program');
});

it('names the language whose grammar was not loaded', () => {
  expect(() => counted().grammars.visit('swift', '', () => null)).toThrow('swift');
});

it('reports a grammar that cannot be read to whoever waits for it', async () => {
  const grammars = new Grammars((file) => {
    throw new Error(`No ${file}.`);
  });
  await expect(grammars.load(['dart'])).rejects.toThrow('No tree-sitter.wasm.');
});

it('tries again what could not be read', async () => {
  const { grammars } = counted();
  let isThere = false;
  const flaky = new Grammars((file) => {
    if (!isThere) throw new Error(`No ${file}.`);
    return readFileSync(
      join(
        root,
        'node_modules',
        file === 'tree-sitter.wasm' ? 'web-tree-sitter' : 'tree-sitter-wasms/out',
        file,
      ),
    );
  });
  await expect(flaky.load(['dart'])).rejects.toThrow('No tree-sitter.wasm.');
  isThere = true;
  await flaky.load(['dart']);
  await grammars.load(['dart']);
  const read = (one: Grammars) => one.visit('dart', 'class A {}', ({ text }) => text);
  expect(read(flaky)).toBe(read(grammars));
});

it('does not parse a text that is too long', async () => {
  const { grammars } = counted();
  await grammars.load(['ruby']);
  expect(grammars.visit('ruby', '#'.repeat(1_000_001), () => 'parsed')).toBeUndefined();
});

it('lets a fault of whoever reads the tree through as it is', async () => {
  const { grammars } = counted();
  await grammars.load(['ruby']);
  const fault = new Error('mine');
  const failing = () =>
    grammars.visit('ruby', 'a', () => {
      throw fault;
    });
  expect(failing).toThrow(fault);
  expect(grammars.visit('ruby', 'a = 1', ({ text }) => text)).toBe('a = 1');
});

// The last one: a runtime that broke down serves its whole thread no more.
it('says that it broke down when a text needs more memory than it may take', async () => {
  const grammars = new Grammars(
    (file) => {
      const folder = file === 'tree-sitter.wasm' ? 'web-tree-sitter' : 'tree-sitter-wasms/out';
      return readFileSync(join(root, 'node_modules', folder, file));
    },
    { maxLength: 1_000_000, maxMemory: 256 },
  );
  await grammars.load(['java']);
  expect(grammars.visit('java', 'class A {}', ({ type }) => type)).toBe('program');
  expect(() => grammars.visit('java', 'a<'.repeat(100_000), () => 'parsed')).toThrow(ParserBrokenError);
});
