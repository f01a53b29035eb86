import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  compareAppAds,
  mergeAppAds,
  neededRecords,
  type NeededRecord,
} from '../../../src/core/roster/app-ads-needs.js';
import { readAppAds, recordText } from '../../../src/core/standards/app-ads.js';
import { Roster } from '../../../src/core/roster/model.js';
import { applyEdits } from '../../../src/core/text/edit.js';
import { kelp, profiles } from '../../support/trees.js';

const records = (text: string) =>
  readAppAds(text).lines.flatMap((line) => (line.kind === 'record' ? [line.record] : []));
const problems = (text: string) =>
  readAppAds(text).problems.map(({ line, severity, message }) => `${line} ${severity}: ${message}`);

describe('reading app-ads.txt', () => {
  it('takes records, variables, comments, extensions, blanks and any line ends', () => {
    const text =
      '# ours\r\nHeron.Example , 204418,direct , C0BA # note\r\n\r\nSUBDOMAIN=apps.brine.example\nseller.example, a=b, RESELLER; extension=1\rcontact = ads@brine.example';
    expect(problems(text)).toEqual([]);
    expect(records(text)).toEqual([
      { domain: 'heron.example', account: '204418', relationship: 'DIRECT', certification: 'c0ba' },
      { domain: 'seller.example', account: 'a=b', relationship: 'RESELLER' },
    ]);
    const { lines } = readAppAds(text);
    expect(lines.filter(({ kind }) => kind === 'variable')).toMatchObject([
      { name: 'SUBDOMAIN', value: 'apps.brine.example' },
      { name: 'CONTACT', value: 'ads@brine.example' },
    ]);
    for (const { start, end, line } of lines)
      expect(text.slice(start, end)).toBe(text.split(/\r\n|\n|\r/)[line - 1]);
  });

  it.each([
    ['a.example, 1', '1 error: A record has at least three fields, and this line has 2.'],
    ['a.example, 1, DIRECT, x, y', '1 warning: A record has at most four fields, and this line has 5.'],
    ['https://a.example, 1, DIRECT', '1 error: "https://a.example" is no domain.'],
    ['a.example, , DIRECT', '1 error: The account is missing.'],
    ['a.example, 1, OWNER', '1 error: "OWNER" is no relationship.'],
    ['a.example, 1, DIRECT\na.example, 1, direct', '2 warning: This record is already on line 1.'],
    [
      'a.example, 1, DIRECT\na.example, 1, RESELLER',
      '2 error: The account 1 at a.example is declared differently on line 1.',
    ],
    ['COLOUR=red\na.example, 1, DIRECT', '1 warning: There is no variable COLOUR; crawlers ignore it.'],
    [
      'OWNERDOMAIN=a.example\nOWNERDOMAIN=b.example\na.example, 1, DIRECT',
      '2 error: OWNERDOMAIN is repeated; it is already on line 1.',
    ],
    [
      '\ufeffa.example, 1, DIRECT',
      '1 warning: The file starts with a byte order mark, which some crawlers read as part of the first domain.',
    ],
    [
      'a.example,\u00a01, DIRECT',
      '1 error: A character here looks like a space but is another one. It was copied from a page or a document.',
    ],
    ['<!DOCTYPE html><html>', '1 error: This is a web page, not an app-ads.txt file.'],
    ['# nothing yet\n', '1 warning: No seller is declared.'],
    ['x'.repeat(2_000_001), '1 error: The file is longer than 2000000 characters.'],
  ])('reports %j', (text, problem) => {
    expect(problems(text)).toContain(problem);
  });

  it('takes the record that names nobody for none', () => {
    expect(records('placeholder.example.com, placeholder, DIRECT, placeholder')).toEqual([]);
  });

  it('reads anything without failing', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom(
            'a.example',
            ',',
            ' ',
            'DIRECT',
            '#',
            ';',
            '=',
            '\n',
            '\r',
            '1',
            '\u00a0',
            '<html>',
          ),
          { maxLength: 40 },
        ),
        (parts) => {
          const text = parts.join('');
          expect(readAppAds(text).lines.length).toBeGreaterThanOrEqual(0);
        },
      ),
    );
  });
});

const roster = (accounts?: Record<string, string>) =>
  Roster.parse({
    syndexa: 1,
    publisher: { name: 'Brine', domain: 'brine.example', ...(accounts ? { accounts } : {}) },
    titles: { kelp: { ...kelp(), networks: { ...kelp().networks, marlstone: { android: {} } } } },
  });

describe('what the roster needs', () => {
  it('takes accounts from the IDs that carry them, and from the publisher where they do not', () => {
    const needed = neededRecords(roster({ marlstone: 'BR-1' }), profiles);
    expect(needed.map(({ record }) => record && recordText(record))).toEqual([
      'cobaltheron.example, 310772, DIRECT, c0ba17he',
      'marlstone.example, BR-1, DIRECT',
      'quarrymarket.example, 7731, RESELLER',
    ]);
  });

  it('says what is missing when nothing tells the account, and needs nothing of networks that no title is on', () => {
    expect(neededRecords(roster(), profiles)[1]).toMatchObject({
      record: null,
      missing: expect.stringContaining('publisher.accounts.marlstone'),
    });
    expect(neededRecords(Roster.parse({ syndexa: 1, titles: {} }), profiles)).toEqual([]);
  });
});

describe('merging', () => {
  const needed = neededRecords(roster({ marlstone: 'BR-1' }), profiles);
  const merged = (text: string, needs: readonly NeededRecord[] = needed) =>
    applyEdits(text, mergeAppAds(text, needs));

  it('adds what is missing behind what stands there, and puts right what differs, its remark kept', () => {
    expect(
      merged(
        '# ours\r\ncobaltheron.example, 310772, reseller, c0ba17he # since 2021\r\nother.example, 9, DIRECT',
      ),
    ).toBe(
      '# ours\r\ncobaltheron.example, 310772, DIRECT, c0ba17he # since 2021\r\nother.example, 9, DIRECT\r\n# Marlstone\r\nmarlstone.example, BR-1, DIRECT\r\nquarrymarket.example, 7731, RESELLER\r\n',
    );
  });

  it('is complete, changes nothing the second time, and leaves every other line as it was', () => {
    const line = fc.constantFrom(
      '# a remark',
      'other.example, 9, DIRECT',
      '',
      '  spaced.example ,  1 , RESELLER ; x',
      'cobaltheron.example, 310772, RESELLER',
      'marlstone.example, BR-1, DIRECT',
      'SUBDOMAIN=a.b',
      'broken',
    );
    fc.assert(
      fc.property(
        fc.array(line, { maxLength: 8 }),
        fc.constantFrom('\n', '\r\n'),
        fc.boolean(),
        (lines, end, ended) => {
          const text = lines.join(end) + (ended && lines.length > 0 ? end : '');
          const after = merged(text);
          expect(merged(after)).toBe(after);
          for (const { state } of compareAppAds(after, needed)) expect(state).toBe('there');
          const kept = lines.filter((item) => !item.startsWith('cobaltheron'));
          const now = after.split(/\r?\n/);
          for (const item of kept) expect(now).toContain(item);
        },
      ),
      { numRuns: 200 },
    );
  });

  it('writes a whole file where there is none', () => {
    expect(readAppAds(merged('')).problems).toEqual([]);
    expect(compareAppAds(merged(''), needed).every(({ state }) => state === 'there')).toBe(true);
    expect(merged('', neededRecords(roster(), profiles))).not.toContain('marlstone.example');
  });
});
