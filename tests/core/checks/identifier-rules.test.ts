import { describe, expect, it } from 'vitest';
import type { CheckContext } from '../../../src/core/checks/model.js';
import { editionNotFound } from '../../../src/core/checks/rules/identifier-edition-not-found.js';
import { identifierDiffersFromRoster } from '../../../src/core/checks/rules/identifier-differs-from-roster.js';
import type { Survey, SurveyEdition } from '../../../src/core/facts/model.js';
import { contextOf, edition, fact, place, reportsOf } from '../../support/surveyed.js';
import { kelp } from '../../support/titles.js';

describe('an identifier that ships', () => {
  const identifier = (value: string, variants: string[], more: object = {}) =>
    fact('identifier', { value, variants, network: null, ...more });
  const told = (...facts: ReturnType<typeof fact>[]) =>
    reportsOf(identifierDiffersFromRoster, contextOf(facts)).map(({ message, data, variants }) => [
      message,
      data,
      variants,
    ]);

  it('is told where the roster has another, for the variants that ship', () => {
    expect(told(identifier('example.brine.other', ['debug', 'beta', 'release']))).toEqual([
      [
        'differs',
        { value: 'example.brine.other', variants: 'release', expected: 'example.brine.kelp' },
        ['release'],
      ],
    ]);
  });

  it('is nothing where it is right, where it does not ship, and where the roster names none', () => {
    expect(told(identifier('example.brine.kelp', ['release']))).toEqual([]);
    expect(told(identifier('example.brine.other', ['debug', 'beta']))).toEqual([]);
    expect(told(fact('app-label', { value: 'example.brine.other', variants: ['release'] }))).toEqual([]);
    const context = contextOf([identifier('example.brine.other', ['release'])]);
    const editions = { android: { module: 'app' }, ios: {} } as never;
    const title = { ...kelp(), editions };
    expect(reportsOf(identifierDiffersFromRoster, { ...context, title })).toEqual([]);
  });
});

describe('an edition that is not in the tree', () => {
  const other = (module: string, more: object = {}): SurveyEdition => ({
    ...edition('android', module),
    identifier: 'example.brine.other',
    identifiers: { debug: 'example.brine.other' },
    home: place(`${module}/AndroidManifest.xml`),
    ...more,
  });
  const surveyed = (editions: SurveyEdition[], more: Partial<Survey> = {}): CheckContext => {
    const context = contextOf();
    return { ...context, survey: { ...context.survey, editions, passedOver: [], ...more } };
  };
  const expected = 'example.brine.kelp';
  const problem = (kind: string) => [{ path: 'a', line: 1, column: 1, kind, message: 'x' }] as never;

  it('is nothing where both are there, or one is there and the other built elsewhere', () => {
    expect(reportsOf(editionNotFound, contextOf())).toEqual([]);
    expect(reportsOf(editionNotFound, surveyed([edition('ios')]))).toEqual([]);
    expect(reportsOf(editionNotFound, { ...surveyed([]), title: null })).toEqual([]);
  });

  it('is told with what the tree builds instead', () => {
    const apps = [other('app'), other('wear', { identifier: null })];
    expect(reportsOf(editionNotFound, surveyed([...apps, edition('ios')]))).toEqual([
      {
        platform: 'android',
        place: place('app/AndroidManifest.xml'),
        message: 'none',
        data: {
          apps: 'example.brine.other (app), an app without a known identifier (wear)',
          platform: 'android',
          expected,
        },
      },
    ]);
  });

  // The other platform may be built elsewhere: this is no wrong tree.
  it('is told with the modules where several apps have its identifier', () => {
    const mine = (module: string) => other(module, { identifiers: { debug: 'x', release: expected } });
    const reports = reportsOf(editionNotFound, surveyed([other('tv'), mine('one'), mine('two')]));
    expect(reports).toEqual([
      {
        platform: 'android',
        place: place('one/AndroidManifest.xml'),
        message: 'several',
        mend: 'several',
        data: { platform: 'android', expected, modules: 'one and two' },
      },
    ]);
  });

  it('is told with what was recognised in a tree that builds neither', () => {
    const recognised = (more: Partial<Survey>) =>
      reportsOf(editionNotFound, surveyed([], more)).map(({ platform, place: at, message, data }) => [
        platform,
        at,
        message,
        data,
      ]);
    const told = (text: string) => [
      ['android', null, 'nothing', { platform: 'Android', expected, recognised: text }],
      ['ios', null, 'nothing', { platform: 'iOS', expected, recognised: text }],
    ];
    expect(recognised({})).toEqual(told('Nothing in it was recognised as an application that can be read'));
    const stacks = [
      { stack: 'flutter', root: 'a' },
      { stack: 'unity', root: '' },
    ] as Survey['stacks'];
    const passedOver = [
      { root: 'b', why: 'no manifest' },
      { root: '', why: 'no project' },
    ];
    expect(recognised({ stacks, passedOver })).toEqual(
      told(
        'Recognised instead: flutter in a; unity in the root; b was skipped: no manifest; the root was skipped: no project',
      ),
    );
    // What a file that cannot be read would have said is not known.
    expect(recognised({ problems: problem('conflict') })).toEqual([]);
    expect(recognised({ problems: problem('syntax') })).toHaveLength(2);
  });
});
