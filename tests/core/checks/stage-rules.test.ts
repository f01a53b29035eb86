import { describe, expect, it } from 'vitest';
import type { CheckContext, Rule } from '../../../src/core/checks/model.js';
import { handWrittenFlag } from '../../../src/core/checks/rules/stage-hand-written-flag.js';
import { productionIdInTest } from '../../../src/core/checks/rules/stage-production-id-in-test.js';
import { testIdInProduction } from '../../../src/core/checks/rules/stage-test-id-in-production.js';
import { variantUnmatched } from '../../../src/core/checks/rules/stage-variant-unmatched.js';
import type { Fact } from '../../../src/core/facts/model.js';
import { contextOf as surveyed, fact, place, reportsOf } from '../../support/surveyed.js';
import { kelp, placementOf } from '../../support/titles.js';

const [footer, footerTest, header] = ['CH-U-310772-AAAA1111', 'CH-U-310772-AAAA2222', 'CH-U-310772-BBBB1111'];
const sample = 'CH-U-100001-BANNER0A';
const network = 'Cobalt Heron';
const on = (android: object) => placementOf({ 'cobalt-heron': { android } });
const title = kelp({
  placements: {
    footer: on({ test: footerTest, production: footer }),
    // The same for both stages: neither of them is wrong anywhere.
    header: on({ test: header, production: header }),
  },
});

const contextOf = (facts: Fact[] = []): CheckContext => surveyed(facts, { title });
const unit = (value: string, variants: string[], more: object = {}) =>
  fact('unit-id', { carrier: 'resource', value, variants, ...more });
const told = (rule: Rule, facts: Fact[]) =>
  reportsOf(rule, contextOf(facts)).map(({ message, data, variants, mend }) => [
    message,
    data,
    variants,
    mend,
  ]);
/** A call in code that takes a unit ID, of another format than its placement has. */
const wrongFormat = (id: string) =>
  fact('call', {
    action: 'load',
    format: 'rewarded',
    variants: ['debug', 'release'],
    place: place('K.kt', 4),
    code: { argument: { ids: [id], written: 'FOOTER' } },
  });

describe('a production ID in a variant for testing', () => {
  const live = (id: string, variants: string) => ({ id, network, variants });

  it('is told in those variants only', () => {
    expect(told(productionIdInTest, [unit(footer, ['debug', 'beta', 'release'])])).toEqual([
      ['live', live(footer, 'debug'), ['debug'], undefined],
    ]);
    const app = fact('app-id', { carrier: 'manifest', value: 'CH-A-310772-QK4T8W2N' });
    expect(told(productionIdInTest, [app])).toEqual([
      ['live', live('CH-A-310772-QK4T8W2N', 'debug'), ['debug'], undefined],
    ]);
  });

  it('is nothing where it belongs, is no production ID, is for both stages, or is not used', () => {
    for (const one of [
      unit(footer, ['release']),
      unit(footer, ['beta']),
      unit(footerTest, ['debug']),
      unit('CH-U-310772-ZZZZ9999', ['debug']),
      unit(header, ['debug']),
      unit(footer, ['debug'], { effective: { reason: 'wrong-folder' } }),
      fact('companion', { value: footer, variants: ['debug'] }),
    ])
      expect(told(productionIdInTest, [one])).toEqual([]);
  });

  it('is advised by where it is: code names the placebook, and what is wrong there comes first', () => {
    const inCode = unit(footer, ['debug'], { carrier: 'code', placement: 'footer', place: place('K.kt', 4) });
    const mend = (facts: Fact[]) => told(productionIdInTest, facts).map((one) => one[3]);
    expect(mend([inCode])).toEqual(['code']);
    expect(mend([inCode, wrongFormat(footer)])).toEqual(['misplaced']);
    expect(mend([{ ...inCode, carrier: 'resource' } as Fact, wrongFormat(footer)])).toEqual([undefined]);
  });
});

describe('a test ID in a variant that ships', () => {
  const ships = (id: string, variants: string) => ({ id, network, variants });

  it('is told of samples, and of what the roster keeps for testing', () => {
    expect(told(testIdInProduction, [unit(footerTest, ['debug', 'beta', 'release'])])).toEqual([
      ['sample', ships(footerTest, 'release'), ['release'], undefined],
    ]);
    expect(told(testIdInProduction, [unit(sample, ['release'])])).toEqual([
      ['sample', ships(sample, 'release'), ['release'], undefined],
    ]);
    const app = fact('app-id', { carrier: 'manifest', value: 'CH-A-100001-SAMPLE0A', variants: ['release'] });
    expect(told(testIdInProduction, [app])).toHaveLength(1);
  });

  it('is nothing where it belongs, ships rightly, is for both stages, or is not used', () => {
    for (const one of [
      unit(footerTest, ['debug']),
      unit(sample, ['debug', 'beta']),
      unit(footer, ['release']),
      unit('CH-U-310772-ZZZZ9999', ['release']),
      unit(header, ['release']),
      unit(sample, ['release'], { effective: { reason: 'wrong-folder' } }),
      unit(sample, ['release'], { network: 'marlstone' }),
      fact('companion', { value: sample, variants: ['release'] }),
    ])
      expect(told(testIdInProduction, [one])).toEqual([]);
  });

  it('is advised by where it is: a sample belongs to no placement that could be named', () => {
    const at = { carrier: 'code', place: place('K.kt', 4) };
    const held = unit(footerTest, ['release'], { ...at, placement: 'footer' });
    const mend = (facts: Fact[]) => told(testIdInProduction, facts).map((one) => one[3]);
    expect(mend([held])).toEqual(['code']);
    expect(mend([held, wrongFormat(footerTest)])).toEqual(['misplaced']);
    expect(mend([unit(sample, ['release'], at)])).toEqual(['sample']);
    const key = fact('app-id', {
      ...at,
      value: 'CH-A-100001-SAMPLE0A',
      variants: ['release'],
      placement: 'footer',
    });
    expect(mend([key])).toEqual(['sample']);
    expect(mend([{ ...held, carrier: 'resource' } as Fact])).toEqual([undefined]);
  });
});

describe('a stage', () => {
  it('that somebody chooses by hand is told once for each place', () => {
    const flag = (line: number, more: object = {}) =>
      fact('hand-flag', { name: 'IS_TEST', value: 'false', place: place('K.kt', line), ...more });
    const facts = [
      flag(1),
      flag(1, { variants: ['release'] }),
      flag(2, { name: undefined }),
      flag(1, { platform: 'ios' }),
      unit(footer, ['debug']),
    ];
    const reports = reportsOf(handWrittenFlag, contextOf(facts));
    expect(reports.map(({ data, platform, module, variants }) => [data, platform, module, variants])).toEqual(
      [
        [{ name: 'IS_TEST', value: 'false' }, null, null, []],
        [{ name: '', value: 'false' }, null, null, []],
      ],
    );
  });

  it('that no variant has is told for each variant, with the reason', () => {
    const context = contextOf();
    const [edition] = context.survey.editions;
    const variants = edition!.variants.map((one) => ({ ...one, stageWhy: `why ${one.name}` }));
    const survey = { ...context.survey, editions: [{ ...edition!, variants }] };
    expect(reportsOf(variantUnmatched, { ...context, survey })).toEqual([
      {
        platform: 'android',
        module: 'app',
        variants: ['beta'],
        place: place(),
        message: 'unmatched',
        data: { variant: 'beta', reason: 'why beta' },
      },
    ]);
  });
});
