import { describe, expect, it } from 'vitest';
import { choiceProblems, variantProblems } from '../../../src/core/wiring/choice-problems.js';

const choice = (more: object) => ({ rules: [], networks: [], variants: [], groups: [], ...more });
const parts = (...groups: string[]) => choiceProblems(choice({ groups })).map(({ field }) => field);
const built = (variants: string[], names: string[]) => variantProblems(choice({ variants }), names);

describe('what a wiring is narrowed to', () => {
  it('is a rule that exists, and a near one is suggested', () => {
    const problems = choiceProblems(choice({ rules: ['app-id/missing', 'app-id/mising', 'nothing'] }));
    expect(problems).toMatchObject([
      {
        field: 'choice.rules.1',
        message: 'There is no rule app-id/mising.',
        fix: 'Did you mean app-id/missing?',
      },
      { field: 'choice.rules.2', fix: 'Name rules as a check prints them, such as app-id/missing.' },
    ]);
  });

  it('is a part by platform, network and topic, whether or not it has anything left to do', () => {
    expect(parts('android/cobalt-heron/app-id', 'ios/all/placebook')).toEqual([]);
    const wrong = ['app-id', 'web/all/app-id', 'ios//app-id', 'ios/all/nothing', 'ios/all/app-id/more'];
    expect(parts(...wrong)).toEqual(wrong.map((_, at) => `choice.groups.${at}`));
  });

  it('is a variant that the tree builds, in any case of letters', () => {
    expect(built(['RELEASE', 'debug'], ['debug', 'release'])).toEqual([]);
    expect(built(['Relese', 'staging'], ['debug', 'release'])).toMatchObject([
      { field: 'choice.variants.0', fix: 'Did you mean release?' },
      { field: 'choice.variants.1', fix: 'The tree builds debug, release.' },
    ]);
    expect(built(['any'], [])).toMatchObject([{ fix: 'The tree builds no variant.' }]);
  });
});
