import { describe, expect, it } from 'vitest';
import type { CheckContext, Rule } from '../../../src/core/checks/model.js';
import { branchesSwapped } from '../../../src/core/checks/rules/platform-branches-swapped.js';
import { caseMissing } from '../../../src/core/checks/rules/platform-case-missing.js';
import { formatDiffers } from '../../../src/core/checks/rules/platform-format-differs.js';
import { oneIdForBoth } from '../../../src/core/checks/rules/platform-one-id-for-both.js';
import { placementOnOneSide } from '../../../src/core/checks/rules/platform-placement-on-one-side.js';
import { pluginOneSided } from '../../../src/core/checks/rules/platform-plugin-one-sided.js';
import { settingDiffers } from '../../../src/core/checks/rules/platform-setting-differs.js';
import type { Fact } from '../../../src/core/facts/model.js';
import type { Title } from '../../../src/core/roster/model.js';
import { contextOf as surveyed, edition, fact, place, reportsOf } from '../../support/surveyed.js';
import { kelp, placement, placementOf } from '../../support/titles.js';

const network = 'Cobalt Heron';
const [footer, footerIos] = ['CH-U-310772-AAAA1111', 'CH-U-310772-AAAA2222'];
const [header, headerIos] = ['CH-U-310772-BBBB1111', 'CH-U-310772-BBBB2222'];
const title = kelp({
  placements: {
    footer: placement('banner', footer, footerIos),
    header: placement('banner', header, headerIos),
  },
});
const contextOf = (facts: Fact[] = [], held: Title = title): CheckContext => surveyed(facts, { title: held });
const said = (rule: Rule, facts: Fact[], held: Title = title) =>
  reportsOf(rule, contextOf(facts, held)).map(({ message, data }) => [message, data]);
const ios = { platform: 'ios' };
const unit = (value: string, line: number, more: object = {}) =>
  fact('unit-id', { carrier: 'code', value, placement: 'footer', place: place('Ads.dart', line), ...more });

describe('one source for both platforms', () => {
  it('that names the ID of one is told once for the other', () => {
    const facts = [unit(footer, 1), unit(footer, 1, ios)];
    expect(said(oneIdForBoth, facts)).toEqual([
      ['both', { id: footer, placement: 'footer', network, holder: 'android', platform: 'ios' }],
    ]);
    expect(said(oneIdForBoth, [unit(footer, 1), unit(footerIos, 2, ios)])).toEqual([]);
    expect(said(oneIdForBoth, [unit(footer, 1, ios)])).toEqual([]);
    expect(said(branchesSwapped, facts)).toEqual([]);
  });

  it('that gives each the ID of the other is told once for each place', () => {
    const when = (holds: boolean) => ({ code: { conditions: [{ text: 'isAndroid', holds }] } });
    const facts = [
      unit(footerIos, 1, when(true)),
      unit(footerIos, 1, { ...when(true), variants: ['release'] }),
      unit(footer, 2, { ...ios, ...when(false) }),
    ];
    expect(said(branchesSwapped, facts)).toEqual([
      ['swapped', { id: footerIos, placement: 'footer', network, holder: 'ios', platform: 'android' }],
      ['swapped', { id: footer, placement: 'footer', network, holder: 'android', platform: 'ios' }],
    ]);
    expect(said(oneIdForBoth, facts)).toEqual([]);
  });

  it('that has no case for a platform is told with the cases, for networks that the title uses', () => {
    const open = (more: object = {}) => fact('left-open', { value: 'iOS', ...more });
    expect(said(caseMissing, [open(), open({ ...ios, value: 'Android' })])).toEqual([
      ['open', { platform: 'Android', network, cases: 'iOS' }],
      ['open', { platform: 'iOS', network, cases: 'Android' }],
    ]);
    expect(said(caseMissing, [open({ network: 'marlstone' }), unit(footer, 1)])).toEqual([]);
  });
});

describe('a placement that differs between platforms', () => {
  const load = (format: string | undefined, id: string, more: object = {}) =>
    fact('call', { action: 'load', format, code: { argument: { ids: [id] } }, ...more });

  it('is told where no format is loaded on both', () => {
    const facts = [
      load('banner', footer),
      load('rewarded', footer, { action: 'view' }),
      load('interstitial', footerIos, ios),
    ];
    expect(said(formatDiffers, facts)).toEqual([
      [
        'differ',
        { placement: 'footer', here: 'interstitial', there: 'banner and rewarded', other: 'android' },
      ],
    ]);
    const [report] = reportsOf(formatDiffers, contextOf(facts));
    expect([report?.placement, report?.platform]).toEqual(['footer', 'ios']);
    const identified = [load('banner', footer, { action: 'identify' }), load(undefined, footerIos, ios)];
    expect(said(formatDiffers, identified)).toEqual([
      ['differ', { placement: 'footer', here: '', there: 'banner', other: 'android' }],
    ]);
  });

  it('is nothing where one is, where one side loads nothing, and between placements', () => {
    const both = [load('banner', footer), load('banner', footerIos, ios)];
    expect(said(formatDiffers, both)).toEqual([]);
    expect(said(formatDiffers, [...both, load('rewarded', footerIos, ios)])).toEqual([]);
    expect(said(formatDiffers, [load('banner', footer)])).toEqual([]);
    expect(said(formatDiffers, [load('banner', footerIos, ios)])).toEqual([]);
    expect(said(formatDiffers, [load('banner', footer), load('rewarded', headerIos, ios)])).toEqual([]);
    const shown = [load('banner', footer), load('rewarded', footerIos, { ...ios, action: 'show' })];
    expect(said(formatDiffers, shown)).toEqual([]);
    const strange = [load('banner', footer), load('rewarded', footerIos, { ...ios, network: 'marlstone' })];
    expect(said(formatDiffers, strange)).toEqual([]);
  });

  it('is told where one platform’s code does not use it', () => {
    const use = (name: string, more: object = {}) => fact('placement-use', { placement: name, ...more });
    const only = reportsOf(placementOnOneSide, contextOf([use('footer')]));
    expect(only).toMatchObject([
      {
        message: 'onlyHere',
        data: { placement: 'footer', used: 'android', unused: 'ios' },
        placement: 'footer',
        network: null,
        platform: null,
        module: null,
      },
    ]);
    expect(said(placementOnOneSide, [use('header', ios)])).toEqual([
      ['onlyHere', { placement: 'header', used: 'ios', unused: 'android' }],
    ]);
    expect(said(placementOnOneSide, [use('footer'), use('footer', ios)])).toEqual([]);
    expect(said(placementOnOneSide, [])).toEqual([]);
    for (const carrier of ['code', 'layout', 'storyboard'])
      expect(said(placementOnOneSide, [use('footer'), unit(footerIos, 1, { ...ios, carrier })])).toEqual([]);
    for (const carrier of ['placebook', 'resource'])
      expect(said(placementOnOneSide, [use('footer'), unit(footerIos, 1, { ...ios, carrier })])).toHaveLength(
        1,
      );
    const other = fact('left-open', { placement: 'footer', ...ios });
    expect(said(placementOnOneSide, [use('footer'), other])).toHaveLength(1);
  });

  it('is nothing where it is meant for one platform, and where a tree builds one', () => {
    const use = fact('placement-use', { placement: 'footer' });
    const android = kelp({
      placements: {
        footer: placementOf({ 'cobalt-heron': { android: { production: footer } } }),
      },
    });
    expect(said(placementOnOneSide, [use], android)).toEqual([]);
    const context = contextOf([use]);
    const one = { ...context, survey: { ...context.survey, editions: [edition('android')] } };
    expect(reportsOf(placementOnOneSide, one)).toEqual([]);
    expect(reportsOf(placementOnOneSide, { ...context, title: null })).toEqual([]);
  });
});

describe('a plugin entry', () => {
  const expo = (facts: Fact[]) => {
    const context = contextOf(facts);
    const editions = context.survey.editions.map((one) => ({ ...one, stack: 'expo' }));
    return { ...context, survey: { ...context.survey, editions } };
  };
  const entry = (value: string, more: object = {}) =>
    fact('plugin-entry', { name: '@cobaltheron/expo', value, ...more });
  const half = (...facts: Fact[]) =>
    reportsOf(pluginOneSided, expo(facts)).map(({ message, data }) => [message, data]);

  it('that gives one ID of two is told for the platform that gets none', () => {
    expect(half(entry('androidAppId'), entry('androidAppId', ios))).toEqual([
      ['half', { package: '@cobaltheron/expo', field: 'iosAppId', platform: 'iOS', network }],
    ]);
    expect(half(entry('iosAppId'))).toEqual([
      ['half', { package: '@cobaltheron/expo', field: 'androidAppId', platform: 'Android', network }],
    ]);
    expect(half(entry('iosAppId', { name: undefined }))[0]).toMatchObject(['half', { package: '' }]);
    expect(
      half(entry('iosAppId', { place: place('a', 1) }), entry('iosAppId', { place: place('a', 1) })),
    ).toHaveLength(1);
  });

  it('that gives both or neither, or belongs to another network or stack, is nothing', () => {
    expect(half(entry('androidAppId, iosAppId'), entry('androidAppId, iosAppId', ios))).toEqual([]);
    expect(half(entry('other'), entry('other', ios))).toEqual([]);
    expect(half(entry('iosAppId', { network: 'marlstone' }))).toEqual([]);
    expect(half(fact('dependency', { value: 'iosAppId' }))).toEqual([]);
    expect(said(pluginOneSided, [entry('iosAppId')])).toEqual([]);
  });
});

describe('a setting of a placement', () => {
  const settings = (given: object) =>
    kelp({
      placements: {
        footer: { ...placement('banner', footer, footerIos), settings: given },
      },
    });
  const view = (more: object = {}) =>
    fact('banner-view', { code: { argument: { ids: [footer] } }, value: 'BannerView', ...more });

  it('is told where a view has another size', () => {
    const sized = settings({ size: 'standard' });
    expect(said(settingDiffers, [view({ size: 'large' })], sized)).toEqual([
      ['size', { placement: 'footer', wanted: 'standard', found: 'large' }],
    ]);
    for (const one of [view({ size: 'standard' }), view()])
      expect(said(settingDiffers, [one], sized)).toEqual([]);
    expect(said(settingDiffers, [view({ size: 'large' })], settings({}))).toEqual([]);
    const call = fact('call', { action: 'view', size: 'large', code: { argument: { ids: [footer] } } });
    expect(said(settingDiffers, [call], sized)).toEqual([]);
    expect(reportsOf(settingDiffers, contextOf([view({ size: 'x' })], sized))[0]?.placement).toBe('footer');
  });

  it('is told where a view is held elsewhere', () => {
    const held = (anchor: string, at: string | undefined) =>
      said(settingDiffers, [view({ anchor: at })], settings({ anchor })).map(([message]) => message);
    expect(held('bottom', 'top-edge')).toEqual(['anchor']);
    expect(held('top', 'bottom-edge')).toEqual(['anchor']);
    expect(held('inline', 'top-edge')).toEqual(['fixed']);
    expect(held('bottom', 'scrolling-view')).toEqual(['scrolls']);
    for (const [anchor, at] of [
      ['bottom', 'bottom-edge'],
      ['top', 'top-edge'],
      ['inline', 'scrolling-view'],
      ['bottom', undefined],
      ['bottom', 'elsewhere'],
    ] as const)
      expect(held(anchor, at)).toEqual([]);
    expect(said(settingDiffers, [view({ anchor: 'top-edge' })], settings({}))).toEqual([]);
    const [data] = said(settingDiffers, [view({ anchor: 'top-edge' })], settings({ anchor: 'bottom' }));
    expect(data?.[1]).toMatchObject({ placement: 'footer', wanted: 'bottom' });
  });

  it('is told where the placebook is older than the roster', () => {
    const book = (value: string, more: object = {}) =>
      fact('placement-settings', { placement: 'footer', value, ...more });
    const fresh = settings({ refresh: '60s' });
    expect(reportsOf(settingDiffers, contextOf([book('refreshSeconds 30')], fresh))).toMatchObject([
      {
        message: 'placebook',
        mend: 'placebook',
        placement: 'footer',
        data: { placement: 'footer', wanted: 'refreshSeconds 60', found: 'refreshSeconds 30' },
      },
    ]);
    for (const one of [
      book('refreshSeconds 60'),
      book('refreshSeconds 30', { placement: 'gone' }),
      book('refreshSeconds 30', { placement: undefined }),
      fact('placement-use', { placement: 'footer', value: 'refreshSeconds 30' }),
    ])
      expect(said(settingDiffers, [one], fresh)).toEqual([]);
  });
});
