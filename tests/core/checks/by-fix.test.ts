import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { byFix } from '../../../src/core/checks/by-fix.js';
import type { Finding } from '../../../src/core/checks/model.js';
import { findingOf } from '../../support/findings.js';

const finding = (message: string, more: Partial<Finding> = {}): Finding =>
  findingOf({ message, mend: 'Name it in code.', place: null, fingerprint: message, ...more });
const fix = { edits: [], content: [] };

describe('findings by what fixes them', () => {
  it('says a sentence once, with the words that differ beside each finding', () => {
    const [group] = byFix([
      finding('The build lacks the unit ID of footer on Cobalt Heron (a).'),
      finding('The build lacks the unit ID of gift on Cobalt Heron (b).'),
    ]);
    expect(group?.sentences.map(({ text }) => text)).toEqual(['The build lacks the unit ID of ….']);
    expect(group?.sentences[0]?.findings.map(({ differs }) => differs)).toEqual([
      'footer on Cobalt Heron (a)',
      'gift on Cobalt Heron (b)',
    ]);
  });

  it('keeps the words that all begin and end with', () => {
    const sentence = (...messages: string[]) => {
      const [group] = byFix(
        messages.map((message) => finding(message, { variants: ['other'], platform: null })),
      );
      return group?.sentences.map(({ text, findings }) => [text, ...findings.map(({ differs }) => differs)]);
    };
    expect(sentence('The key A is missing in the app.', 'The key B or C is missing in the app.')).toEqual([
      ['The key … is missing in the app.', 'A', 'B or C'],
    ]);
    expect(sentence('It is wrong: a,', 'It is wrong: b,')).toEqual([['It is wrong: …,', 'a', 'b']]);
    expect(sentence('It is wrong: a.', 'It is wrong: b,')).toEqual([['It is wrong: …', 'a.', 'b,']]);
    expect(sentence('It is wrong.', 'It is wrong.')).toEqual([['It is wrong.', '', '']]);
    expect(sentence('one two three', 'four five six')).toEqual([
      ['one two three', ''],
      ['four five six', ''],
    ]);
  });

  it('does not say the variants or the platform of a finding a second time', () => {
    const [group] = byFix([
      finding('Nothing starts it in debug.'),
      finding('Nothing starts it in Release.', { variants: ['Release'] }),
    ]);
    expect(group?.sentences[0]?.text).toBe('Nothing starts it in ….');
    expect(group?.sentences[0]?.findings.map(({ differs }) => differs)).toEqual(['', '']);
  });

  it('keeps sentences apart that have little in common, and those of different rules', () => {
    const [group] = byFix([
      finding('One thing is wrong here.'),
      finding('Something else is not right there.'),
      finding('One thing is wrong here.', { rule: 'app-id/missing' }),
    ]);
    expect(group?.sentences).toHaveLength(3);
  });

  it('puts what wiring fixes first, apart from what it leaves under the same advice', () => {
    const groups = byFix([finding('a b c', { mend: 'x' }), finding('a b c', { fix }), finding('a b d')]);
    expect(groups.map(({ mend, isWired }) => [mend, isWired])).toEqual([
      ['Name it in code.', true],
      ['x', false],
      ['Name it in code.', false],
    ]);
  });

  it('loses no finding and no word of a message', () => {
    const word = fc.constantFrom('one', 'two', 'three', '…', '');
    const sentence = fc.array(word, { minLength: 1, maxLength: 6 }).map((words) => words.join(' '));
    const some = fc.record({ message: sentence, mend: word, wired: fc.boolean(), rule: word });
    fc.assert(
      fc.property(fc.array(some, { maxLength: 12 }), (given) => {
        const all = given.map(({ message, mend, wired, rule }) =>
          finding(message, { mend, rule, ...(wired ? { fix } : {}) }),
        );
        const found = byFix(all).flatMap(({ sentences }) => sentences);
        const shown = found.flatMap(({ findings }) => findings.map((one) => one.finding));
        expect([shown.length, new Set(shown)]).toEqual([all.length, new Set(all)]);
        for (const { text, findings } of found)
          for (const { finding: one, differs } of findings) {
            const parts = [...new Set([text, text.replace('…', differs), text.replace('… ', '')])];
            if (findings.length > 1 && !one.message.includes('…'))
              expect(parts.map((part) => part.trim())).toContain(one.message.trim());
            if (findings.length === 1) expect(text).toBe(one.message);
          }
      }),
    );
  });
});
