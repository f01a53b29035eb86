import { describe, expect, it } from 'vitest';
import type { Rule } from '../../../src/core/checks/model.js';
import { partnerAppAudienceDiffers } from '../../../src/core/checks/rules/partner-app-audience-differs.js';
import { partnerAppGone } from '../../../src/core/checks/rules/partner-app-gone.js';
import { partnerAppIdentifierDiffers } from '../../../src/core/checks/rules/partner-app-identifier-differs.js';
import { partnerSettingsDiffer } from '../../../src/core/checks/rules/partner-settings-differ.js';
import { partnerTermsOpen } from '../../../src/core/checks/rules/partner-terms-open.js';
import { partnerUnitFormatChanged } from '../../../src/core/checks/rules/partner-unit-format-changed.js';
import { partnerUnitGone } from '../../../src/core/checks/rules/partner-unit-gone.js';
import { partnerUnitPaused } from '../../../src/core/checks/rules/partner-unit-paused.js';
import { partnerUnitRenamed } from '../../../src/core/checks/rules/partner-unit-renamed.js';
import { partnerUnitTooNew } from '../../../src/core/checks/rules/partner-unit-too-new.js';
import { partnerUnitWrongPlatform } from '../../../src/core/checks/rules/partner-unit-wrong-platform.js';
import type { InventoryReading } from '../../../src/core/inventory/model.js';
import type { Title } from '../../../src/core/roster/model.js';
import { contextOf, reportsOf } from '../../support/surveyed.js';
import { kelp } from '../../support/titles.js';

// What a network's list, as last read, says of the IDs on record.

const [app, footer] = ['CH-A-310772-QK4T8W2N', 'CH-U-310772-AAAA1111'];
const network = 'Cobalt Heron';
const title = (settings: object = {}, more: Partial<Title> = {}) =>
  kelp({
    networks: { 'cobalt-heron': { android: { production: { app } } } },
    placements: {
      footer: {
        format: 'banner',
        settings,
        units: { 'cobalt-heron': { android: { production: footer } } },
      } as unknown as Title['placements'][string],
    },
    ...more,
  });

const rightApp = { id: app, identifier: 'example.brine.kelp', platform: 'android' };
const rightUnit = {
  id: footer,
  app,
  name: 'kelp footer',
  format: 'banner',
  platform: 'android',
  status: 'active',
  settings: {},
};

interface Listed {
  apps?: object[];
  units?: object[];
  knownAs?: Record<string, string>;
  of?: Title;
}

/** What a rule says of a list in which everything is right, but for what is given. */
function told(
  rule: Rule,
  { apps = [rightApp], units = [rightUnit], knownAs = {}, of = title() }: Listed = {},
) {
  const inventory = { network: 'cobalt-heron', source: 'http', readAt: '', apps, units, knownAs };
  return reportsOf(
    rule,
    contextOf([], { title: of, inventories: [inventory as unknown as InventoryReading] }),
  );
}
const said = (rule: Rule, listed: Listed) =>
  told(rule, listed).map(({ message, data, placement }) => [message, data, placement]);

describe('a list of a network', () => {
  it('in which everything is right says nothing', () => {
    for (const rule of [
      partnerAppAudienceDiffers,
      partnerAppGone,
      partnerAppIdentifierDiffers,
      partnerSettingsDiffer,
      partnerTermsOpen,
      partnerUnitFormatChanged,
      partnerUnitGone,
      partnerUnitPaused,
      partnerUnitRenamed,
      partnerUnitTooNew,
      partnerUnitWrongPlatform,
    ]) {
      expect(told(rule)).toEqual([]);
      expect(reportsOf(rule, contextOf([], { title: title() }))).toEqual([]);
    }
  });

  it('that lacks an ID says so, and nothing else of it', () => {
    const stranger = { ...rightApp, id: 'CH-A-310772-ZZZZ9999' };
    expect(told(partnerAppGone, { apps: [stranger] })).toEqual([
      {
        platform: 'android',
        module: 'app',
        variants: ['release'],
        network: 'cobalt-heron',
        placement: null,
        message: 'gone',
        data: { network, id: app, platform: 'android' },
      },
    ]);
    expect(said(partnerUnitGone, { units: [] })).toEqual([
      ['gone', { network, id: footer, placement: 'footer', platform: 'android' }, 'footer'],
    ]);
    expect(said(partnerUnitGone, { units: [{ ...rightUnit, status: 'removed' }] })).toHaveLength(1);
    for (const rule of [partnerAppAudienceDiffers, partnerAppIdentifierDiffers, partnerTermsOpen])
      expect(told(rule, { apps: [stranger] })).toEqual([]);
    for (const rule of [
      partnerSettingsDiffer,
      partnerUnitFormatChanged,
      partnerUnitPaused,
      partnerUnitRenamed,
      partnerUnitTooNew,
      partnerUnitWrongPlatform,
    ])
      expect(told(rule, { units: [], knownAs: { [footer]: 'old' }, of: title({ refresh: '60s' }) })).toEqual(
        [],
      );
  });

  it('says what an app is there', () => {
    const apps = (more: object) => ({ apps: [{ ...rightApp, ...more }] });
    expect(said(partnerAppAudienceDiffers, apps({ audience: 'children' }))).toEqual([
      ['differs', { network, id: app, is: 'children', wanted: 'general' }, null],
    ]);
    expect(said(partnerAppAudienceDiffers, apps({ audience: 'general' }))).toEqual([]);
    expect(said(partnerAppIdentifierDiffers, apps({ identifier: 'example.brine.other' }))).toEqual([
      [
        'differs',
        { network, id: app, is: 'example.brine.other', wanted: 'example.brine.kelp', platform: 'android' },
        null,
      ],
    ]);
    expect(said(partnerTermsOpen, apps({ terms: false }))).toEqual([
      ['open', { network, id: app, platform: 'android' }, null],
    ]);
    expect(said(partnerTermsOpen, apps({ terms: true }))).toEqual([]);
  });

  it('says what a unit is there', () => {
    const units = (more: object) => ({ units: [{ ...rightUnit, ...more }] });
    const data = { network, id: footer, placement: 'footer' };
    expect(said(partnerUnitFormatChanged, units({ format: 'rewarded' }))).toEqual([
      ['format', { ...data, is: 'rewarded', wanted: 'banner' }, 'footer'],
    ]);
    expect(said(partnerUnitFormatChanged, units({ format: null }))).toEqual([]);
    expect(said(partnerUnitPaused, units({ status: 'paused' }))).toEqual([
      ['paused', { ...data, platform: 'android' }, 'footer'],
    ]);
    expect(said(partnerUnitWrongPlatform, units({ platform: 'ios' }))).toEqual([
      ['platform', { network, id: footer, is: 'ios', wanted: 'android' }, 'footer'],
    ]);
    expect(said(partnerUnitWrongPlatform, units({ platform: null }))).toEqual([]);
    expect(said(partnerUnitRenamed, { knownAs: { [footer]: 'old name' } })).toEqual([
      ['renamed', { network, id: footer, was: 'old name', is: 'kelp footer' }, 'footer'],
    ]);
    expect(said(partnerUnitRenamed, { knownAs: { other: 'old name' } })).toEqual([]);
  });

  it('says how long a unit serves nothing yet', () => {
    const from = (servesFrom: string | null) =>
      told(partnerUnitTooNew, { units: [{ ...rightUnit, servesFrom }] });
    const [report, ...more] = from('2026-06-01T14:00:00Z');
    expect(more).toEqual([]);
    expect(report).toMatchObject({
      message: 'new',
      data: { network, id: footer, placement: 'footer', platform: 'android' },
      placement: 'footer',
    });
    expect(report?.changing?.left).toMatch(/^2 ?h/);
    expect(from('2026-06-01T11:00:00Z')).toEqual([]);
    expect(from(null)).toEqual([]);
  });

  it('says which settings it has otherwise', () => {
    const units = [{ ...rightUnit, settings: { refresh: '30s' } }];
    expect(said(partnerSettingsDiffer, { units, of: title({ refresh: '60s' }) })).toEqual([
      [
        'differs',
        {
          setting: 'refresh',
          placement: 'footer',
          platform: 'android',
          roster: '"60s"',
          partner: '"30s"',
          network,
        },
        'footer',
      ],
    ]);
    expect(said(partnerSettingsDiffer, { units, of: title({ refresh: '30s' }) })).toEqual([]);
  });
});
