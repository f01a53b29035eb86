import { describe, expect, it } from 'vitest';
import { PatternError, readPattern } from '../../../src/core/text/patterns.js';
import { grows } from '../../support/growth.js';
import { profiles } from '../../support/trees.js';

describe('patterns', () => {
  it('match whole texts only, and name their groups', () => {
    const pattern = readPattern('a(?<one>b+)|(?P<two>c)');
    expect(pattern.names).toEqual(['one', 'two']);
    expect(['abb', 'c', 'abbc', ' c', 'c\n', ''].map((text) => pattern.matches(text))).toEqual([
      true,
      true,
      false,
      false,
      false,
      false,
    ]);
    expect(pattern.groupsOf('abb')).toEqual(new Map([['one', 'bb']]));
    expect(pattern.groupsOf('c')).toEqual(new Map([['two', 'c']]));
    expect(pattern.groupsOf('d')).toBeUndefined();
  });

  it.each(['(?=a)b', '(?<!a)b', '(a)\\1', '\\u0041', '[', '(a{100}){100}', '(?<x>a)(?<x>b)', 'a{2000}'])(
    'are refused when they are not in the syntax of RE2: %s',
    (source) => expect(() => readPattern(source)).toThrow(PatternError),
  );

  it.each(['(?:a|a)*', '(a*)*b', '(a|aa)+$', '(.*a){12}', '(x+x+)+y'])(
    'take time that grows with the text: %s',
    (source) => {
      const pattern = readPattern(source);
      grows((length) => () => pattern.matches('a'.repeat(length)));
    },
  );

  it('that ship match as the expressions of the language do', () => {
    for (const { ids } of profiles)
      for (const kind of [ids.app, ids.unit]) {
        if (!kind) continue;
        const [ours, theirs] = [readPattern(kind.pattern), new RegExp(`^(?:${kind.pattern})$`, 'u')];
        const samples = Object.values(kind.samples).flatMap((sample) =>
          typeof sample === 'string' ? sample : Object.values(sample),
        );
        for (const sample of samples)
          for (const text of [sample, `${sample}0`, ` ${sample}`, sample.slice(1), sample.toLowerCase()])
            expect(Object.fromEntries(ours.groupsOf(text) ?? [['no', 'match']])).toEqual(
              theirs.test(text) ? { ...theirs.exec(text)?.groups } : { no: 'match' },
            );
      }
  });
});
