import { describe, expect, it } from 'vitest';
import { conflictIn } from '../../../src/core/text/conflicts.js';
import type { Title } from '../../../src/core/roster/model.js';
import { findingsOf } from '../../support/rules.js';
import { androidFiles, iosFiles, kelp, placement } from '../../support/trees.js';

const title = kelp({
  placements: {
    footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'),
  } as Title['placements'],
});
const files = { ...androidFiles(), ...iosFiles() };
const conflict = (text: string) => {
  const lines = text.split('\n');
  const at = Math.floor(lines.length / 2);
  const line = lines[at] ?? '';
  return [
    ...lines.slice(0, at),
    '<<<<<<< HEAD',
    line,
    '=======',
    line,
    '>>>>>>> other',
    ...lines.slice(at + 1),
  ].join('\n');
};
const key = ({ rule, platform, message }: { rule: string; platform: string | null; message: string }) =>
  `${rule} ${platform} ${message}`;
const before = new Set(findingsOf(files, title).map(key));

describe('one broken file is one finding', () => {
  it.each(Object.keys(files))('with markers of a conflict: %s', (path) => {
    const text = files[path] ?? '';
    const found = findingsOf({ ...files, [path]: conflict(text) }, title).filter(
      (one) => !before.has(key(one)),
    );
    // A file that nothing reads, such as a lock of another tool, is nobody's concern.
    const about = found.filter(({ rule }) => rule === 'tree/broken-file');
    expect(about.length).toBeLessThanOrEqual(1);
    expect(found.filter(({ rule }) => rule !== 'tree/broken-file').map(({ rule }) => rule)).toEqual([]);
    if (/AndroidManifest|pbxproj|Info\.plist|build\.gradle|App\.(swift|java)$/.test(path))
      expect(about.map(({ place, severity }) => [place?.path, severity])).toEqual([[path, 'blocker']]);
  });

  it.each(['app/src/main/AndroidManifest.xml', 'Kelp.xcodeproj/project.pbxproj', 'Kelp/Info.plist'])(
    'that ends early: %s',
    (path) => {
      const text = (files[path] ?? '').slice(0, (files[path]?.length ?? 0) / 2);
      const found = findingsOf({ ...files, [path]: text }, title).filter((one) => !before.has(key(one)));
      expect(found.filter(({ rule }) => rule === 'tree/broken-file')).toHaveLength(1);
      expect(found.filter(({ rule }) => /missing$/.test(rule)).map(({ rule }) => rule)).toEqual([]);
    },
  );

  it('what is missing on the other platform is still said', () => {
    const path = 'Kelp/Info.plist';
    const main = 'app/src/main/AndroidManifest.xml';
    const without = (files[main] ?? '').replace(/ *<uses-permission.*\n/g, '');
    const rules = findingsOf({ ...files, [path]: conflict(files[path] ?? ''), [main]: without }, title);
    expect(rules.map(({ rule }) => rule)).toEqual(
      expect.arrayContaining(['tree/broken-file', 'manifest/permission-missing']),
    );
  });
});

describe('markers of a conflict', () => {
  it.each([
    ['a\n<<<<<<< HEAD\nb\n=======\nc\n>>>>>>> x\n', 2],
    ['<<<<<<< HEAD\r\nb\r\n=======\r\nc\r\n>>>>>>> x\r\n', 0],
    ['<<<<<<<\n=======\n>>>>>>>', 0],
    ['no markers\n=======\n', undefined],
    ['  <<<<<<< HEAD\n=======\n>>>>>>> x', undefined],
    ['<<<<<<< HEAD\nand no end\n', undefined],
    ['', undefined],
  ])('%j', (text, at) => {
    expect(conflictIn(text)).toBe(at);
  });
});
