import { buildHistory } from '../../src/core/tally/build-history.js';
import type { Day } from '../../src/core/tally/days.js';
import { noSums, type SumRow } from '../../src/core/tally/figures.js';
import type { TallyHistory } from '../../src/core/tally/history.js';
import { Owners } from '../../src/core/tally/owners.js';
import { ownedUnits, type Series } from '../../src/core/tally/report.js';
import type { Release } from '../../src/core/tally/releases.js';
import type { Profile } from '../../src/core/network/model.js';
import type { Title } from '../../src/core/roster/model.js';
import { seeded } from '../../src/core/text/seeded.js';
import { platforms, type Format, type Platform } from '../../src/core/words/words.js';
import { numbersOf, type Incident, type SimulatedUnit } from '../../src/partner/reports/season.js';

/** A title with two years of made-up numbers. */
export interface SimulatedTitle {
  id: string;
  title: Title;
  units: (SimulatedUnit & { network: string; placement: string; platform: Platform })[];
  releases: Release[];
  incidents: Incident[];
  seed: number;
}

const formats: readonly (readonly [string, Format])[] = [
  ['footer', 'banner'],
  ['page', 'interstitial'],
  ['bonus', 'rewarded'],
  ['start', 'splash'],
];
const network = 'cobalt-heron';
const idOf = (platform: Platform, number: number) =>
  `CH-U-310772-${platform === 'ios' ? 'I' : 'A'}${String(number).padStart(7, '0')}`;

/** A title with four placements on both platforms, and a release every five weeks or so. */
export function simulatedTitle(number: number, from: Day, days: number): SimulatedTitle {
  const draw = seeded(number + 77);
  const id = `title-${number}`;
  const appOf = (platform: Platform) =>
    `CH-${platform === 'ios' ? 'I' : 'A'}-310772-${String(number).padStart(8, '0')}`;
  const units = formats.flatMap(([placement, format], at) =>
    platforms.map((platform) => ({
      id: idOf(platform, number * 10 + at),
      app: appOf(platform),
      format,
      since: from,
      network,
      placement,
      platform,
    })),
  );
  const releases: Release[] = [];
  for (let day = from + 20 + draw(20), version = 1; day < from + days; day += 28 + draw(21), version++)
    for (const platform of platforms)
      releases.push({ title: id, platform, version: `1.${version}`, day: day + draw(4) });
  const unitsOf = (placement: string) => ({
    [network]: Object.fromEntries(
      units
        .filter((unit) => unit.placement === placement)
        .map(({ platform, id: unit }) => [platform, { production: unit }]),
    ),
  });
  const title = {
    name: id,
    audience: 'general',
    stages: { test: ['debug'], production: ['release'] },
    editions: {
      android: { identifier: `example.brine.t${number}` },
      ios: { identifier: `example.brine.t${number}` },
    },
    networks: {
      [network]: Object.fromEntries(
        platforms.map((platform) => [platform, { production: { app: appOf(platform) } }]),
      ),
    },
    placements: Object.fromEntries(
      formats.map(([placement, format]) => [placement, { format, settings: {}, units: unitsOf(placement) }]),
    ),
  } as unknown as Title;
  return { id, title, units, releases, incidents: [], seed: number };
}

/** The rows of a title on some days. */
export function rowsOf({ units, incidents, seed }: SimulatedTitle, from: Day, to: Day): SumRow[] {
  const rows: SumRow[] = [];
  for (const [series, unit] of units.entries())
    for (let day = from; day <= to; day++) {
      const counts = numbersOf(seed, unit, day, { incidents });
      if (counts && counts.requests !== 0)
        rows.push({
          ...noSums,
          ...counts,
          matchable: counts.requests,
          shown: counts.impressions,
          clickable: counts.impressions,
          series: series + 1,
          day,
          country: null,
          currency: 'EUR',
        });
    }
  return rows;
}

/** All that is known of a title at the end of its days. */
export function wholeHistory(
  { id, title, units, releases }: SimulatedTitle,
  rows: readonly SumRow[],
  { profiles, from, to }: { profiles: readonly Profile[]; from: Day; to: Day },
): TallyHistory {
  const series: Series[] = units.map((unit, at) => ({
    id: at + 1,
    network: unit.network,
    kind: 'unit',
    key: unit.id,
    app: unit.app,
  }));
  return buildHistory({
    units: ownedUnits(series, new Owners({ titles: { [id]: title } }, profiles)),
    apps: [],
    rows,
    known: new Map([[network, new Set(Array.from({ length: to - from + 1 }, (_, at) => from + at))]]),
    last: [{ network, day: to }],
    releases,
    inTables: [],
    former: [],
    lacksAppAds: [],
  });
}

/** What was known on an earlier day. */
export function upTo(history: TallyHistory, day: Day): TallyHistory {
  return {
    ...history,
    last: history.last.map((one) => ({ ...one, day })),
    releases: history.releases.filter((release) => release.day <= day),
    units: history.units
      .filter(({ from }) => from <= day)
      .map((unit) => {
        const length = day - unit.from + 1;
        const cut = <Value>(values: readonly Value[]) => values.slice(0, length);
        return {
          ...unit,
          asked: cut(unit.asked),
          matched: cut(unit.matched),
          impressions: cut(unit.impressions),
          revenue: cut(unit.revenue),
        };
      })
      .filter(({ asked }) => asked.some((value) => value !== null && value > 0)),
  };
}

/** Something that befalls a title, and the rule that has to find it. */
export interface PlantedEvent {
  rule: string;
  placement: string;
  platform: Platform;
  day: Day;
}

/** Lets three things befall a title in its second year: each is listed with the rule that has to find it. */
export function plantEvents(title: SimulatedTitle, from: Day): PlantedEvent[] {
  const draw = seeded(title.seed + 4_321);
  const kinds = [
    { rule: 'tally/silent', what: 'silent', placement: 'page' },
    { rule: 'tally/hardly-shown', what: 'unshown', placement: 'bonus' },
    { rule: 'tally/step-at-release', what: 'fewer', placement: 'footer' },
  ] as const;
  return kinds.map(({ rule, what, placement }, at) => {
    const platform = draw(2) === 0 ? 'android' : 'ios';
    const wanted = from + 200 + at * 160 + draw(60);
    const release = title.releases.find((one) => one.platform === platform && one.day > wanted);
    const day = what === 'silent' || !release ? wanted : release.day + 1;
    const unit = title.units.find((one) => one.placement === placement && one.platform === platform);
    title.incidents.push({ unit: unit?.id, from: day, what, left: 0.45 + draw(15) / 100 });
    return { rule, placement, platform, day };
  });
}
