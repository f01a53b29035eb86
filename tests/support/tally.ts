import { describe, expect, it } from 'vitest';
import type { Finding, Rule } from '../../src/core/checks/model.js';
import { weekday, type Day } from '../../src/core/tally/days.js';
import type { AppHistory, TallyHistory, UnitHistory } from '../../src/core/tally/history.js';
import { Owners } from '../../src/core/tally/owners.js';
import { tallyFindings } from '../../src/core/tallying.js';
import type { Title } from '../../src/core/roster/model.js';
import { seeded } from '../../src/core/text/seeded.js';
import { kelp, profiles } from './trees.js';

/** The last day of made-up numbers, a Sunday. */
export const lastDay: Day = 20_604;
export const length = 120;

export interface MadeUnit {
  unit: string;
  network?: string;
  app?: string;
  appTitle?: string | null;
  /** How many of the last days it is there for. */
  days?: number;
  /** Requests of a day, counted from the last one back. */
  asked?: (ago: number) => number;
  /** Of the requests, so many are answered; of the answered ones, so many are shown. */
  fill?: (ago: number) => number;
  shown?: (ago: number) => number;
  /** Micros for each impression. */
  price?: number;
}

/** Days of a unit: weekends are better, and every day is a little different. */
export const steady =
  (usual: number, seed = 1, spread = 0.12) =>
  (ago: number): number => {
    const draw = seeded(seed * 7_919 + ago);
    draw(2);
    const noise = 1 + (draw(2_000) / 1_000 - 1) * spread;
    return Math.round(usual * noise * (weekday(lastDay - ago) >= 5 ? 1.3 : 1));
  };

/** What a unit did until a day, and since. */
export const since =
  <Value>(ago: number, before: (at: number) => Value, after: (at: number) => Value) =>
  (at: number): Value =>
    at > ago ? before(at) : after(at);

export interface TallyCase {
  name: string;
  title?: Title;
  units?: readonly MadeUnit[];
  apps?: readonly { app: string; impressions: (ago: number) => number }[];
  releases?: readonly { platform: 'android' | 'ios'; version: string; ago: number }[];
  former?: TallyHistory['former'];
  lacksAppAds?: readonly string[];
  inTables?: readonly string[];
}

const network = 'cobalt-heron';

/** The history that a case describes. */
export function historyOf({
  title = kelp(),
  units = [],
  apps = [],
  releases = [],
  former = [],
  lacksAppAds = [],
  inTables = [],
}: TallyCase): TallyHistory {
  const owners = new Owners({ titles: { kelp: title, other: otherTitle } }, profiles);
  const networks = new Set([network, ...units.map((unit) => unit.network ?? network)]);
  return {
    units: units.map((unit) => made(unit, owners)),
    apps: apps.map(({ app, impressions }): AppHistory => ({
      network,
      app,
      from: lastDay - length + 1,
      impressions: list(length, impressions),
    })),
    last: [...networks].map((name) => ({ network: name, day: lastDay })),
    inTables,
    releases: releases.map(({ ago, ...release }) => ({ ...release, title: 'kelp', day: lastDay - ago })),
    former,
    lacksAppAds,
  };
}

/** A title that shares the account. */
export const otherTitle = kelp({ name: 'Other', placements: {} });

function made(
  {
    unit,
    network: of = network,
    app = '',
    appTitle = null,
    days = length,
    asked = steady(1_000),
    fill = () => 0.9,
    shown = () => 0.8,
    price = 2_000,
  }: MadeUnit,
  owners: Owners,
): UnitHistory {
  const matched = (ago: number) => Math.round(asked(ago) * fill(ago));
  const impressions = (ago: number) => Math.round(matched(ago) * shown(ago));
  return {
    network: of,
    unit,
    app,
    owner: owners.unit(of, unit) ?? null,
    appTitle,
    from: lastDay - days + 1,
    asked: list(days, asked),
    matched: list(days, matched),
    impressions: list(days, impressions),
    revenue: list(days, (ago) => impressions(ago) * price),
    currency: 'EUR',
  };
}

function list(days: number, value: (ago: number) => number): number[] {
  return Array.from({ length: days }, (_, at) => value(days - 1 - at));
}

/** What all rules say of the numbers of a case. */
export function tallyFindingsOf(one: TallyCase): Finding[] {
  return tallyFindings({
    title: { id: 'kelp', title: one.title ?? kelp() },
    profiles,
    tally: historyOf(one),
    now: '2026-06-01T12:00:00Z',
  });
}

/** Numbers where a rule must be silent, and numbers where it must speak. */
export function tallyCases(
  rule: Rule,
  {
    clean,
    faulty,
  }: {
    clean: TallyCase[];
    faulty: (TallyCase & { findings: Partial<Finding>[]; byHand?: Partial<TallyCase> })[];
  },
): void {
  const mine = (one: TallyCase) => tallyFindingsOf(one).filter((finding) => finding.rule === rule.meta.id);
  describe(rule.meta.id, () => {
    it.each(clean)('is silent: $name', (one) => {
      expect(mine(one).map(({ message }) => message)).toEqual([]);
    });
    it.each(faulty)('speaks: $name', (one) => {
      const found = mine(one);
      expect(found.map(({ message }) => message)).toHaveLength(one.findings.length);
      for (const [index, wanted] of one.findings.entries())
        expect(found[index]).toMatchObject({ severity: rule.meta.severity, ...wanted });
    });
    it('gives advice that helps', () => {
      const first = faulty.find(({ byHand }) => byHand);
      expect(first).toBeDefined();
      if (first) expect(mine({ ...first, ...first.byHand }).map(({ message }) => message)).toEqual([]);
    });
    it('says the same of the same fault a day later', () => {
      for (const one of faulty) {
        const next = {
          ...one,
          units: one.units?.map((unit) => ({ ...unit, days: (unit.days ?? length) - 1 })) ?? [],
        };
        const [before, after] = [mine(one), mine(next)].map((found) =>
          found.map(({ fingerprint }) => fingerprint),
        );
        if (after?.length === before?.length) expect(after).toEqual(before);
      }
    });
  });
}
