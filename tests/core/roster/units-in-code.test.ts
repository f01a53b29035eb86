import { describe, expect, it } from 'vitest';
import type { Fact, FactOf } from '../../../src/core/facts/model.js';
import {
  namedOtherwise,
  placementName,
  placementsByType,
  wordsOf,
} from '../../../src/core/roster/carrier-names.js';
import { misplacedUnits } from '../../../src/core/roster/misplaced-units.js';
import { shippingIdentifier, staged, withPlacements } from '../../../src/core/roster/variant-stages.js';
import { kelp, placement, profileOf } from '../../support/titles.js';

const heron = profileOf('cobalt-heron');
const ids = { footer: 'CH-U-310772-AAAA1111', header: 'CH-U-310772-BBBB1111', gift: 'CH-U-310772-CCCC1111' };
const title = kelp({
  placements: {
    footer: placement('banner', ids.footer, 'CH-U-310772-AAAA2222'),
    header: placement('banner', ids.header, 'CH-U-310772-BBBB2222'),
    gift: placement('rewarded', ids.gift, 'CH-U-310772-CCCC2222'),
  },
});
const place = (path = 'Ads.kt', line = 3) => ({ path, line, column: 5 });
const common = {
  network: 'cobalt-heron',
  platform: 'android' as const,
  module: 'app',
  variants: ['debug'],
  effective: true as const,
  chain: [],
};
const unit = (name: keyof typeof ids, more: Partial<FactOf<'unit-id'>> = {}): FactOf<'unit-id'> => ({
  ...common,
  kind: 'unit-id',
  carrier: 'code',
  value: ids[name],
  placement: name,
  place: place(),
  ...more,
});
/** A unit ID that a constant holds. */
const constant = (name: keyof typeof ids, of: string, type?: string) =>
  unit(name, {
    code: { type, flow: { into: 'constant', name: of } } as unknown as FactOf<'unit-id'>['code'],
  });
const inClass = (name: keyof typeof ids, type: string) =>
  unit(name, { code: { type } as FactOf<'unit-id'>['code'] });

describe('the words of a name', () => {
  it.each([
    ['FOOTER_BANNER_UNIT_ID', ['footer', 'banner', 'unit', 'id']],
    ['footerBannerUnit', ['footer', 'banner', 'unit']],
    ['R.string.footer', ['r', 'string', 'footer']],
    ['HTTPFooter2Ad', ['http', 'footer2', 'ad']],
    ['footer-2-ad', ['footer', 'ad']],
    ['footer 22 ad', ['footer', 'ad']],
    ['myHTTPSAd', ['my', 'https', 'ad']],
    ['a__b', ['a', 'b']],
    ['__', []],
  ])('of %s', (name, words) => {
    expect(wordsOf(name)).toEqual(words);
  });
});

describe('a placement named after what carries its ID', () => {
  const network = new Set(['cobalt', 'heron']);
  it.each([
    ['COBALT_HERON_FOOTER_BANNER_UNIT_ID', 'footer-banner'],
    ['homeHomeFooter', 'home-footer'],
    ['AD_UNIT_ID', null],
    ['2nd_footer', 'nd-footer'],
    ['x'.repeat(80), 'x'.repeat(60)],
  ])('%s: %s', (carrier, name) => {
    expect(placementName(carrier, network)).toBe(name);
  });
});

describe('code that names another placement', () => {
  const said = (fact: Fact, facts: readonly Fact[] = [fact]) =>
    namedOtherwise(fact, placementsByType(facts, 'cobalt-heron'), title, heron);

  it.each([
    ['HEADER_BANNER_UNIT_ID', 'header'],
    ['Ids.header', 'header'],
    ['cobaltHeronHeaderAd', 'header'],
  ])('in the constant %s', (name, says) => {
    expect(said(constant('footer', name))).toEqual({ name: name.split('.').at(-1), says });
  });

  it.each([
    ['its own', constant('header', 'HEADER_UNIT_ID')],
    ['none', constant('footer', 'UNIT_ID')],
    ['several words', constant('footer', 'HEADER_OR_FOOTER')],
    ['one of another format', constant('footer', 'GIFT_UNIT_ID')],
    ['one, but is no unit ID of a placement', { ...constant('footer', 'HEADER_ID'), placement: undefined }],
    ['one that the title does not have', { ...constant('footer', 'HEADER_ID'), placement: 'gone' }],
    ['one, but not in code', { ...constant('footer', 'HEADER_ID'), carrier: 'resource' as const }],
    ['one, but is of another network', { ...constant('footer', 'HEADER_ID'), network: 'marlstone' }],
    ['nothing, having no name', unit('footer')],
  ])('does not when it names %s', (_, fact) => {
    expect(said(fact)).toBe(undefined);
  });

  it('only where its words are all of that placement and no others, and of one placement', () => {
    const names = (...placements: string[]) =>
      kelp({
        placements: Object.fromEntries(
          placements.map((name, at) => [
            name,
            placement('banner', at === 0 ? ids.footer : `CH-U-310772-X00${at}`, `CH-U-310772-Y00${at}`),
          ]),
        ),
      });
    const saidOf = (of: typeof title, name: string) =>
      namedOtherwise(
        { ...constant('footer', name), placement: Object.keys(of.placements)[0] },
        new Map(),
        of,
        heron,
      )?.says;
    const homes = names('footer', 'home-top', 'top');
    expect(saidOf(homes, 'HOME_TOP_ID')).toBe('home-top');
    expect(saidOf(homes, 'TOP_HOME_BANNER')).toBe('home-top');
    expect(saidOf(homes, 'TOP_ID')).toBe('top');
    expect(saidOf(homes, 'HOME_ID')).toBe(undefined);
    expect(saidOf(homes, 'HOME_TOP_LEFT')).toBe(undefined);
    expect(saidOf(names('footer', 'top', 'top-screen'), 'TOP_ID')).toBe(undefined);
    expect(saidOf(names('footer', 'banner'), 'UNIT_ID')).toBe(undefined);
    expect(saidOf(names('footer', 'banner'), 'BANNER_ID')).toBe(undefined);
    expect(saidOf(names('footer', 'cobalt'), 'HERON_UNIT')).toBe(undefined);
  });

  it('in a class, unless the class has that placement as well', () => {
    const fact = inClass('footer', 'HeaderScreen');
    expect(said(fact)).toEqual({ name: 'HeaderScreen', says: 'header' });
    expect(said(fact, [fact, inClass('header', 'HeaderScreen')])).toBe(undefined);
    expect(said(fact, [fact, inClass('header', 'OtherScreen')])).toEqual({
      name: 'HeaderScreen',
      says: 'header',
    });
    const named = constant('footer', 'HEADER_ID', 'HeaderScreen');
    expect(said(named, [named, inClass('header', 'HeaderScreen')])).toEqual({
      name: 'HEADER_ID',
      says: 'header',
    });
  });

  it('is told by the placements that each class names', () => {
    const facts = [
      inClass('footer', 'A'),
      inClass('header', 'A'),
      inClass('gift', 'B'),
      unit('gift'),
      { ...inClass('gift', 'A'), network: 'marlstone' },
      { ...inClass('gift', 'A'), placement: undefined },
    ];
    expect(placementsByType(facts, 'cobalt-heron')).toEqual(
      new Map([
        ['A', new Set(['footer', 'header'])],
        ['B', new Set(['gift'])],
      ]),
    );
  });
});

describe('a unit ID where another belongs', () => {
  const call = (format: string | undefined, id: string, more: Partial<FactOf<'call'>> = {}, written = id) =>
    ({
      ...common,
      kind: 'call',
      action: 'load',
      format,
      value: 'load',
      place: { ...place(), endLine: 4 },
      code: { argument: { ids: [id], written } },
      ...more,
    }) as unknown as Fact;
  const isMisplaced = (fact: Fact, ...calls: Fact[]) =>
    misplacedUnits([fact, ...calls], title, 'android')(fact, heron);

  it('is loaded by a call of another format', () => {
    expect(isMisplaced(unit('footer'), call('rewarded', ids.footer))).toBe(true);
    expect(isMisplaced(unit('footer'), call('banner', ids.footer))).toBe(false);
    expect(isMisplaced(unit('footer'))).toBe(false);
  });

  it('may be loaded by a call of several formats', () => {
    const both = [call('rewarded', ids.footer), call('banner', ids.footer)];
    expect(isMisplaced(unit('footer'), ...both)).toBe(false);
    const elsewhere = call('banner', ids.footer, { place: { ...place('Ads.kt', 9), endLine: 9 } }, 'FOOTER');
    expect(isMisplaced(unit('footer'), both[0]!, elsewhere)).toBe(true);
  });

  it.each<[string, Partial<FactOf<'call'>>]>([
    ['of another network', { network: 'marlstone' }],
    ['of the other platform', { platform: 'ios' }],
    ['that loads nothing', { action: 'start' as never }],
    ['elsewhere, where the ID is written again', { place: { ...place('Other.kt'), endLine: 4 } }],
    ['above it', { place: { ...place('Ads.kt', 1), endLine: 2 } }],
    ['below it', { place: { ...place('Ads.kt', 4), endLine: 5 } }],
  ])('is not told by a call %s', (_, more) => {
    expect(isMisplaced(unit('footer'), call('rewarded', ids.footer, more))).toBe(false);
  });

  it('is told by a call elsewhere that is given it by a name', () => {
    const far = { place: { ...place('Other.kt'), endLine: 4 } };
    expect(isMisplaced(unit('footer'), call('rewarded', ids.footer, far, 'FOOTER_ID'))).toBe(true);
    expect(isMisplaced(unit('footer'), call('rewarded', ids.footer, { place: place() }))).toBe(true);
  });

  it('has a name that says so', () => {
    expect(isMisplaced(constant('footer', 'HEADER_ID'))).toBe(true);
    expect(isMisplaced(constant('footer', 'FOOTER_ID'))).toBe(false);
  });

  it('is a unit ID of a placement', () => {
    expect(isMisplaced({ ...unit('footer'), placement: undefined }, call('rewarded', ids.footer))).toBe(
      false,
    );
    expect(isMisplaced({ ...unit('footer'), placement: 'gone' }, call('rewarded', ids.footer))).toBe(false);
    expect(isMisplaced(call('rewarded', ids.footer), call('rewarded', ids.footer))).toBe(false);
  });
});

describe('the stage of a variant', () => {
  const debug = { name: 'debug', type: 'debug', flavours: [] };
  it('is what the title gives it, with the reason', () => {
    expect(staged(debug, title)).toEqual({ ...debug, stage: 'test', stageWhy: 'build type debug' });
    expect(staged({ ...debug, name: 'qa', type: 'qa' }, title)).toMatchObject({
      stage: null,
      stageWhy: 'no stage of the title names “qa” or a part of it',
    });
    expect(staged(debug, null)).toMatchObject({
      stage: null,
      stageWhy: 'no title was given, so its stage is not known',
    });
  });
});

describe('the identifier that ships', () => {
  const variant = (name: string, stage: 'test' | 'production' | null) => ({
    name,
    type: name,
    flavours: [],
    stage,
    stageWhy: '',
  });
  const all = [variant('debug', 'test'), variant('release', 'production'), variant('bench', null)];
  it('is that of a production variant, else the last that is known', () => {
    expect(shippingIdentifier(all, { debug: 'a', release: 'b', bench: 'c' })).toBe('b');
    expect(shippingIdentifier(all, { debug: 'a', bench: 'c' })).toBe('c');
    expect(shippingIdentifier(all, { debug: 'a' })).toBe('a');
    expect(shippingIdentifier(all, {})).toBe(null);
  });
});

describe('the placements of unit IDs', () => {
  it('are those that hold them at the network, the first of several', () => {
    const twice = kelp({
      placements: { a: placement('banner', ids.footer, 'x'), b: placement('banner', ids.footer, 'y') },
    });
    const bare: Fact = { ...unit('footer'), placement: undefined };
    const named = (fact: Fact, of: typeof title | null = twice) => withPlacements([fact], of)[0]?.placement;
    expect(named(bare)).toBe('a');
    expect(named({ ...bare, value: 'y' })).toBe('b');
    expect(named({ ...bare, network: 'marlstone' })).toBe(undefined);
    expect(named({ ...bare, network: null })).toBe(undefined);
    expect(named({ ...bare, kind: 'app-id', carrier: 'manifest' } as Fact)).toBe(undefined);
    expect(named(bare, null)).toBe(undefined);
  });
});
