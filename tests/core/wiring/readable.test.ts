import { describe, expect, it } from 'vitest';
import type { Change } from '../../../src/core/edits/model.js';
import { readably } from '../../../src/core/planning.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { withBlocks } from '../../../src/core/text/edit.js';
import { mergeChanges } from '../../../src/core/wiring/outcomes.js';
import { complaint } from '../../support/judges.js';
import { androidFiles, iosFiles, kelp, profiles, treeOf } from '../../support/trees.js';

const files = { ...androidFiles(), ...iosFiles() };
const tree = treeOf(files);
const options = { name: 'kelp', profiles, title: { id: 'kelp', title: kelp() } };
const run = runSurvey(tree, options);
const manifest = 'app/src/main/AndroidManifest.xml';
const project = 'Kelp.xcodeproj/project.pbxproj';
const change = (path: string, start: number, end: number, text: string, topic: Change['topic']): Change => ({
  path,
  platform: path === project ? 'ios' : 'android',
  network: null,
  topic,
  rules: [],
  kind: 'edit',
  edits: [{ start, end, text }],
});
const end = files[manifest]?.length ?? 0;
const good = change(manifest, end, end, '<!-- kept -->\n', 'keys');

describe('edits that break a file', () => {
  it.each([
    ['XML', change(manifest, end, end, '<open', 'components')],
    ['a project file', change(project, 3, 3, '', 'keys')],
  ])('are dropped with their group, and the others stay: %s', (_, bad) => {
    const broken =
      bad.path === project ? { ...bad, edits: [{ start: 0, end: 40, text: '{ a = SYNDEXA=1' }] } : bad;
    const { outcomes, dropped } = readably(tree, [good, broken as Change], run, options);
    expect(outcomes.map(({ path, after }) => [path, after?.endsWith('<!-- kept -->\n')])).toEqual([
      [manifest, true],
    ]);
    expect(dropped.map(({ path }) => path)).toContain(broken.path);
  });

  it('that were broken before are not blamed on an edit', () => {
    const worse = treeOf({ ...files, [manifest]: `${files[manifest]}<open` });
    const before = runSurvey(worse, options);
    expect(before.survey.problems.length).toBeGreaterThan(0);
    const edit = change(manifest, 0, 0, '\n', 'keys');
    const { outcomes, dropped } = readably(worse, [edit], before, options);
    expect([outcomes.length, dropped]).toEqual([1, []]);
  });
});

describe('edits of one text', () => {
  const merged = (...edits: [number, number, string][]) => {
    const changes = edits.map(([start, stop, text]) => change(manifest, start, stop, text, 'keys'));
    return mergeChanges(tree, changes)[0];
  };

  it('one within another is part of it, in either order', () => {
    const outer: [number, number, string] = [2, 9, 'whole'];
    const inner: [number, number, string] = [4, 6, 'part'];
    expect(merged(outer, inner)?.edits).toEqual(merged(inner, outer)?.edits);
    expect(merged(outer, inner)?.edits).toEqual([{ start: 2, end: 9, text: 'whole' }]);
  });

  it('two that cross are not guessed at: the second is left to a person', () => {
    const outcome = merged([2, 6, 'first'], [4, 9, 'second']);
    expect(outcome?.edits).toEqual([{ start: 2, end: 6, text: 'first' }]);
    expect(outcome?.refused).toHaveLength(1);
  });

  it('two that say different things of the same text are not guessed at either', () => {
    expect(merged([2, 6, 'first'], [2, 6, 'second'])?.refused).toHaveLength(1);
    expect(merged([2, 6, 'same'], [2, 6, 'same'])?.refused).toEqual([]);
  });

  it('insertions with equal blocks at one place share them', () => {
    const block = { open: '(', close: ')' };
    const at = (text: string, start = 5) => ({ start, end: start, text, block });
    expect(withBlocks([at('a'), { start: 1, end: 2, text: 'x' }, at('b'), at('a'), at('c', 9)])).toEqual([
      { start: 5, end: 5, text: '(ab)' },
      { start: 1, end: 2, text: 'x' },
      { start: 9, end: 9, text: '(c)' },
    ]);
  });
});

describe('readers of others', () => {
  it.each([
    ['xmllint', 'AndroidManifest.xml', '<a b="c" />', '<a b="c>'],
    [
      'plistutil',
      'Info.plist',
      '<plist version="1.0"><dict/></plist>',
      '<plist version="1.0"><dict></plist>',
    ],
    ['plparse', 'project.pbxproj', '{ a = "b=1"; }', '{ a = (b=1); }'],
    ['Node', 'package.json', '{ "a": 1 }', '{ "a": 1, }'],
    ['yaml', 'pubspec.yaml', 'a: 1\n', 'a: 1\na: [\n'],
  ])('tell a file that breaks from one that does not: %s', (_, path, good, bad) => {
    expect(complaint(path, good)).toBeNull();
    expect(complaint(path, bad)).not.toBeNull();
  });
});
