import { durationSeconds } from '../words/durations.js';
import type { Profile } from '../network/model.js';
import type { Placement } from '../roster/model.js';
import { dayText, type Day } from '../tally/days.js';
import type { TallyHistory, UnitHistory } from '../tally/history.js';
import { valueAt } from '../text/own-values.js';
import { platforms, type Platform } from '../words/words.js';
import type { CheckContext, Report } from './model.js';
import { networkName } from './scope.js';
import { platformLabels } from '../words/platform-labels.js';

/** A production unit of a placement, and what it reported. */
export interface TalliedUnit {
  name: string;
  placement: Placement;
  platform: Platform;
  profile: Profile;
  unit: string;
  /** Undefined where nothing was ever reported of it. */
  history: UnitHistory | undefined;
  /** The last day that its network has reported. */
  last: Day;
}

/** The production units of the title whose networks have reported numbers. */
export function talliedUnits({ title, profiles, tally }: CheckContext): TalliedUnit[] {
  if (!title || !tally) return [];
  return Object.entries(title.placements).flatMap(([name, placement]) =>
    profiles.flatMap((profile) =>
      platforms.flatMap((platform): TalliedUnit[] => {
        const unit = valueAt(placement.units, profile.id)?.[platform]?.production;
        const last = lastDay(tally, profile.id);
        if (unit === undefined || last === undefined || !title.editions[platform]) return [];
        const history = tally.units.find((one) => one.network === profile.id && one.unit === unit);
        return [{ name, placement, platform, profile, unit, history, last }];
      }),
    ),
  );
}

/** The last day that a network has reported. */
export function lastDay({ last }: TallyHistory, network: string): Day | undefined {
  return last.find((one) => one.network === network)?.day;
}

/** Units with numbers, alone. */
export function reportingUnits(context: CheckContext): (TalliedUnit & { history: UnitHistory })[] {
  return talliedUnits(context).flatMap((unit) => (unit.history ? [{ ...unit, history: unit.history }] : []));
}

/**
 * Whether tables may just lack the app of a unit: the network is known from tables alone, and no unit of the platform
 * has asked for anything since a day. Then it is not known whether the app is silent.
 */
export function mayBeLeftOut({ tally }: CheckContext, unit: TalliedUnit, since: Day): boolean {
  if (!tally?.inTables.includes(unit.profile.id)) return false;
  return !tally.units.some(
    ({ network, owner, from, asked }) =>
      network === unit.profile.id &&
      owner?.platform === unit.platform &&
      asked.some((value, at) => from + at >= since && (value ?? 0) > 0),
  );
}

/** What a report takes over from a unit. */
export function fromTallied({
  name,
  platform,
  profile,
}: Pick<TalliedUnit, 'name' | 'platform' | 'profile'>): Pick<Report, 'platform' | 'network' | 'placement'> {
  return { platform, network: profile.id, placement: name };
}

/** What messages say of a unit. */
export function namesOf({ name, platform, profile }: Pick<TalliedUnit, 'name' | 'platform' | 'profile'>): {
  placement: string;
  on: string;
  network: string;
} {
  return { placement: name, on: platformLabels[platform], network: profile.name };
}

/** The last release of a platform before a day, within a number of days. */
export function releaseBefore(
  { tally }: CheckContext,
  platform: Platform,
  day: Day,
  within: number,
): { version: string; day: Day; text: string } | undefined {
  const found = (tally?.releases ?? []).filter(
    (release) => release.platform === platform && release.day <= day && day - release.day <= within,
  );
  const newest = found.sort((a, b) => b.day - a.day)[0];
  return newest && { ...newest, text: dayText(newest.day) };
}

/** Days until a new unit of a network serves. */
export function servingDelay({ 'serving-delay': delay = '1s' }: Profile): number {
  return Math.ceil(durationSeconds(delay) / 86_400);
}

/** What people call the network of a history. */
export function networkOf(context: CheckContext, { network }: { network: string }): string {
  return networkName(context, network);
}

/** A share in percent. */
export function percentText(share: number): string {
  return `${Math.round(share * 100)} %`;
}

/** A count with its thousands apart. */
export function countText(count: number): string {
  return Math.round(count).toLocaleString('en');
}

/** The other platform. */
export function sisterOf(platform: Platform): Platform {
  return platform === 'ios' ? 'android' : 'ios';
}
