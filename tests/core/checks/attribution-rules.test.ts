import { describe, expect, it } from 'vitest';
import { attributionIdMalformed } from '../../../src/core/checks/rules/attribution-id-malformed.js';
import { attributionIdMissing } from '../../../src/core/checks/rules/attribution-id-missing.js';
import { attributionIdTwice } from '../../../src/core/checks/rules/attribution-id-twice.js';
import { companionIdentifierDiffers } from '../../../src/core/checks/rules/companion-identifier-differs.js';
import { companionMissing } from '../../../src/core/checks/rules/companion-missing.js';
import { ruleCases, findingsOf } from '../../support/rules.js';
import {
  androidFiles,
  appIdKey,
  attributionKey,
  attributionList,
  iosFiles,
  kelp,
  plist,
} from '../../support/trees.js';

const listing = (ids: string[]) =>
  iosFiles({ 'Kelp/Info.plist': plist(`${appIdKey('$(HERON)')}\n${attributionKey(ids)}`) });

ruleCases(attributionIdMissing, {
  clean: [
    { name: 'a list that names every one', files: iosFiles() },
    { name: 'a network that is not used', files: listing([]), title: kelp({ networks: {} }) },
    { name: 'an edition that has no such list', files: androidFiles() },
    { name: 'an identifier in capitals still counts', files: listing(['CH7K2M9TD4', 'h3r0nw8ngs']) },
  ],
  faulty: [
    {
      name: 'one that is missing',
      files: listing(['ch7k2m9td4']),
      findings: [
        {
          platform: 'ios',
          network: 'cobalt-heron',
          variants: ['Debug', 'Release'],
          message: expect.stringContaining('h3r0nw8ngs.skadnetwork'),
        },
      ],
    },
    {
      name: 'no list at all',
      files: iosFiles({ 'Kelp/Info.plist': plist(appIdKey('$(HERON)')) }),
      findings: [{ message: expect.stringContaining('ch7k2m9td4.skadnetwork and h3r0nw8ngs.skadnetwork') }],
    },
  ],
});
ruleCases(attributionIdMalformed, {
  clean: [{ name: 'a list in its right form', files: iosFiles(), title: null }],
  faulty: [
    {
      name: 'capitals and blanks',
      byHand: {
        edits: [
          ['Kelp/Info.plist', 'ABCDEF1234', 'abcdef1234'],
          ['Kelp/Info.plist', ' abcdef1235', 'abcdef1235'],
        ],
      },
      files: listing([...attributionList, 'ABCDEF1234', ' abcdef1235']),
      findings: [{ place: expect.objectContaining({ path: 'Kelp/Info.plist' }) }, {}],
    },
  ],
});
ruleCases(attributionIdTwice, {
  clean: [{ name: 'a list that names each once', files: iosFiles() }],
  faulty: [
    {
      name: 'one that stands there twice',
      files: listing([...attributionList, 'ch7k2m9td4']),
      findings: [{}],
    },
  ],
});

const zones = kelp({ networks: { ferrowick: { android: {}, ios: {} } } });
const file = 'app/ferrowick-notice.json';
const notice = (identifier: string) =>
  JSON.stringify({ property: { android: { package: identifier } } }, null, 2);
const iosNotice = (identifier: string) =>
  plist(`\t<key>BundleIdentifier</key>\n\t<string>${identifier}</string>`);

ruleCases(companionMissing, {
  clean: [
    {
      name: 'files that lie in their places',
      files: {
        ...androidFiles({ [file]: notice('example.brine.kelp') }),
        ...iosFiles({ 'Kelp/Ferrowick-Notice.plist': iosNotice('example.brine.kelp') }),
      },
      title: zones,
    },
    {
      name: 'a file per variant',
      files: androidFiles({
        'app/src/debug/ferrowick-notice.json': notice('example.brine.kelp'),
        'app/src/release/ferrowick-notice.json': notice('example.brine.kelp'),
      }),
      title: zones,
    },
    { name: 'a network that gives out none', files: androidFiles() },
  ],
  faulty: [
    {
      name: 'no file',
      byHand: { edits: [[file, '', notice('example.brine.kelp')]] },
      files: androidFiles(),
      title: zones,
      findings: [{ platform: 'android', network: 'ferrowick', variants: ['debug', 'release'] }],
    },
    {
      name: 'a file where nobody looks',
      files: androidFiles({ 'app/config/ferrowick-notice.json': notice('example.brine.kelp') }),
      title: zones,
      findings: [{ message: expect.stringContaining('app/config/ferrowick-notice.json') }],
    },
    {
      name: 'a file for one variant only',
      files: androidFiles({ 'app/src/debug/ferrowick-notice.json': notice('example.brine.kelp') }),
      title: zones,
      findings: [{ variants: ['release'] }],
    },
  ],
});
ruleCases(companionIdentifierDiffers, {
  clean: [
    {
      name: 'a file for this application',
      files: androidFiles({ [file]: notice('example.brine.kelp') }),
      title: zones,
    },
  ],
  faulty: [
    {
      name: 'a file for another application',
      byHand: { edits: [[file, 'example.brine.kelb', 'example.brine.kelp']] },
      files: androidFiles({ [file]: notice('example.brine.kelb') }),
      title: zones,
      findings: [{ place: { path: file, line: 4, column: 18, endLine: 4, endColumn: 38 } }],
    },
    {
      name: 'a property list for another application',
      files: iosFiles({ 'Kelp/Ferrowick-Notice.plist': iosNotice('example.other') }),
      title: zones,
      findings: [{ platform: 'ios', network: 'ferrowick' }],
    },
  ],
});

describe('a companion file that cannot be read', () => {
  it.each([
    ['no JSON', '{ "property": '],
    ['nothing of what is looked for', '{}'],
    ['another kind of value', '{ "property": { "android": { "package": 7 } } }'],
    ['far too deep', '['.repeat(5000)],
  ])('%s', (_, text) => {
    const rules = findingsOf(androidFiles({ [file]: text }), zones).map(({ rule }) => rule);
    expect(rules).not.toContain('companion/missing');
    expect(rules.some((rule) => rule === 'tree/cannot-tell' || rule === 'tree/broken-file')).toBe(true);
  });
});
