import { valueAt } from '../text/own-values.js';
import type { IdKindName, Profile } from '../network/model.js';
import { platforms, type Format, type Platform, type Stage } from '../words/words.js';
import { offers, sampleFor, type RecordedId } from '../network/recognise.js';
import type { Title } from './model.js';

/** The ID that a build of one stage should contain, and its source in the roster. */
export interface ExpectedId {
  network: string;
  kind: IdKindName;
  platform: Platform;
  stage: Stage;
  /** The placement's name; undefined for app IDs. */
  placement?: string;
  format?: Format;
  /** Undefined where the roster lacks it: a hole. */
  id: string | undefined;
  from: 'roster' | 'sample' | 'nowhere';
}

/** What a title says of a network: its enrolment, and its units per placement. */
function mentions(title: Title, network: string): object[] {
  const named = [
    valueAt(title.networks, network),
    ...Object.values(title.placements).map(({ units }) => valueAt(units, network)),
  ];
  return named.filter((mention) => mention !== undefined);
}

/** Whether a title names a network at all. */
export function usesNetwork(title: Title, network: string): boolean {
  return mentions(title, network).length > 0;
}

/**
 * Whether a title wires a network into one edition: it has the edition, and an enrolment or units there. A network
 * without any IDs yet is meant for every edition.
 */
export function isEnrolled(title: Title, network: string, platform: Platform): boolean {
  if (!title.editions[platform]) return false;
  const named = mentions(title, network);
  const said = named.flatMap((mention) => Object.keys(mention));
  return named.length > 0 && (said.length === 0 || said.includes(platform));
}

/** Every ID that a title should have on one platform: app IDs first, then units in the order of placements. */
export function expectedIds(title: Title, profiles: readonly Profile[], platform: Platform): ExpectedId[] {
  const enrolled = profiles.filter((profile) => isEnrolled(title, profile.id, platform));
  const stages: Stage[] = ['test', 'production'];
  const apps = enrolled.flatMap((profile) => {
    if (!profile.ids.app || !profile[platform]?.['app-id']) return [];
    return stages.map((stage): ExpectedId => {
      const own = valueAt(title.networks, profile.id)?.[platform]?.[stage]?.app;
      const base = { network: profile.id, kind: 'app' as const, platform, stage };
      return { ...base, ...choose(own, stage === 'test' ? sampleFor(profile, 'app', platform) : undefined) };
    });
  });
  const units = Object.entries(title.placements).flatMap(([placement, { format, units: ids }]) =>
    enrolled.flatMap((profile) => {
      if (!profile.ids.unit || !valueAt(ids, profile.id) || !offers(profile, format, platform)) return [];
      return stages.map((stage): ExpectedId => {
        const own = valueAt(ids, profile.id)?.[platform]?.[stage];
        const base = { network: profile.id, kind: 'unit' as const, platform, stage, placement, format };
        return {
          ...base,
          ...choose(own, stage === 'test' ? sampleFor(profile, 'unit', platform, format) : undefined),
        };
      });
    }),
  );
  return [...apps, ...units];
}

function choose(own: string | undefined, sample: string | undefined): Pick<ExpectedId, 'id' | 'from'> {
  if (own !== undefined) return { id: own, from: own === sample ? 'sample' : 'roster' };
  return sample === undefined ? { id: undefined, from: 'nowhere' } : { id: sample, from: 'sample' };
}

/** The IDs that a title has on record, with those that networks give out for its tests. */
export function recordedIds(title: Title, profiles: readonly Profile[]): RecordedId[] {
  return platforms.flatMap((platform) =>
    expectedIds(title, profiles, platform).flatMap(({ id, network }) =>
      id === undefined ? [] : [{ id, network }],
    ),
  );
}
