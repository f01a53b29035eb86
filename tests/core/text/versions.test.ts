import fc from 'fast-check';
import semver from 'semver';
import { describe, expect, it } from 'vitest';
import { isOlder } from '../../../src/core/checks/versions.js';
import { beginsBelow } from '../../../src/core/stacks/common/joint-wiring.js';
import { compareVersions, floorOf, shortenedTo } from '../../../src/core/text/versions.js';

const order = (a: string, b: string) => Math.sign(compareVersions(a, b));

describe('the order of versions', () => {
  it.each([
    ['6.2.0-beta1', '6.2.0'],
    ['6.2.0-beta9', '6.2.0-beta10'],
    ['6.2.0-alpha', '6.2.0-beta'],
    ['6.2.0-RC1', '6.2.0'],
    ['6.2.0-rc.1', '6.2.0-RC.2'],
    ['6.2.0-SNAPSHOT', '6.2.0'],
    ['6.2.0.b1', '6.2.0'],
    ['6.2.0b1', '6.2.0'],
    ['6.1.9', '6.2.0-beta1'],
    ['6.2.0', '6.2.0-1'],
    ['6.2.0-beta', '6.2.0-beta.1'],
    ['6.2.0-1.beta', '6.2.0-1'],
    ['6.2.0-beta.1', '6.2.0-beta.b'],
    ['6.9', '6.10'],
    ['6.2.0', '6.2.0.1'],
    ['9.1.0.0.1', '9.1.0.0.2'],
    ['6000.0.23f1', '6000.0.23f2'],
    ['6000.0.23a1', '6000.0.23b1'],
    ['6000.0.23b9', '6000.0.23f1'],
    ['net8.0-android34.0', 'net9.0-android34.0'],
    ['net8.0-android34.0', 'net8.0-android35.0'],
    ['1.8', '11'],
    ['', '1'],
    ['latest', '0.0.1'],
  ])('%s is older than %s', (older, newer) => {
    expect([order(older, newer), order(newer, older)]).toEqual([-1, 1]);
  });

  it.each([
    ['6.2', '6.2.0'],
    ['6', '6.0.0.0'],
    ['6.2.0+build.7', '6.2.0'],
    ['6.2.0-beta.1+7', '6.2.0-beta.1+8'],
    ['6.2.0.Final', '6.2.0'],
    ['6.2.0-RELEASE', '6.2'],
    ['v6.2.0', '6.2.0'],
    ['6.2.0-Beta', '6.2.0-beta'],
    ['6.2.x', '6.2'],
    ['6.+', '6'],
    ['6.2.0-beta.01', '6.2.0-beta.1'],
    ['', 'latest'],
  ])('%s is as old as %s', (one, other) => {
    expect([compareVersions(one, other), compareVersions(other, one)].map(Math.abs)).toEqual([0, 0]);
  });

  const identifier = fc.constantFrom('alpha', 'beta', 'dev', 'rc', '1', '2', '11');
  const release = fc.tuple(fc.nat(12), fc.nat(12), fc.nat(12)).map((parts) => parts.join('.'));
  const version = fc
    .tuple(
      release,
      fc.option(fc.constantFrom('alpha', 'beta', 'rc')),
      fc.array(identifier, { maxLength: 3 }),
      fc.boolean(),
    )
    .map(
      ([numbers, first, more, build]) =>
        `${numbers}${first ? `-${[first, ...more].join('.')}` : ''}${build ? '+5' : ''}`,
    );

  it('is that of semantic versions', () => {
    fc.assert(
      fc.property(version, version, (a, b) => {
        expect(order(a, b)).toBe(semver.compare(a, b));
      }),
      { numRuns: 500 },
    );
  });

  it('is one order: sorting does not depend on where it begins', () => {
    fc.assert(
      fc.property(fc.array(version, { maxLength: 8 }), (versions) => {
        const sorted = [...versions].sort(compareVersions);
        expect(
          [...versions]
            .reverse()
            .sort(compareVersions)
            .map((one) => one.split('+')[0]),
        ).toEqual(sorted.map((one) => one.split('+')[0]));
      }),
    );
  });
});

describe('the version that a range begins with', () => {
  it.each([
    ['^6.2.0-beta1', '6.2.0-beta1'],
    ['~> 6.2.0.beta1', '6.2.0.beta1'],
    ['>=6.2.0-rc.1 <7.0.0', '6.2.0-rc.1'],
    ['[6.2,7.0)', '6.2'],
    ['6.2.x', '6.2'],
    ['6.*', '6'],
    ['6.+', '6'],
    ['1.0.0 - 2.0.0', '1.0.0'],
    ['*', undefined],
    ['', undefined],
  ])('%s: %s', (range, floor) => {
    expect(floorOf(range)).toBe(floor);
  });

  it('is below a version that is wanted, or is not', () => {
    expect(beginsBelow('^6.2.0-beta1', '6.2.0')).toBe(true);
    expect(beginsBelow('^6.2.0', '6.2.0')).toBe(false);
    expect(beginsBelow('^6.2.0', '6.2.0-beta1')).toBe(false);
    expect(beginsBelow('>=6.1.0', '6.2.0')).toBe(false);
  });

  it('is newer than a version that is locked, or is not', () => {
    expect(isOlder('6.2.0-beta1', '~> 6.2')).toBe(true);
    expect(isOlder('6.2.0-beta2', '^6.2.0-beta1')).toBe(false);
    expect(isOlder('6.2.0', '< 7.0.0-beta >= 6.1')).toBe(false);
    expect(isOlder('6.2.0', '*')).toBe(false);
  });
});

describe('a version shortened to the numbers of another', () => {
  it.each([
    ['6.2.1', '6', '6'],
    ['6.2.1', '6.2-beta', '6.2'],
    ['6.2.1', '6.2.0', '6.2.1'],
    ['6.2.1', '6.2.0.4', '6.2.1'],
    ['6.2.1-beta1', '6.2.0', '6.2.1-beta1'],
    ['6.2.1-beta1', '6.2', '6.2'],
  ])('%s by %s is %s', (version, other, short) => {
    expect(shortenedTo(version, other)).toBe(short);
  });
});
