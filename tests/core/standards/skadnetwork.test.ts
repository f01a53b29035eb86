import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mergeAttribution } from '../../../src/core/formats/plist/attribution.js';
import { readPlist } from '../../../src/core/formats/plist/read.js';
import { mergeIntoList } from '../../../src/core/formats/attribution-list/merge.js';
import { compareAttribution, neededIds } from '../../../src/core/roster/attribution-needs.js';
import {
  attributionJson,
  attributionPlist,
  mergedIds,
  normalId,
} from '../../../src/core/standards/skadnetwork.js';
import { readAttributionList } from '../../../src/core/formats/attribution-list/read.js';
import { applyEdits } from '../../../src/core/text/edit.js';
import { attributionKey, kelp, plist, profiles } from '../../support/trees.js';

const ids = (text: string) => readAttributionList(text).ids.map(({ id, written }) => id ?? `? ${written}`);

describe('lists of SKAdNetwork identifiers', () => {
  it.each([
    ['abcdef1234.skadnetwork', 'abcdef1234.skadnetwork'],
    [' ABCDEF1234.SKAdNetwork\n', 'abcdef1234.skadnetwork'],
    ['abcdef1234', 'abcdef1234.skadnetwork'],
    ['abc', null],
    ['a b c d e f', null],
    ['x'.repeat(60), null],
  ])('%j is %j', (written, id) => {
    expect(normalId(written)).toBe(id);
  });

  it.each([
    ['a property list', attributionPlist(['aaaaa.skadnetwork', 'bbbbb.skadnetwork'])],
    [
      'a bare array of dictionaries',
      '<array><dict><key>SKAdNetworkIdentifier</key><string>aaaaa.skadnetwork</string></dict><dict><key>SKAdNetworkIdentifier</key><string>bbbbb.skadnetwork</string></dict></array>',
    ],
    [
      'JSON as networks publish it',
      '{"company_name":"X","skadnetwork_ids":[{"id":1,"skadnetwork_id":"aaaaa.skadnetwork"},{"skadnetwork_id":"bbbbb.skadnetwork"}]}',
    ],
    ['JSON as an array of texts', '["aaaaa.skadnetwork", "bbbbb.skadnetwork"]'],
    [
      'JSON in the words of the property list',
      '[{"SKAdNetworkIdentifier":"aaaaa.skadnetwork"},{"SKAdNetworkIdentifier":"bbbbb.skadnetwork"}]',
    ],
  ])('are read from %s', (_, text) => {
    expect(ids(text)).toEqual(['aaaaa.skadnetwork', 'bbbbb.skadnetwork']);
  });

  it.each([
    ['nothing', ''],
    ['plain text', 'aaaaa.skadnetwork'],
    ['half of it', '{"skadnetwork_ids":['],
  ])('in %s: are none, and it says why', (_, text) => {
    const { ids: found, problems } = readAttributionList(text);
    expect(found).toEqual([]);
    expect(problems.length).toBeGreaterThan(0);
  });

  it('are none in an entity bomb, which is not expanded', () => {
    const text =
      '<!DOCTYPE x [<!ENTITY a "abcde.skadnetwork">]><plist><dict><key>SKAdNetworkIdentifier</key><string>&a;</string></dict></plist>';
    expect(readAttributionList(text).ids.filter(({ id: found }) => found !== null)).toEqual([]);
  });

  const id = fc.stringMatching(/^[a-z0-9]{5,12}$/).map((text) => `${text}.skadnetwork`);
  const list = fc.array(id, { maxLength: 8 });

  it('merge: sorted, each once, whatever the order and the writing', () => {
    fc.assert(
      fc.property(fc.array(list, { maxLength: 4 }), (lists) => {
        const merged = mergedIds(lists.map((one) => one.map((text) => ` ${text.toUpperCase()}`)));
        expect(merged).toEqual([...new Set(lists.flat())].sort());
        expect(mergedIds([merged, ...lists])).toEqual(merged);
      }),
    );
  });

  it.each([
    ['a property list', (known: string[]) => attributionPlist(mergedIds([known])), attributionPlist],
    ['JSON', (known: string[]) => attributionJson(mergedIds([known])), attributionJson],
  ])('merging into %s: complete, a second time empty, and what stands there stays', (_, written) => {
    fc.assert(
      fc.property(list, list, (known, wanted) => {
        const before = written(known);
        const after = mergeIntoList(before, wanted);
        expect([...ids(after)].sort()).toEqual(mergedIds([known, wanted]));
        expect(mergeIntoList(after, wanted)).toBe(after);
        if (wanted.every((one) => known.includes(one))) expect(after).toBe(before);
      }),
    );
  });

  const missingFrom = (known: string[], wanted: string[]) =>
    mergedIds([wanted]).filter((one) => !known.includes(one));
  const dict = (one: string, end: string, indent: string) =>
    `${indent}<dict>${end}${indent}  <key>SKAdNetworkIdentifier</key>${end}${indent}  <string>${one}</string>${end}${indent}</dict>`;

  it.each([
    ['items without anything around them', (items: string) => items],
    ['an array', (items: string, end: string) => `<array>${end}${items}${end}</array>`],
    [
      'the key and its array',
      (items: string, end: string) =>
        `<key>SKAdNetworkItems</key>${end}<array>${end}${items}${end}</array>${end}`,
    ],
    [
      'a part with other keys and comments',
      (items: string, end: string) =>
        `<!-- paste this -->${end}<key>SKAdNetworkItems</key>${end}<array>${end}${items}${end}</array>${end}<key>NSUserTrackingUsageDescription</key>${end}<string>Ads &amp; more</string>${end}`,
    ],
  ])('a pasted part of a property list is read and merged into: %s', (_, around) => {
    fc.assert(
      fc.property(
        fc.uniqueArray(id, { minLength: 1, maxLength: 6 }),
        list,
        fc.constantFrom('\n', '\r\n'),
        (known, wanted, end) => {
          const text = around(known.map((one) => dict(one, end, '    ')).join(end), end);
          expect(ids(text)).toEqual(known);
          const after = mergeIntoList(text, wanted);
          const added = missingFrom(known, wanted);
          expect(ids(after)).toEqual([...known, ...added]);
          const without = added.reduce((now, one) => now.replace(end + dict(one, end, '    '), ''), after);
          expect(without).toBe(text);
          expect(readAttributionList(after)).toMatchObject({ form: 'fragment', problems: [] });
        },
      ),
    );
  });

  it.each([
    ['elements', '<networks>\n  <id>{}</id>\n</networks>\n', '\n  <id>{}</id>'],
    [
      'elements in elements',
      '<?xml version="1.0"?>\n<list>\n\t<item><net><id>{}</id></net></item>\n</list>',
      '\n\t<item><net><id>{}</id></net></item>',
    ],
    ['attributes', '<ids>\n  <id value="{}"/>\n</ids>', '\n  <id value="{}"/>'],
  ])('XML in a network’s own words is read and merged into: %s', (_, text, item) => {
    fc.assert(
      fc.property(fc.uniqueArray(id, { minLength: 2, maxLength: 5 }), list, (known, wanted) => {
        const before = text.replace(item, known.map((one) => item.replace('{}', one)).join(''));
        expect(ids(before)).toEqual(known);
        const added = missingFrom(known, wanted);
        const after = mergeIntoList(before, wanted);
        expect(after).toBe(
          text.replace(item, [...known, ...added].map((one) => item.replace('{}', one)).join('')),
        );
        expect(ids(after)).toEqual([...known, ...added]);
      }),
    );
  });

  it.each([
    [
      'says more of each than its identifier',
      '<ids><id net="Cobalt Heron">aaaaa.skadnetwork</id></ids>',
      /says more.*Cobalt Heron/,
    ],
    [
      'has a name beside it',
      '<l><i><n>Cobalt</n><s>aaaaa.skadnetwork</s></i><i><n>B</n><s>bbbbb.skadnetwork</s></i></l>',
      /says more/,
    ],
    ['has one, deep within', '<a><b><c><d>aaaaa.skadnetwork</d></c></b></a>', /only one identifier/],
    ['has none yet', '<ids></ids>', /no identifier yet/],
    ['is JSON without an array for them', '{"a":1}', /no array/],
  ])('XML or JSON that %s is left to a person', (_, text, says) => {
    expect(() => mergeIntoList(text, ['zzzzz.skadnetwork'])).toThrow(says);
    expect(mergeIntoList(text, [])).toBe(text);
  });

  it('JSON keeps everything else: other fields, their order, its writing', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(id, { minLength: 1, maxLength: 5 }),
        list,
        fc.constantFrom(undefined, 2, '\t'),
        fc.boolean(),
        (known, wanted, space, texts) => {
          const items = known.map((one, at) =>
            texts
              ? one
              : { id: at, skadnetwork_id: one.toUpperCase(), creation_date: '2026-01-01T00:00:00Z' },
          );
          const text = JSON.stringify(
            { company_name: 'Heron', n: 1e3, skadnetwork_ids: items, last: [true] },
            null,
            space,
          );
          const after = mergeIntoList(text, wanted);
          const added = missingFrom(known, wanted).map((one) => (texts ? one : { skadnetwork_id: one }));
          const { skadnetwork_ids: now, ...rest } = JSON.parse(after);
          expect(now).toEqual([...items, ...added]);
          expect(JSON.stringify(rest)).toBe('{"company_name":"Heron","n":1000,"last":[true]}');
          const start = text.indexOf(']');
          expect(after.startsWith(text.slice(0, text.lastIndexOf(texts ? '"' : '}', start) + 1))).toBe(true);
          expect(after.endsWith(text.slice(start))).toBe(true);
        },
      ),
    );
  });

  it('what stands there twice stays: merging only adds', () => {
    const twice = attributionPlist(['aaaaa.skadnetwork', 'aaaaa.skadnetwork']);
    const after = mergeIntoList(twice, ['bbbbb.skadnetwork']);
    expect(ids(after)).toEqual(['aaaaa.skadnetwork', 'aaaaa.skadnetwork', 'bbbbb.skadnetwork']);
  });

  it('merging into a property list touches nothing else', () => {
    fc.assert(
      fc.property(list, list, fc.constantFrom('\n', '\r\n'), (known, wanted, end) => {
        const entries = `\t<key>A</key>\n\t<string>x</string>\n${attributionKey(known.map((one) => one.replace('.skadnetwork', '')))}\n\t<!-- kept -->\n\t<key>Z</key>\n\t<true/>`;
        const text = plist(entries).replace(/\n/g, end);
        const document = readPlist(text);
        const after = applyEdits(text, mergeAttribution(text, document.root!, wanted, end));
        const rest = (whole: string) => whole.replace(/<array>[^]*<\/array>/, '<array/>');
        expect(rest(after)).toBe(rest(text));
        expect(new Set(ids(after))).toEqual(new Set([...known, ...wanted]));
        expect(readPlist(after).problems).toEqual([]);
        expect(/(?<!\r)\n/.test(after)).toBe(end === '\n');
        const again = readPlist(after);
        expect(mergeAttribution(after, again.root!, wanted, end)).toEqual([]);
      }),
    );
  });

  it('of a title are those of its networks, each with its reason', () => {
    const roster = { syndexa: 1 as const, titles: { kelp: kelp() } };
    const needed = neededIds(roster, profiles);
    expect(needed.map(({ network, ids: of }) => [network, of.length])).toEqual([['cobalt-heron', 2]]);
    expect(
      neededIds(
        {
          ...roster,
          titles: { kelp: kelp({ editions: { android: { identifier: 'example.brine.kelp' } } }) },
        },
        profiles,
      ),
    ).toEqual([]);
    const compared = compareAttribution([], ['Debug', 'Release'], needed, [['zzzzz.skadnetwork']]);
    expect(
      compared.missing.map(({ id: one, networks, variants }) => [one, networks, variants.length]),
    ).toEqual([
      ['ch7k2m9td4.skadnetwork', ['cobalt-heron'], 2],
      ['h3r0nw8ngs.skadnetwork', ['cobalt-heron'], 2],
      ['zzzzz.skadnetwork', [], 2],
    ]);
  });
});
