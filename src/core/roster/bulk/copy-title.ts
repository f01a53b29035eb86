import type { Title } from '../model.js';

/**
 * A title made like another: audience, stages, networks and placements with their settings. IDs, secrets and devices
 * belong to the other one and are left out.
 */
export function copyTitle(
  title: Title,
  { name, identifiers }: { name: string; identifiers: Partial<Record<'android' | 'ios', string>> },
): Title {
  const { android, ios } = identifiers;
  const placements = Object.entries(title.placements).map(([key, placement]) => [
    key,
    { ...placement, units: Object.fromEntries(Object.keys(placement.units).map((network) => [network, {}])) },
  ]);
  const edition = (platform: 'android' | 'ios', identifier: string) => {
    const tracking = title.editions[platform]?.tracking;
    return { identifier, ...(tracking === undefined ? {} : { tracking }) };
  };
  return {
    name,
    audience: title.audience,
    stages: structuredClone(title.stages),
    editions: {
      ...(android === undefined ? {} : { android: edition('android', android) }),
      ...(ios === undefined ? {} : { ios: edition('ios', ios) }),
    },
    networks: Object.fromEntries(Object.keys(title.networks).map((network) => [network, {}])),
    placements: Object.fromEntries(placements) as Title['placements'],
  };
}
