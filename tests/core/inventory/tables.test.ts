import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readUnitTable } from '../../../src/core/inventory/csv.js';
import {
  decodeApp,
  decodeUnit,
  encodeApp,
  encodeUnit,
  keptSettings,
} from '../../../src/core/inventory/dialect.js';
import type { InventoryUnit } from '../../../src/core/inventory/model.js';
import { makeMatching } from '../../../src/core/network/make-id.js';
import type { Format } from '../../../src/core/words/words.js';
import { profileOf, profiles } from '../../support/trees.js';

const heron = profileOf('cobalt-heron');
const head = 'Unit ID,Unit name,Format,Platform,App ID,Status';
const row = 'CH-U-204418-P4N7C2VJ,Tide footer,banner,android,CH-A-204418-7KQ2M9TD,serving';
const read = (text: string, options = {}) => {
  const table = readUnitTable(text, heron, options);
  return table.fault ? { fault: table.fault } : { units: table.units, odd: table.odd };
};

describe('tables of units', () => {
  const expected = {
    units: [
      {
        id: 'CH-U-204418-P4N7C2VJ',
        name: 'Tide footer',
        format: 'banner',
        platform: 'android',
        app: 'CH-A-204418-7KQ2M9TD',
        status: 'active',
        servesFrom: null,
        settings: {},
      },
    ],
    odd: [],
  };
  it.each([
    ['commas', `${head}\n${row}\n`],
    ['semicolons', `${head}\n${row}\n`.replace(/,/g, ';')],
    ['tabulators', `${head}\n${row}\n`.replace(/,/g, '\t')],
    ['bars', `${head}\n${row}\n`.replace(/,/g, '|')],
    ['a byte order mark and CRLF', `\uFEFF${head}\r\n${row}\r\n`],
    ['quotes', `${head}\n${row}`.replace(/[^,\n]+/g, '"$&"')],
    [
      'columns in another order, and more of them',
      `Status,More,${head.replace(',Status', '')}\nserving,x,${row.replace(',serving', '')}\n`,
    ],
    ['a line that names the separator', `sep=;\r\n${head}\r\n${row}\r\n`.replace(/,/g, ';')],
    ['that line in quotes, after a mark', `\uFEFF"sep=|"\n${head}\n${row}\n`.replace(/,/g, '|')],
    ['a separator of its own', `sep=^\n${head}\n${row}\n`.replace(/,/g, '^')],
    ['column names in small letters', `${head.toLowerCase()}\n${row}\n`],
    ['column names in capitals, with more blanks', `${head.toUpperCase().replace(/ /g, '  ')}\n${row}\n`],
    ['empty lines and blanks', `\n${head}\n\n  ${row.replace(/,/g, ' , ')}\n\n`],
  ])('with %s', (_, text) => {
    expect(read(text)).toEqual(expected);
  });

  it('take columns that are called otherwise, and a separator that is named', () => {
    const text = 'Ad unit: ID:what\nx:CH-U-204418-P4N7C2VJ:banner\n';
    expect(
      read(text, { columns: { id: 'ID', name: 'Ad unit', format: 'what' }, separator: ':' }),
    ).toMatchObject({
      units: [{ id: 'CH-U-204418-P4N7C2VJ', name: 'x', format: 'banner', platform: null }],
    });
  });

  it('keep quotes, separators and line ends within a value', () => {
    const text = `${head}\nCH-U-204418-P4N7C2VJ,"the ""tide"", and\nmore",banner,android,,\n`;
    expect(read(text)).toMatchObject({ units: [{ name: 'the "tide", and\nmore' }] });
  });

  it.each([
    ['an empty file', '', 'The table is empty.'],
    ['a web page', '<!doctype html><p>Sign in', 'This is a web page, not a table.'],
    [
      'columns that are alike',
      'UNIT ID,unit id,Unit name,Format\nx,y,z,banner\n',
      'several columns “Unit ID”',
    ],
    ['a column twice', 'Unit ID,Unit ID,Unit name,Format\nx,y,z,banner\n', 'several columns “Unit ID”'],
    ['wrong columns', 'A,B,C\n1,2,3\n', 'no column “Unit ID”, “Unit name”, “Format”; it has A, B, C'],
    ['one column', 'hello\n', 'no column “Unit ID”'],
    ['a quote that never ends', `${head}\n"CH-U`, 'The table cannot be read'],
  ])('%s is refused, and says why', (_, text, message) => {
    const result = read(text) as { fault: { message: string; fix: string } };
    expect(result.fault.message).toContain(message);
    expect(result.fault.fix).toMatch(/\.$/);
  });

  it('list the rows that make no sense, with their lines', () => {
    const text = `${head}\n${row}\nmrl-TIDE-4820116,x,banner,android,,\n,x,banner,android,,\n${row}\nCH-U-204418-AAAAAAAA,x,hologram,android,,\n`;
    expect(read(text)).toMatchObject({
      units: [{}],
      odd: [
        { row: 3, id: 'mrl-TIDE-4820116', message: expect.stringContaining('is no unit ID of Cobalt Heron') },
        { row: 4, message: 'it has no Unit ID' },
        { row: 5, message: 'it was in an earlier row' },
        { row: 6, message: 'the profile does not define the format “hologram”' },
      ],
    });
  });

  it('count their lines from the first of the file, that of the separator too', () => {
    const text = `\n"sep=;"\n${head}\nmrl-TIDE-4820116,x,banner,android,,\n`.replace(/,/g, ';');
    expect(read(text)).toMatchObject({ odd: [{ row: 4 }] });
  });

  it('of 200,000 rows are read whole', () => {
    const rows = Array.from(
      { length: 200_000 },
      (_, at) => `CH-U-204418-${at.toString(36).toUpperCase().padStart(8, '0')},n${at},banner,ios,,paused`,
    );
    const result = read(`${head}\n${rows.join('\n')}\n`) as { units: InventoryUnit[]; odd: unknown[] };
    expect([result.units.length, result.odd.length]).toEqual([200_000, 0]);
    expect(result.units.at(-1)).toMatchObject({ name: 'n199999', status: 'paused', platform: 'ios' });
  });

  it('of any bytes give an answer', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), fc.constantFrom('', `${head}\n`), (noise, start) => {
        const result = readUnitTable(start + noise, heron);
        expect(result.fault === null || result.fault.message.length > 0).toBe(true);
      }),
      { numRuns: 300 },
    );
  });
});

describe('the words of each network', () => {
  const draw = (below: number) => below - 1;
  it.each(profiles.map((profile) => [profile.id, profile] as const))(
    '%s: what is written is read back',
    (_, profile) => {
      const http = profile.inventory!.http!;
      const platform = profile.ios ? 'ios' : 'android';
      const platformCode = Object.entries(profile.ids.unit!.platforms ?? {}).find(
        ([, stands]) => stands === platform,
      )?.[0];
      const id = makeMatching(
        profile.ids.unit!.pattern,
        draw,
        platformCode ? { platform: platformCode } : {},
      );
      const [format] = Object.keys(profile.formats) as Format[];
      const kept = keptSettings(profile);
      const settings = {
        ...(kept.includes('refresh') ? { refresh: '60s' as const } : {}),
        ...(kept.includes('content') ? { content: ['image' as const] } : {}),
        ...(kept.includes('reward') ? { reward: { amount: 3, item: 'coins' } } : {}),
        ...(kept.includes('skippable') ? { skippable: true } : {}),
      };
      const unit: InventoryUnit = {
        id,
        name: 'kelp footer',
        format: format!,
        platform,
        app: http.units.fields.app === undefined ? null : 'any',
        status: 'paused',
        servesFrom: '2026-06-01T12:00:00.000Z',
        settings,
      };
      expect(
        decodeUnit(profile, http.units.fields, encodeUnit(profile, http.units.fields, unit)).value,
      ).toEqual(unit);
      if (!http.apps) return;
      const app = {
        id: profile.ids.app ? makeMatching(profile.ids.app.pattern, draw) : '77',
        platform,
        identifier: 'example.brine.kelp',
        name: 'Kelp',
        status: 'listed',
        audience: 'general',
        terms: true,
      } as const;
      expect(decodeApp(profile, http.apps.fields, encodeApp(profile, http.apps.fields, app)).value).toEqual(
        app,
      );
    },
  );

  it('leaves out settings that make no sense', () => {
    const fields = heron.inventory!.http!.units.fields;
    const raw = {
      id: 'CH-U-204418-P4N7C2VJ',
      name: 'x',
      format: 'BANNER',
      platform: 'Android',
      refresh: 'often',
      content: 'image; smell',
      reward_amount: -1,
      reward_item: 'x',
      skippable: 'yes',
    };
    expect(decodeUnit(heron, fields, raw).value).toMatchObject({
      format: 'banner',
      platform: 'android',
      settings: { content: ['image'] },
    });
  });
});

describe('IDs made from patterns', () => {
  it.each(
    profiles.flatMap(({ id, ids }) =>
      Object.entries(ids).map(([kind, rules]) => [`${id} ${kind}`, rules.pattern] as const),
    ),
  )('%s: match, and differ', (_, pattern) => {
    const whole = new RegExp(`^(?:${pattern})$`, 'u');
    const made = new Set<string>();
    let state = 7;
    const draw = (below: number) => (state = (state * 48271) % 2147483647) % below;
    for (let at = 0; at < 200; at++) made.add(makeMatching(pattern, draw));
    for (const id of made) expect(id).toMatch(whole);
    expect(made.size).toBeGreaterThan(150);
  });
  it('take settled groups as they are', () => {
    expect(
      makeMatching('CH-(?<platform>[AI])-(?<account>\\d{6})-[A-Z]{2}', () => 0, {
        platform: 'I',
        account: '204418',
      }),
    ).toBe('CH-I-204418-AA');
  });
  it.each(['^a$', 'a(?=b)', '[^a]', '\\bword', 'a.b', '(a', '[a'])(
    '%s is refused rather than guessed at',
    (pattern) => {
      expect(() => makeMatching(pattern, () => 0)).toThrow(/not supported/);
    },
  );
  it.each([
    ['a|b', ['a', 'b']],
    ['x{2,3}', ['xx', 'xxx']],
    ['(ab)?c', ['c', 'abc']],
    ['[a-c_]+', ['a']],
    ['\\w-\\.', ['a-.']],
  ])('%s', (pattern, some) => {
    const made = new Set([0, 1].map((fixed) => makeMatching(pattern, (below) => Math.min(fixed, below - 1))));
    for (const one of some) expect(made).toContain(one);
  });
});
