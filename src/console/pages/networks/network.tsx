import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate, useParams } from 'react-router';
import { reasonsOf } from '../../../core/network/reasons.js';
import { call, type CallError } from '../../api.js';
import { Confirmed } from '../../components/confirmed.js';
import { Heading } from '../../components/heading.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { Failure, Loading, ProblemNote } from '../../components/states.js';
import { useNetwork, useNetworks } from '../../queries.js';
import { UsedBy } from './index.js';

/** One network: what its SDK needs and why, who uses it, and the profile as it is written. */
export function NetworkPage() {
  const { network = '' } = useParams();
  const found = useNetwork(network);
  const usedBy = useNetworks().data?.find(({ id }) => id === network)?.usedBy;
  if (found.status === 'pending') return <Loading what="the network" />;
  if (found.status === 'error') return <Failure error={found.error} again={() => void found.refetch()} />;
  const { profile, source, shipped } = found.data;
  return (
    <main className="page">
      <Heading>What does {profile.name} need, and why?</Heading>
      <p className="lede">
        {profile.about}{' '}
        {usedBy && (
          <>
            Used by <UsedBy titles={usedBy} />.
          </>
        )}
      </p>
      <div className="actions">
        <Link className="btn btn-sm btn-outline-primary" to={`/networks/${network}/profile`}>
          Edit the profile
        </Link>
        {!shipped && <Remove network={network} name={profile.name} />}
      </div>
      <LedgerTable heads={['What', 'Value', 'Why']} className="reasons">
        {reasonsOf(profile).map(({ what, value, why }) => (
          <tr key={`${what} ${value}`}>
            <td>{what}</td>
            <td className="text-break">
              <code>{value}</code>
            </td>
            <td>{why}</td>
          </tr>
        ))}
      </LedgerTable>
      <h2>The profile</h2>
      <pre className="source p-2" tabIndex={0} aria-label="The profile as written">
        {source}
      </pre>
    </main>
  );
}

/** Forgets a profile of one's own. */
function Remove({ network, name }: { network: string; name: string }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const remove = useMutation<unknown, CallError>({
    mutationFn: () => call('removeNetwork', { params: { network } }),
    onSuccess: async () => {
      await navigate('/networks');
      await client.invalidateQueries();
    },
  });
  return (
    <>
      <Confirmed
        label="Remove the profile"
        question={`Remove the profile of ${name}, which exists only in the data folder?`}
        isPending={remove.isPending}
        act={() => remove.mutate()}
      />
      {remove.error && <ProblemNote error={remove.error} whole />}
    </>
  );
}
