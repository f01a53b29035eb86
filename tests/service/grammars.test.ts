import { describe, expect, it, vi } from 'vitest';
import { GrammarMissingError } from '../../src/core/syntax/grammars.js';
import { withGrammars } from '../../src/service/grammars.js';

describe('work that meets a language which is not ready', () => {
  it('begins anew with it', async () => {
    const work = vi.fn(() => {
      if (work.mock.calls.length === 1) throw new GrammarMissingError('ruby');
      return 'done';
    });
    expect(await withGrammars(work)).toBe('done');
    expect(work).toHaveBeenCalledTimes(2);
  });

  it('fails as it is when something else is wrong', async () => {
    await expect(
      withGrammars(() => {
        throw new Error('odd');
      }),
    ).rejects.toThrow('odd');
  });
});
