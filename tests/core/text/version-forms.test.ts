import { describe, expect, it } from 'vitest';
import { inFormOf, sharedForm } from '../../../src/core/text/version-forms.js';
import { expoFiles, expoPackage, expoStages } from '../../support/expo.js';
import { kelp } from '../../support/trees.js';
import { plan, text, written } from '../../support/wiring.js';

describe('the form of a version', () => {
  it.each([
    [['1.0.0', '2.3.4-beta.1'], ''],
    [['~1.0.0', '~2'], '~'],
    [['^1.0.0'], '^'],
    [['1.0.0', '^1.0.0'], '^'],
    [['workspace:*', 'git+ssh://x.example/y', '1.0.0'], ''],
    [['*', '>=1 <2'], '^'],
    [[], '^'],
  ])('that %j share is %j', (versions, form) => {
    expect(sharedForm(versions)).toBe(form);
  });

  it('stays when a version is raised', () => {
    expect(['1.0.0', '^1.0.0', '~1.0.0', '>=1 <2'].map((one) => inFormOf(one, '2.1.0'))).toEqual([
      '2.1.0',
      '^2.1.0',
      '~2.1.0',
      '^2.1.0',
    ]);
  });

  it('is kept by wiring: exact stays exact', () => {
    const exact = expoFiles({
      'package.json': expoPackage('    "shore": "4.5.6",\n'),
      'package-lock.json': null,
    });
    const title = kelp({ stages: expoStages });
    expect(text(written(exact, plan(exact, title))['package.json'])).toMatch(
      /"@cobaltheron.example\/react-native": "5\.0\.2"/,
    );
  });
});
