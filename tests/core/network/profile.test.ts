import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { readProfile } from '../../../src/core/network/read.js';
import { samplesOf } from '../../../src/core/network/samples.js';
import { reasonsOf } from '../../../src/core/network/reasons.js';
import { offers, recogniser } from '../../../src/core/network/recognise.js';
import { profileOf, profiles, root } from '../../support/trees.js';

const text = readFileSync(join(root, 'profiles/cobalt-heron.yaml'), 'utf8');
const problemsOf = (from: string | RegExp, to: string) => readProfile(text.replace(from, () => to)).problems;
const { recognise, needles } = recogniser(profiles);

describe('recognising IDs', () => {
  it.each([
    [
      'CH-A-204418-7KQ2M9TD',
      [{ network: 'cobalt-heron', kind: 'app', platform: 'android', account: '204418' }],
    ],
    ['CH-I-204418-X5R8W3HB', [{ network: 'cobalt-heron', kind: 'app', platform: 'ios', account: '204418' }]],
    ['CH-U-204418-P4N7C2VJ', [{ network: 'cobalt-heron', kind: 'unit', account: '204418' }]],
    [
      'CH-U-100001-BANNER0A',
      [
        {
          network: 'cobalt-heron',
          kind: 'unit',
          account: '100001',
          sample: [{ platform: 'android', format: 'banner' }],
        },
      ],
    ],
    ['mrl-TIDE-4820116', [{ network: 'marlstone', kind: 'unit' }]],
    ['mrl1-5f2c7e19a04b8d3361c9e7f2', [{ network: 'marlstone', kind: 'app' }]],
    [' CH-A-204418-7KQ2M9TD', []],
    ['CH-A-204418-7KQ2M9TDX', []],
    ['CH-X-204418-7KQ2M9TD', []],
    ['x'.repeat(100_000), []],
  ])('%j', (value, expected) => {
    expect(recognise(value)).toEqual(expected);
  });

  it('knows every sample as one, by its own patterns', () => {
    for (const profile of profiles)
      for (const kind of ['app', 'unit'] as const)
        for (const { id, platform } of profile.ids[kind] ? samplesOf(profile.ids[kind]) : []) {
          const [reading, ...others] = recognise(id);
          expect(others).toEqual([]);
          expect(reading).toMatchObject({ network: profile.id, kind });
          expect(reading?.sample?.map((sample) => sample.platform)).toContain(platform);
          expect(needles.some((needle) => id.includes(needle))).toBe(true);
        }
  });

  it('knows which formats a network has where', () => {
    expect(offers(profileOf('quincebury'), 'banner', 'ios')).toBe(false);
    expect(offers(profileOf('marlstone'), 'banner', 'android')).toBe(false);
    expect(offers(profileOf('marlstone'), 'rewarded', 'ios')).toBe(true);
  });
});

describe('reading profiles', () => {
  it('takes those that ship', () => {
    expect(profiles.map(({ id }) => id)).toEqual([
      'cobalt-heron',
      'ferrowick',
      'marlstone',
      'quincebury',
      'tallowfield',
    ]);
  });

  it.each([
    [
      'a pattern that is none',
      /pattern: 'CH-\(\?<platform>.*/,
      "pattern: 'CH-(['",
      'ids.app.pattern',
      'missing closing ]',
    ],
    [
      'a pattern that looks ahead',
      /pattern: 'CH-U.*/,
      "pattern: 'CH-U-(?=[0-9])(?<account>[0-9]+)'",
      'ids.unit.pattern',
      '(?=',
    ],
    [
      'a sample that does not match',
      'CH-A-100001-SAMPLE0A',
      'CH-A-1-SAMPLE0A',
      'ids.app.samples.android',
      'does not match the pattern',
    ],
    [
      'a sample of the other platform',
      'android: CH-A-100001-SAMPLE0A',
      'android: CH-I-100001-SAMPLE0A',
      'ids.app.samples.android',
      'is one for iOS',
    ],
    [
      'needles that no ID holds',
      'needles: [CH-U-]',
      'needles: [CHU]',
      'ids.unit.needles',
      'None of them is in',
    ],
    [
      'a reason that is missing',
      /, why: Ads are fetched over the network\./,
      '',
      'android.permissions.0.why',
      'It is missing',
    ],
    [
      'a manifest on iOS',
      /place: plist\n.*\n.*\n/,
      'place: manifest\n    key: a.b.c\n    resource: abc\n',
      'ios.app-id',
      'cannot be in a manifest',
    ],
    [
      'a field that there is none of',
      'serving-delay: 1h',
      'serving-delays: 1h',
      'serving-delays',
      'no field of the name',
    ],
    ['another version', 'profile: 1', 'profile: 7', 'profile', 'version 1'],
    ['an odd name', 'id: cobalt-heron', 'id: Cobalt Heron', 'id', 'Small letters'],
    [
      'a broken address',
      "url: 'https://maven.cobaltheron.example/release'",
      'url: nowhere',
      'android.repositories.0.url',
      'a full address',
    ],
  ])('refuses %s, with its place', (_, from, to, field, message) => {
    const [problem] = problemsOf(from, to);
    expect(problem?.field).toBe(field);
    expect(problem?.message).toContain(message);
    expect(problem?.place?.line).toBeGreaterThan(0);
  });
});

describe('the reasons of a profile', () => {
  it.each(profiles.map((profile) => [profile.id, profile] as const))('%s: each has words', (_, profile) => {
    const reasons = reasonsOf(profile);
    expect(reasons.length).toBeGreaterThan(3);
    for (const { what, value, why } of reasons) {
      expect([what, value, why].every((text) => text.length > 1)).toBe(true);
      expect(value).not.toMatch(/\[object|undefined/);
    }
    expect(reasons.filter(({ what }) => /Flutter|Native|Expo|Unity|MAUI/.test(what))).toHaveLength(5);
  });
  it('tell what is asked for as it stands', () => {
    expect(reasonsOf(profileOf('quincebury'))).toContainEqual({
      what: 'Android binaries',
      value: 'quincebury-client-2.8.aar 2.8',
      why: 'The library is handed out as a file at the desk and is published nowhere.',
    });
    expect(reasonsOf(profileOf('marlstone')).map(({ value }) => value)).toContain('from 1.7.0 below 2.4.0');
  });
});
