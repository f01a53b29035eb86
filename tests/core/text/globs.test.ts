import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { globMatcher } from '../../../src/core/text/globs.js';
import { grows } from '../../support/growth.js';

/** The same as a regular expression, which may take for ever where patterns are long. */
function asExpression(pattern: string): RegExp {
  const source = pattern
    .split(/(\*\*\/?|\*|\?)/)
    .map((part) => {
      if (part.startsWith('**')) return part === '**' ? '.*' : '(?:.*/)?';
      if (part === '*') return '[^/]*';
      return part === '?' ? '[^/]' : part.replace(/[.+^${}()|[\]\\]/g, '\\$&');
    })
    .join('');
  return new RegExp(`^${source}$`, 's');
}

describe('globs', () => {
  it('mean what they mean as regular expressions', () => {
    const pattern = fc.array(fc.constantFrom('a', 'b', '/', '*', '**', '**/', '?', '.'), { maxLength: 7 });
    const path = fc.array(fc.constantFrom('a', 'b', '/', '.'), { maxLength: 9 });
    fc.assert(
      fc.property(pattern, path, (parts, chars) => {
        // What is put together may form another mark: `*` and `*` are `**`.
        const [glob, text] = [parts.join(''), chars.join('')];
        fc.pre(!glob.includes('***'));
        expect([glob, text, globMatcher(glob)(text)]).toEqual([glob, text, asExpression(glob).test(text)]);
      }),
      { numRuns: 3_000 },
    );
  });

  it('fold case and ignore folders when they are told to', () => {
    expect(globMatcher('SRC/*.cs', { ignoreCase: true })('src/App.cs')).toBe(true);
    expect(globMatcher('iphoneos*', { folders: false })('iphoneos/17')).toBe(true);
    expect(globMatcher('a?c', { folders: false })('abc')).toBe(false);
  });

  it('take time that grows with the text, whatever the pattern is', () => {
    for (const pattern of ['*a'.repeat(40), '**a'.repeat(40), '**/a'.repeat(40), '?*'.repeat(40)])
      grows((length) => () => globMatcher(pattern)('a'.repeat(length / 20) + 'b'));
  });

  it('match nothing when they are longer than any that a person wrote', () => {
    expect(globMatcher('*'.repeat(5_000))('a')).toBe(false);
  });
});
