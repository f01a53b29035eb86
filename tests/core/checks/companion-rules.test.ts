import { describe, expect, it } from 'vitest';
import { companionIdentifierDiffers } from '../../../src/core/checks/rules/companion-identifier-differs.js';
import { companionMissing } from '../../../src/core/checks/rules/companion-missing.js';
import { companionOutsideTarget } from '../../../src/core/checks/rules/companion-outside-target.js';
import type { Fact, Unresolved } from '../../../src/core/facts/model.js';
import { contextOf as surveyed, fact, place, reportsOf } from '../../support/surveyed.js';
import { kelp, placement } from '../../support/titles.js';

// Ferrowick gives out a file for each application.

const title = kelp({
  networks: {},
  placements: { footer: placement('banner', 'fw-1', 'fw-2', 'ferrowick') },
});
const all = ['debug', 'beta', 'release'];
const file = (more: object = {}) =>
  fact('companion', {
    network: 'ferrowick',
    value: 'example.brine.kelp',
    variants: all,
    place: place('app/ferrowick-notice.json'),
    ...more,
  });
const onIos = file({ platform: 'ios', place: place('Kelp/Ferrowick-Notice.plist') });
const contextOf = (facts: Fact[], unresolved: Unresolved[] = []) => surveyed(facts, { title, unresolved });
const wrongFolder = { effective: { reason: 'wrong-folder' } };
const outside = { effective: { reason: 'outside-target' } };

describe('the file that a network gives out', () => {
  const missing = (facts: Fact[], unresolved: Unresolved[] = []) =>
    reportsOf(companionMissing, contextOf(facts, unresolved));
  const common = { platform: 'android', module: 'app', network: 'ferrowick' };
  const data = { network: 'Ferrowick', file: 'ferrowick-notice.json' };

  it('is told where it is missing', () => {
    expect(missing([file({ variants: ['beta'] }), onIos])).toEqual([
      {
        ...common,
        variants: ['debug', 'release'],
        place: place(),
        message: 'missing',
        data: { ...data, variants: 'debug and release' },
      },
    ]);
    expect(missing([])).toHaveLength(2);
    expect(missing([file(), onIos])).toEqual([]);
    expect(missing([file(outside), onIos])).toEqual([]);
    const unread = file() as unknown as Unresolved;
    expect(missing([onIos], [unread])).toEqual([]);
  });

  it('is told with where it is when the build does not look there', () => {
    const astray = file({ ...wrongFolder, place: place('docs/ferrowick-notice.json') });
    expect(missing([astray, onIos])).toEqual([
      {
        ...common,
        variants: all,
        place: place('docs/ferrowick-notice.json'),
        message: 'astray',
        data: { ...data, variants: 'debug, beta and release', path: 'docs/ferrowick-notice.json' },
      },
    ]);
  });

  it('is not made up for by another network, module, platform or kind of file', () => {
    for (const more of [
      { network: 'marlstone' },
      { module: 'wear' },
      { platform: 'ios' },
      { kind: 'plist-key' },
    ])
      for (const where of [{}, wrongFolder])
        expect(missing([file({ ...more, ...where }), onIos]).map(({ message }) => message)).toEqual([
          'missing',
        ]);
    const heron = surveyed([]);
    expect(reportsOf(companionMissing, heron)).toEqual([]);
  });

  it('is told where it was made for another application', () => {
    const differs = (...facts: Fact[]) =>
      reportsOf(companionIdentifierDiffers, contextOf(facts)).map(({ message, data: given, place: at }) => [
        message,
        given,
        at?.path,
      ]);
    const other = file({ value: 'example.brine.other' });
    expect(differs(other)).toEqual([
      [
        'differs',
        {
          network: 'Ferrowick',
          found: 'example.brine.other',
          variants: 'debug, beta, release',
          wanted: 'example.brine.kelp',
        },
        'app/ferrowick-notice.json',
      ],
    ]);
    expect(differs(file())).toEqual([]);
    // One file may be for several applications.
    expect(differs(other, file())).toEqual([]);
    for (const more of [
      { network: 'marlstone' },
      { place: place('other.json') },
      { kind: 'plist-key', place: place('app/ferrowick-notice.json') },
    ])
      expect(differs(other, file(more))).toHaveLength(1);
    expect(differs(file({ value: 'x', ...wrongFolder }))).toEqual([]);
    expect(differs(file({ value: 'x', kind: 'plist-key' }))).toEqual([]);
    expect(differs(file({ value: 'x', ...outside }))).toHaveLength(1);
  });

  it('is told where the application is built without it', () => {
    const told = (facts: Fact[], unresolved: Unresolved[] = []) =>
      reportsOf(companionOutsideTarget, contextOf(facts, unresolved));
    const out = { ...onIos, ...outside } as Fact;
    expect(told([out])).toEqual([
      {
        platform: 'ios',
        module: 'app',
        variants: all,
        network: 'ferrowick',
        place: place('Kelp/Ferrowick-Notice.plist'),
        chain: [],
        message: 'outside',
        data: { path: 'Kelp/Ferrowick-Notice.plist', module: 'app' },
      },
    ]);
    const unread = out as unknown as Unresolved;
    expect(told([], [unread])).toHaveLength(1);
    expect(told([], [{ ...unread, effective: undefined }])).toEqual([]);
    expect(told([], [{ ...unread, module: 'wear' }])).toEqual([]);
    for (const more of [
      { effective: true },
      wrongFolder,
      { kind: 'plist-key' },
      { network: 'marlstone' },
      { network: null },
    ])
      expect(told([{ ...out, ...more } as Fact])).toEqual([]);
  });
});
