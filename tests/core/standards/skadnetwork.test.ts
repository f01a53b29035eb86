import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mergeAttribution } from '../../../src/core/formats/plist/attribution.js';
import { readPlist } from '../../../src/core/formats/plist/read.js';
import { compareAttribution, mergeIntoList, neededIds } from '../../../src/core/roster/attribution-needs.js';
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
        expect(ids(after)).toEqual(mergedIds([known, wanted]));
        expect(mergeIntoList(after, wanted)).toBe(after);
        if (wanted.every((one) => known.includes(one))) expect(after).toBe(before);
      }),
    );
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
