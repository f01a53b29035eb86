import { describe, expect, it } from 'vitest';
import type { Placement } from '../../../src/core/roster/model.js';
import { settingFaults, settingProblems } from '../../../src/core/roster/settings.js';
import type { Settings } from '../../../src/core/words/settings.js';
import type { Format } from '../../../src/core/words/words.js';
import { profileOf, profiles } from '../../support/titles.js';

const rules = {
  refresh: { min: '30s', max: '2m', managed: false, off: false },
  content: ['text', 'image'],
  skippable: true,
  'end-card': false,
  sizes: ['standard', 'large'],
  anchors: ['top', 'bottom'],
  every: { min: 4 },
  cap: { max: 20, per: '1d' },
  timeout: { min: '1s', max: '60s' },
} as unknown as Parameters<typeof settingFaults>[2];

/** The fault of a setting, as `message fix`; undefined where the network takes it. */
function faultOf(settings: Settings, format: Format = 'banner', against = rules): string | undefined {
  const [fault, ...others] = Object.entries(settingFaults(settings, format, against, 'Shoal'));
  expect(others).toEqual([]);
  return fault && `${fault[0]}: ${fault[1].message} ${fault[1].fix}`;
}

describe('what a network refuses of a setting', () => {
  it.each<[Settings, string]>([
    [{ refresh: '29s' }, 'refresh: Shoal does not support a refresh time of 29s. Use a time from 30s to 2m.'],
    [
      { refresh: '121s' },
      'refresh: Shoal does not support a refresh time of 121s. Use a time from 30s to 2m.',
    ],
    [
      { refresh: 'managed' },
      'refresh: Shoal does not support a refresh time of managed. Use a time from 30s to 2m.',
    ],
    [{ refresh: 'off' }, 'refresh: Shoal does not support a refresh time of off. Use a time from 30s to 2m.'],
    [{ content: ['text', 'video'] }, 'content: Shoal shows no video in a banner. It shows text, image.'],
    [
      { skippable: false },
      'skippable: Shoal has no banner with skippable false. Write skippable: true, or remove it.',
    ],
    [
      { 'end-card': true },
      'end-card: Shoal has no banner with end-card true. Write end-card: false, or remove it.',
    ],
    [{ size: 'adaptive' }, 'size: Shoal has no adaptive banner. It has standard, large.'],
    [{ anchor: 'inline' }, 'anchor: Shoal allows no banner at inline. It allows top, bottom.'],
    [{ every: 3 }, 'every: Shoal requires at least 4 items between two ads. Use 4 or more.'],
    [{ cap: { count: 21, per: '1d' } }, 'cap: Shoal shows it at most 20 times per 1d. Lower the cap.'],
    [{ cap: { count: 21, per: '1h' } }, 'cap: Shoal shows it at most 20 times per 1d. Lower the cap.'],
    [{ timeout: '61s' }, 'timeout: Shoal does not support a timeout of 61s. Use a time from 1s to 60s.'],
  ])('%j', (settings, fault) => {
    expect(faultOf(settings)).toBe(fault);
  });

  it.each<[Settings]>([
    [{ refresh: '30s' }],
    [{ refresh: '2m' }],
    [{ content: ['text', 'image'] }],
    [{ content: [] }],
    [{ skippable: true }],
    [{ 'end-card': false }],
    [{ size: 'large' }],
    [{ anchor: 'top' }],
    [{ every: 4 }],
    [{ cap: { count: 20, per: '1d' } }],
    [{ cap: { count: 21, per: '2d' } }],
    [{ cap: { count: 999 } }],
    [{ timeout: '1s' }],
    [{ timeout: '60s' }],
    [{ fallback: ['shoal'], reward: { amount: 1, item: 'pearl' } }],
    [{}],
  ])('is nothing of %j', (settings) => {
    expect(faultOf(settings)).toBe(undefined);
  });

  it('is nothing where it has no rule, but a refresh', () => {
    const all: Settings = {
      content: ['video'],
      skippable: false,
      'end-card': true,
      size: 'adaptive',
      anchor: 'inline',
      every: 1,
      cap: { count: 999, per: '1h' },
      timeout: '1h',
    };
    expect(faultOf(all, 'banner', {})).toBe(undefined);
    expect(faultOf({ refresh: 'off' }, 'banner', {})).toBe(undefined);
    expect(faultOf({ refresh: '60s' }, 'interstitial', {})).toBe(
      'refresh: Shoal never refreshes an interstitial. Remove it.',
    );
    expect(faultOf({ refresh: 'managed' }, 'banner', {})).toBe(
      'refresh: Shoal never refreshes a banner. Remove it.',
    );
  });

  it('depends on what a refresh may be', () => {
    const free = { refresh: { min: '30s', max: '120s', managed: true, off: true } } as typeof rules;
    expect(faultOf({ refresh: 'managed' }, 'banner', free)).toBe(undefined);
    expect(faultOf({ refresh: 'off' }, 'banner', free)).toBe(undefined);
  });
});

const known = new Map(profiles.map((profile) => [profile.id, profile]));
const problems = (placement: Partial<Placement>) =>
  settingProblems('spot', { format: 'banner', settings: {}, units: {}, ...placement }, known).map(
    ({ field, message, fix }) => `${field}: ${message} ${fix ?? ''}`,
  );

describe('what is wrong with settings on their own', () => {
  it.each<[Format, Settings, string]>([
    [
      'banner',
      { content: [] },
      'content: There is no content kind, so nothing can be shown. Name at least one of text, image, video.',
    ],
    [
      'interstitial',
      { reward: { amount: 1, item: 'x' } },
      'reward: An interstitial does not have a reward. Remove it, or make the format rewarded.',
    ],
    [
      'native',
      { size: 'large' },
      'size: Only a banner has a size class, not a native. Remove it, or make the format banner.',
    ],
    [
      'interstitial',
      { anchor: 'top' },
      'anchor: Only a banner is anchored, not an interstitial. Remove it, or make the format banner.',
    ],
    [
      'banner',
      { every: 6 },
      'every: Only a native ad can be repeated in a list, not a banner. Remove it, or make the format native.',
    ],
    [
      'banner',
      { first: 0 },
      'first: Only a native ad can be in a list, not a banner. Remove it, or make the format native.',
    ],
    [
      'banner',
      { fallback: ['marlstone', 'nowhere'] },
      `fallback: There is no profile of the network nowhere. Use ${[...known.keys()].join(', ')}.`,
    ],
    [
      'banner',
      { fallback: ['marlstone', 'cobalt-heron', 'marlstone'] },
      'fallback: marlstone is listed twice. Name each network once.',
    ],
  ])('%s: %j', (format, settings, problem) => {
    expect(problems({ format, settings })).toEqual([`placements.spot.settings.${problem}`]);
  });

  it.each<[Format, Settings]>([
    ['rewarded', { reward: { amount: 1, item: 'x' } }],
    ['banner', { size: 'large', anchor: 'top', content: ['text'] }],
    ['native', { every: 6, first: 2 }],
    ['banner', { fallback: ['marlstone', 'cobalt-heron'] }],
  ])('is nothing of %s: %j', (format, settings) => {
    expect(problems({ format, settings })).toEqual([]);
  });
});

describe('what is wrong with settings at the networks of a placement', () => {
  it('is told for each network that has a profile', () => {
    const units = { 'cobalt-heron': {}, nowhere: {}, marlstone: {} };
    expect(problems({ units, settings: { timeout: '2m' } })).toEqual([
      `placements.spot.units.marlstone: Marlstone does not offer the format banner. It offers ${Object.keys(profileOf('marlstone').formats).join(', ')}.`,
    ]);
    expect(
      problems({ units: { 'cobalt-heron': {} }, format: 'interstitial', settings: { timeout: '2m' } }),
    ).toEqual([
      'placements.spot.settings.timeout: Cobalt Heron does not support a timeout of 2m. Use a time from 1s to 60s.',
    ]);
  });

  it('is that a format is not offered on a platform for which there are IDs', () => {
    const heron = profileOf('cobalt-heron');
    const androidOnly = {
      ...heron,
      formats: { banner: { ...heron.formats.banner, platforms: ['android'] } },
    } as typeof heron;
    const one = new Map([[heron.id, androidOnly]]);
    const at = (platforms: object) =>
      settingProblems('spot', { format: 'banner', settings: {}, units: { 'cobalt-heron': platforms } }, one);
    expect(at({ android: {} })).toEqual([]);
    expect(at({ android: {}, ios: {} })).toEqual([
      {
        field: 'placements.spot.units.cobalt-heron.ios',
        message: 'Cobalt Heron does not offer banner on iOS.',
        fix: 'Remove the IDs.',
      },
    ]);
  });
});
