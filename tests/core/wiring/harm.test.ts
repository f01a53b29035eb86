import { describe, expect, it } from 'vitest';
import type { Change } from '../../../src/core/edits/model.js';
import type { TreeProblem } from '../../../src/core/tree/tree.js';
import { brokenSteps, harmfulGroups, newProblems, refusedSteps } from '../../../src/core/wiring/readable.js';

const problem = (path: string, line: number, message = 'It ends too early.'): TreeProblem => ({
  path,
  line,
  column: 1,
  kind: 'syntax',
  message,
});
const change = (path: string, topic: Change['topic'], rules: string[] = []): Change => ({
  path,
  platform: 'ios',
  network: 'marlstone',
  topic,
  rules,
  kind: 'edit',
  edits: [],
});

describe('the problems that edits cause', () => {
  it('are those that were not there, wherever they moved to', () => {
    const before = [problem('a', 3), problem('a', 9, 'Another.')];
    expect(newProblems(before, [problem('a', 5), problem('a', 9, 'Another.')])).toEqual([]);
    expect(newProblems(before, [problem('a', 3), problem('b', 3)])).toEqual([problem('b', 3)]);
    expect(newProblems([], [problem('a', 1)])).toEqual([problem('a', 1)]);
  });

  it('are counted: a second one of the same words is new', () => {
    expect(newProblems([problem('a', 3)], [problem('a', 3), problem('a', 8)])).toEqual([problem('a', 8)]);
  });

  it('are told apart by file, kind and words', () => {
    const before = [problem('a', 1)];
    for (const after of [
      problem('b', 1),
      problem('a', 1, 'Other.'),
      { ...problem('a', 1), kind: 'not-text' as never },
    ])
      expect(newProblems(before, [after])).toEqual([after]);
  });
});

describe('the groups that cause problems', () => {
  const changes = [
    change('a', 'keys'),
    change('b', 'linker'),
    change('b', 'switches'),
    change('a', 'switches'),
  ];
  const broken = new Set(['b']);

  it('are those that do it alone, of those that change the file', () => {
    const alone = (group: readonly Change[]) => group.every(({ topic }) => topic === 'linker');
    expect(harmfulGroups(changes, broken, alone)).toEqual(new Set(['ios/marlstone/linker']));
  });

  it('are all that change the file when none does it alone', () => {
    expect(harmfulGroups(changes, broken, () => false)).toEqual(
      new Set(['ios/marlstone/linker', 'ios/marlstone/switches']),
    );
  });

  it('are not groups that leave the file alone, whatever they do', () => {
    expect(harmfulGroups(changes, broken, () => true).has('ios/marlstone/keys')).toBe(false);
  });
});

describe('what is left to a person', () => {
  it('is the edit that would have broken a file, with the place', () => {
    expect(brokenSteps([problem('a.xml', 7)])).toEqual([
      {
        platform: null,
        network: null,
        rule: null,
        what: 'Edit a.xml by hand: the edits that were planned for it would have broken it, and were dropped. Please report this fault of Syndexa.',
        why: 'With them the file could not be read at line 7: It ends too early.',
        where: 'a.xml',
      },
    ]);
  });

  it('is a change that claims the text of another', () => {
    expect(refusedSteps([change('a.xml', 'keys', ['app-id/missing', 'other']), change('b', 'keys')])).toEqual(
      [
        {
          platform: 'ios',
          network: 'marlstone',
          rule: 'app-id/missing',
          what: 'Write this and wire again: two changes of a.xml concern the same text, and only the first was planned.',
          why: 'Edits of the same text cannot be put together without guessing.',
          where: 'a.xml',
        },
        expect.objectContaining({ rule: null, where: 'b' }),
      ],
    );
  });
});
