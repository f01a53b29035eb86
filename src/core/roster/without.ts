import type { Title } from './model.js';

/** A title as it would be if it had never used a network. */
export function withoutNetwork(title: Title, network: string): Title {
  const { [network]: _, ...networks } = title.networks;
  const placements = Object.fromEntries(
    Object.entries(title.placements).map(([name, placement]) => {
      const { [network]: __, ...units } = placement.units;
      const { fallback, ...settings } = placement.settings;
      const order = fallback?.filter((each) => each !== network);
      return [
        name,
        {
          ...placement,
          units,
          settings: order && order.length > 0 ? { ...settings, fallback: order } : settings,
        },
      ];
    }),
  );
  return { ...title, networks, placements };
}
