import { useQueries } from '@tanstack/react-query';
import { call } from '../../api.js';
import { keys } from '../../queries.js';

/** A key of the account that a network asks for. */
export interface AccountNeed {
  network: string;
  credential: string;
  label: string;
}

/** The keys that networks ask for once for all titles. */
export function useAccountNeeds(networks: readonly string[]): AccountNeed[] {
  const found = useQueries({
    queries: networks.map((network) => ({
      queryKey: keys.network(network),
      queryFn: () => call('showNetwork', { params: { network } }),
    })),
  });
  return found.flatMap(({ data }) =>
    data
      ? Object.entries(data.profile.credentials).flatMap(([credential, { scope, label }]) =>
          scope === 'account'
            ? [{ network: data.profile.id, credential, label: `${data.profile.name}, ${label}` }]
            : [],
        )
      : [],
  );
}
