import { spawnSync } from 'node:child_process';
import {
  appendFileSync,
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { root } from '../support/trees.js';

/** A piece of code in the text for contributors: a new file, or one more line of a list. */
interface Block {
  path: string;
  isLine: boolean;
  code: string;
}

const guide = readFileSync(join(root, 'CONTRIBUTING.md'), 'utf8');
const blocks = [...guide.matchAll(/^```ts (\S+)( \(one more line\))?\n([\s\S]*?)^```$/gm)].map(
  ([, path = '', line, code = '']): Block => ({ path, isLine: line !== undefined, code }),
);
/** What the tree itself says of lists, kinds, rules and steps: it must hold with the additions. */
const standing = [
  'tests/core/checks/catalogue.test.ts',
  'tests/core/facts/facts.test.ts',
  'tests/core/steps/steps.test.ts',
  'tests/core/syntax/repair.test.ts',
];
let copy: string;

beforeAll(() => {
  copy = mkdtempSync(join(tmpdir(), 'syndexa-scaffold-'));
  for (const path of [
    'src',
    'tests/support',
    'tests/fixtures',
    'demo',
    'profiles',
    'package.json',
    'tsconfig.json',
  ])
    cpSync(join(root, path), join(copy, path), { recursive: true });
  cpSync(join(root, 'tests', 'core', 'checks'), join(copy, 'tests', 'core', 'checks'), { recursive: true });
  for (const path of standing) cpSync(join(root, path), join(copy, path));
  symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));
  writeFileSync(
    join(copy, 'vitest.config.ts'),
    "export default { test: { include: ['tests/**/*.test.ts'], isolate: false, testTimeout: 90_000 } };\n",
  );
  for (const { path, isLine, code } of blocks) {
    mkdirSync(dirname(join(copy, path)), { recursive: true });
    if (isLine) appendFileSync(join(copy, path), code);
    else writeFileSync(join(copy, path), code);
  }
});
afterAll(() => rmSync(copy, { recursive: true, force: true }));

/** Runs a program of a package in the copy. @param program its path below node_modules */
function run(program: string, args: string[]): { status: number | null; output: string } {
  const path = join(root, 'node_modules', program);
  const { status, stdout, stderr } = spawnSync(process.execPath, [path, ...args], {
    cwd: copy,
    encoding: 'utf8',
  });
  return { status, output: stripVTControlCharacters(`${stdout}\n${stderr}`) };
}

describe('what CONTRIBUTING.md says', () => {
  it('adds files that are not there, and one line to lists that are', () => {
    expect(blocks.length).toBeGreaterThan(10);
    for (const { path, isLine, code } of blocks) {
      expect([path, existsSync(join(root, path))]).toEqual([path, isLine]);
      if (isLine) expect(code.trimEnd().split('\n')).toHaveLength(1);
    }
  });

  it('compiles', () => {
    // The core and what is added: the interfaces above it are no different for it.
    const added = blocks.map(({ path }) => path).filter((path) => path.startsWith('tests/'));
    const narrow = { extends: './tsconfig.json', include: ['src/core', ...added] };
    writeFileSync(join(copy, 'tsconfig.core.json'), JSON.stringify(narrow));
    const { status, output } = run('tsc-native/bin/tsc', ['--noEmit', '-p', 'tsconfig.core.json']);
    expect(output.trim()).toBe('');
    expect(status).toBe(0);
  });

  it('passes its own tests, and those of the lists that it was added to', () => {
    const own = blocks.filter(({ path }) => path.endsWith('.test.ts')).map(({ path }) => path);
    const { status, output } = run('vitest/vitest.mjs', ['run', ...own, ...standing]);
    expect(output).toMatch(/Tests {2}\d+ passed/);
    expect([status, output]).toEqual([0, output]);
  });

  it('keeps the layers', () => {
    cpSync(join(root, '.dependency-cruiser.mjs'), join(copy, '.dependency-cruiser.mjs'));
    // From the added files down: what does not lead to them is no different.
    const added = blocks.map(({ path }) => path).filter((path) => path.startsWith('src/'));
    const { status, output } = run('dependency-cruiser/bin/dependency-cruise.mjs', added);
    expect([status, output]).toEqual([0, output]);
  });
});
