import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readRoster, writeRoster, updateProblems } from '../../../src/core/roster/document.js';
import { Roster } from '../../../src/core/roster/model.js';

const written = `syndexa: 1
publisher: { name: Brine, domain: brine.example, accounts: { marlstone: acct-7 } }
titles:
  kelp:
    name: Kelp
    audience: general
    stages: { test: [ debug ], production: [ release, store ] }
    editions:
      android: { identifier: example.brine.kelp }
      ios:
        identifier: example.brine.kelp
        tracking: Kelp is paid for by ads.
    networks:
      cobalt-heron:
        android:
          test: { devices: [ pixel, tablet ] }
          production: { app: CH-A-310772-QK4T8W2N }
      marlstone: {}
    placements:
      footer:
        format: banner
        where: under the list
        settings: { refresh: 60s, content: [ text, image ], cap: { count: 3, per: 1h } }
        units:
          cobalt-heron:
            android: { test: CH-U-310772-TEST0000, production: CH-U-310772-BBBB1111 }
            ios: { production: CH-U-310772-CCCC2222 }
      gift: { format: rewarded }
`;
const roster = readRoster(written).roster!;

describe('a roster, written', () => {
  it('has its fields in one order, and what is short on one line', () => {
    const stable = writeRoster(roster);
    expect(readRoster(stable).roster).toEqual(roster);
    expect(writeRoster(roster, '')).toBe(stable);
    expect(writeRoster(roster, ' \n')).toBe(stable);
    expect(writeRoster(roster, '- not\n- a roster\n')).toBe(stable);
    expect(writeRoster(roster, 'titles: [\n')).toBe(stable);
    expect(stable).toMatchInlineSnapshot(`
      "syndexa: 1
      publisher: { name: Brine, domain: brine.example, accounts: { marlstone: acct-7 } }
      titles:
        kelp:
          name: Kelp
          audience: general
          stages: { test: [ debug ], production: [ release, store ] }
          editions:
            android: { identifier: example.brine.kelp }
            ios: { identifier: example.brine.kelp, tracking: Kelp is paid for by ads. }
          networks:
            cobalt-heron:
              android:
                test: { devices: [ pixel, tablet ] }
                production: { app: CH-A-310772-QK4T8W2N }
            marlstone: {}
          placements:
            footer:
              format: banner
              where: under the list
              settings: { refresh: 60s, cap: { count: 3, per: 1h }, content: [ text, image ] }
              units:
                cobalt-heron: { android: { test: CH-U-310772-TEST0000, production: CH-U-310772-BBBB1111 }, ios: { production: CH-U-310772-CCCC2222 } }
            gift: { format: rewarded }
      "
    `);
  });

  it('has long text in one line, however long', () => {
    const where = 'a place '.repeat(20).trim();
    const text = writeRoster(
      Roster.parse({
        syndexa: 1,
        titles: { kelp: { name: 'K', placements: { a: { format: 'banner', where } } } },
      }),
    );
    expect(text).toContain(`where: ${where} `);
  });

  it('leaves out what is absent, and empty tables that mean nothing', () => {
    const text = writeRoster({
      syndexa: 1,
      titles: {
        kelp: { name: 'K', networks: {}, placements: {}, editions: {}, audience: undefined } as never,
      },
    });
    expect(text).toBe('syndexa: 1\ntitles:\n  kelp:\n    name: K\n');
    expect(writeRoster({ syndexa: 1, titles: {} })).toBe('syndexa: 1\ntitles: {}\n');
  });
});

describe('a roster, written into a document', () => {
  const into = (text: string, change: (roster: Roster) => void) => {
    const next = structuredClone(readRoster(text).roster!);
    change(next);
    return { text: writeRoster(next, text), next };
  };
  /** The lines that are gone and the lines that are new. */
  const difference = (before: string, after: string) => {
    const [old, fresh] = [before.split('\n'), after.split('\n')];
    return [
      ...old.filter((line) => !fresh.includes(line)).map((line) => `-${line}`),
      ...fresh.filter((line) => !old.includes(line)).map((line) => `+${line}`),
    ];
  };
  const commented = written
    .replaceAll(/(: .+)$/gm, '$1 # as agreed')
    .replace('titles:', '# all of them\ntitles:');

  it('changes the value of a field and nothing else', () => {
    const { text } = into(commented, ({ titles }) => {
      titles.kelp!.placements.footer!.units['cobalt-heron']!.android!.production = 'CH-U-310772-NEWNEW00';
    });
    expect(difference(commented, text)).toEqual([
      '-            android: { test: CH-U-310772-TEST0000, production: CH-U-310772-BBBB1111 } # as agreed',
      '+            android: { test: CH-U-310772-TEST0000, production: CH-U-310772-NEWNEW00 } # as agreed',
    ]);
  });

  it('takes a field out, and with it what is inside', () => {
    const { text } = into(commented, ({ titles }) => {
      delete titles.kelp!.placements.footer;
      delete titles.kelp!.editions.ios;
    });
    expect(text).not.toMatch(/footer|tracking/);
    expect(difference(commented, text).every((line) => line.startsWith('-'))).toBe(true);
  });

  it('puts a field where it belongs, and others last', () => {
    const { text } = into(commented, ({ titles }) => {
      titles.kelp!.networks['cobalt-heron']!.ios = { production: { app: 'CH-I-310772-M6R9V3XC' } };
      titles.kelp!.placements.gift!.where = 'after a level';
      titles.kelp!.placements.header = { format: 'native', settings: {}, units: {} };
    });
    expect(difference(commented, text)).toEqual([
      '-      gift: { format: rewarded } # as agreed',
      '+        ios: { production: { app: CH-I-310772-M6R9V3XC } }',
      '+      gift: { format: rewarded, where: after a level } # as agreed',
      '+      header: { format: native }',
    ]);
    expect(text.indexOf('header:')).toBeGreaterThan(text.indexOf('gift:'));
  });

  it('puts a field before those that come after it', () => {
    const bare =
      'syndexa: 1\ntitles:\n  kelp:\n    placements:\n      # spots\n      a: { format: banner }\n    name: K\n';
    const { text } = into(bare, ({ titles }) => {
      titles.kelp!.editions.android = { identifier: 'example.kelp' };
    });
    const at = (part: string) => text.indexOf(part);
    expect(at('editions:')).toBeGreaterThan(0);
    expect(at('editions:')).toBeLessThan(at('placements:'));
    expect(text).toContain('placements:\n      # spots\n');
  });

  it('keeps the notes at a list that changes, and the way in which it is written', () => {
    const { text } = into(commented, ({ titles }) => {
      titles.kelp!.stages.production = ['release'];
      titles.kelp!.placements.footer!.settings.content = ['video'];
    });
    expect(text).toContain('stages: { test: [ debug ], production: [ release ] } # as agreed\n');
    expect(text).toContain('content: [ video ]');
    const listed =
      'syndexa: 1\ntitles:\n  kelp:\n    name: K\n    stages:\n      # the shops\n      production:\n        - release\n        - store\n';
    expect(
      into(listed, ({ titles }) => {
        titles.kelp!.stages.production = ['release'];
      }).text,
    ).toContain('# the shops\n      test: []\n      production: [ release ]\n');
  });

  it('indents as the document does', () => {
    const wide = 'syndexa: 1\n# ours\ntitles:\n    kelp:\n        name: K\n';
    const { text } = into(wide, ({ titles }) => {
      titles.kelp!.editions.android = { identifier: 'example.kelp' };
    });
    expect(text).toContain('titles:\n    kelp:\n        name: K\n');
    expect(text).toContain('        editions:\n            android: {');
  });

  it('says what the roster says, whatever the document said, and keeps it when nothing differs', () => {
    const id = fc.constantFrom('CH-U-310772-AAAA1111', 'CH-U-310772-BBBB1111');
    const stage = fc.record({ test: id, production: id }, { requiredKeys: [] });
    const units = fc.dictionary(
      fc.constantFrom('cobalt-heron', 'marlstone'),
      fc.record({ android: stage, ios: stage }, { requiredKeys: [] }),
      { noNullPrototype: true },
    );
    const spot = fc.record(
      {
        format: fc.constantFrom('banner', 'native'),
        where: fc.constantFrom('here', 'there: or "not" #1'),
        units,
        settings: fc.constantFrom({}, { refresh: '60s' }, { content: ['text'] }, { cap: { count: 1 } }),
      },
      { requiredKeys: ['format'] },
    );
    const title = fc.record(
      {
        name: fc.constantFrom('Kelp', 'no', '1.0'),
        stages: fc.constantFrom({ test: ['debug'] }, { test: [], production: ['a', 'b'] }),
        placements: fc.dictionary(fc.constantFrom('a', 'b', 'name'), spot, { noNullPrototype: true }),
      },
      { requiredKeys: ['name'] },
    );
    const rosters = fc
      .dictionary(fc.constantFrom('kelp', 'dulse', 'titles'), title, { noNullPrototype: true })
      .map((titles) => Roster.parse({ syndexa: 1, titles }));
    fc.assert(
      fc.property(rosters, rosters, fc.boolean(), (before, after, isFlow) => {
        const document = isFlow
          ? JSON.stringify(before)
          : writeRoster(before).replaceAll(/(name: \S+)$/gm, '$1 # so');
        const text = writeRoster(after, document);
        expect(readRoster(text).roster).toEqual(after);
        expect(writeRoster(after, text)).toBe(text);
        if (!isFlow) expect(writeRoster(before, document)).toBe(document);
      }),
      { numRuns: 60 },
    );
  });
});

describe('an earlier document that is brought up to the record', () => {
  it.each(['', ' \n', 'syndexa: 1\n', '# kept\nsyndexa: 1\ntitels: {}\n', '{ syndexa: 9 }'])(
    'may be %j',
    (text) => {
      expect(updateProblems(text)).toEqual([]);
    },
  );

  it.each([
    ['# only words\n', 'syndexa', 1],
    ['name: kelp\ndependencies: {}\n', 'syndexa', 1],
    ['- syndexa: 1\n', 'syndexa', 1],
    ['just words', 'syndexa', 1],
    ['# half\nsyndexa: 1\ntitles: { kelp: { name: Kelp\n', '', 4],
  ])('is not one whose text would be lost: %j', (text, field, line) => {
    expect(updateProblems(text)).toMatchObject([{ field, place: { line } }]);
  });
});
