import { describe, expect, it } from 'vitest';
import { readProfile } from '../../../src/core/network/read.js';
import { isTagUrl, tagUrlProblems } from '../../../src/core/network/tag-urls.js';
import { recordTags } from '../../../src/core/roster/record-tags.js';
import { titleOn } from '../../support/wiring.js';
import { filesBelow, profileOf, profiles, root } from '../../support/trees.js';

const tallowfield = profileOf('tallowfield');
const messages = (url: string, profile: Parameters<typeof tagUrlProblems>[1] = tallowfield) =>
  tagUrlProblems(url, profile).map(({ severity, message }) => `${severity}: ${message}`);
const plain = 'https://vast.tallowfield.example/4/tf31077/a/abcd1234.xml';

describe('the address of a tag', () => {
  it.each([
    plain,
    `${plain}?n=[CACHEBUSTING]&t=%5BTIMESTAMP%5D&page=https%3A%2F%2Fshore.example%2F%3Fa%3D1`,
    `${plain}?a=1&b=2#start`,
  ])('%s is good', (url) => expect(messages(url)).toEqual([]));

  it.each([
    ['vast.tallowfield.example/4', ['error: It is not a web address.']],
    [` ${plain}`, ['error: It has spaces around it.']],
    [plain.replace('https', 'http'), ['warning: It does not use https.']],
    [`${plain}?a=1&amp;b=2`, ['error: It was copied from XML: its characters are still escaped.']],
    [`${plain}?a=low tide|ebb`, ['error: It has characters that must be escaped: a space |.']],
    [`${plain}?a=für`, ['error: It has characters that must be escaped: ü.']],
    [`${plain}?a=🌊`, ['error: It has characters that must be escaped: 🌊.']],
    [`${plain}?a=\ud83c`, ['error: It has characters that must be escaped: \ud83c.']],
    [`${plain}?a=100%`, ['error: It has a % that is not followed by two hexadecimal digits.']],
    [`${plain}?u=https://shore.example/?a=1&b=2`, ['error: The address in u is not escaped.']],
    [`${plain}?u=https://shore.example/x`, ['warning: The address in u is not escaped.']],
    [`${plain}?a=1&a=2`, ['warning: The parameter a appears 2 times.']],
    [`${plain}?a=`, ['warning: The parameter a is empty.']],
    [`${plain}?a=[MINE]&b=%%SITE%%`, ['warning: Unknown macros are sent unchanged: [MINE], %%SITE%%.']],
  ])('%s has its fault named, with what to do', (url, expected) => {
    expect(messages(url)).toEqual(expected);
    for (const { fix } of tagUrlProblems(url, tallowfield)) expect(fix).toMatch(/\.$/);
  });

  it('carries what its network asks for', () => {
    const asking = {
      name: 'Tallowfield',
      tag: {
        parameters: [
          { name: 'n', value: '[CACHEBUSTING]', why: 'Caches keep an answer otherwise.' },
          { name: 'app', why: 'Buyers look it up.' },
        ],
      },
    };
    expect(messages(plain, asking)).toEqual([
      'error: The parameter n is missing. Tallowfield: Caches keep an answer otherwise.',
      'error: The parameter app is missing. Tallowfield: Buyers look it up.',
    ]);
    expect(messages(`${plain}?n=7&app=kelp`, asking)).toEqual([
      'error: The parameter n is "7". Tallowfield: Caches keep an answer otherwise.',
    ]);
    expect(messages(`${plain}?n=[CACHEBUSTING]&app=kelp`, asking)).toEqual([]);
  });

  it('is checked in the samples of a profile', () => {
    const text = filesBelow(`${root}/profiles`)['tallowfield.yaml']?.toString('utf8') ?? '';
    const asking = text.replace(
      'inventory:\n',
      'tag:\n  parameters:\n    - { name: app, why: Buyers look it up by its name. }\n\ninventory:\n',
    );
    const { problems } = readProfile(asking);
    expect(problems.map(({ field }) => field)).toEqual([
      'ids.unit.samples.android.video',
      'ids.unit.samples.ios.video',
    ]);
    expect(problems[0]?.message).toContain('The parameter app is missing.');
    expect(problems[0]?.place?.line).toBeGreaterThan(10);
  });
});

describe('the tags on record', () => {
  it('are the units that are addresses, each with its place', () => {
    const ids = { android: 'example.brine.kelp', ios: 'example.brine.kelp' };
    const titles = new Map([['kelp', titleOn(['tallowfield', 'cobalt-heron'], ids)]]);
    const found = recordTags(titles, profiles);
    expect(
      found.map(({ network, platform, stage, problems }) => [network, platform, stage, problems]),
    ).toEqual([
      ['tallowfield', 'android', 'production', []],
      ['tallowfield', 'ios', 'production', []],
    ]);
    expect(found.every(({ url }) => isTagUrl(url))).toBe(true);
  });
});
