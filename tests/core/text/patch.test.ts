import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { unifiedPatch, type FileChange } from '../../../src/core/text/patch.js';

let folder = '';
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'patch-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** What git makes of a patch: the files of the changes after it, null for one that is not there. */
function applied(changes: readonly FileChange[], context?: number) {
  for (const { path, before } of changes) {
    if (before === null) continue;
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), before);
  }
  execFileSync('git', ['apply', '--unidiff-zero', '-'], {
    cwd: folder,
    input: unifiedPatch(changes, context),
    stdio: 'pipe',
  });
  return changes.map(({ path }) => {
    const file = join(folder, path);
    return existsSync(file) ? readFileSync(file, 'utf8') : null;
  });
}

const rows = (count: number, more: Record<number, string> = {}) =>
  Array.from({ length: count }, (_, index) => `${more[index] ?? `row ${index}`}\n`).join('');

describe('a patch, as git reads it', () => {
  it.each([
    ['a plain name', 'app/a.txt'],
    ['a blank', 'new folder/a b.txt'],
    ['a quote', 'say "a".txt'],
    ['a backslash', 'a\\b.txt'],
    ['a quote and a blank', '"a" b.txt'],
    ['a tab', 'a\tb.txt'],
    ['a line break', 'a\nb.txt'],
    ['a delete character', 'a\x7fb.txt'],
    ['the last printable characters', '~a }.txt'],
    ['an umlaut', 'ü.txt'],
    ['a letter of four bytes', '𝒶.txt'],
  ])('changes, makes and removes a file with %s in its name', (_, path) => {
    const changes: FileChange[] = [
      { path, before: 'a\nb\n', after: 'a\nc\n' },
      { path: `new/${path}`, before: null, after: 'x\n' },
      { path: `old/${path}`, before: 'x\ny\n', after: null },
    ];
    expect(applied(changes)).toEqual(changes.map(({ after }) => after));
  });

  it.each([
    ['an empty file that is made', null, ''],
    ['a file that is emptied', 'a\nb\n', ''],
    ['an empty file that is filled', '', 'a\n'],
    ['an empty file that is removed', '', null],
    ['no line break at the end', 'a\nb', 'a\nc'],
    ['a line break that comes at the end', 'a', 'a\n'],
    ['Windows line ends', 'a\r\nb\r\n', 'a\r\nc\r\n'],
    ['changes far apart', rows(40), rows(40, { 2: 'x', 30: 'y' })],
    ['a change of one line', rows(9), rows(9, { 4: 'x' })],
  ])('%s', (_, before, after) => {
    const change = { path: 'a.txt', before, after };
    expect(applied([change])).toEqual([after]);
  });

  it('without lines around its changes', () => {
    const change = { path: 'a.txt', before: rows(9), after: rows(9, { 4: 'x' }).replace('row 7\n', '') };
    expect(unifiedPatch([change], 0)).not.toMatch(/^ /m);
    expect(applied([change], 0)).toEqual([change.after]);
  });
});

describe('the words of a patch', () => {
  it('count the lines as git does: one is not written out', () => {
    const patch = unifiedPatch([{ path: 'a.txt', before: 'a\n', after: 'b\nc\n' }]);
    expect(patch).toBe('diff --git a/a.txt b/a.txt\n--- a/a.txt\n+++ b/a.txt\n@@ -1 +1,2 @@\n-a\n+b\n+c\n');
  });

  it('end a name that has a blank with a tab, and one in quotes without', () => {
    expect(unifiedPatch([{ path: 'a b', before: 'a\n', after: 'b\n' }])).toContain(
      '--- a/a b\t\n+++ b/a b\t\n',
    );
    expect(unifiedPatch([{ path: 'ü b', before: 'a\n', after: 'b\n' }])).toContain(
      '--- "a/\\303\\274 b"\n+++ "b/\\303\\274 b"\n',
    );
    expect(unifiedPatch([{ path: 'a\tb', before: 'a\n', after: 'b\n' }])).toContain('"a/a\\011b"');
    expect(unifiedPatch([{ path: 'a\x7fb', before: 'a\n', after: 'b\n' }])).toContain('"a/a\\177b"');
  });

  it('name no sides for an empty file that is made or removed', () => {
    expect(unifiedPatch([{ path: 'a', before: null, after: '' }])).toBe(
      'diff --git a/a b/a\nnew file mode 100644\n',
    );
    expect(unifiedPatch([{ path: 'a', before: '', after: null }])).toBe(
      'diff --git a/a b/a\ndeleted file mode 100644\n',
    );
  });

  it('have no part for a file that stays as it is', () => {
    expect(unifiedPatch([{ path: 'a', before: 'a', after: 'a' }])).toBe('');
    const patch = unifiedPatch([
      { path: 'a', before: 'a', after: 'a' },
      { path: 'b', before: 'a\n', after: 'b\n' },
    ]);
    expect(patch).toMatch(/^diff --git a\/b b\/b\n/);
  });
});
