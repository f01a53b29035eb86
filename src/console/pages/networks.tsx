import { Link, useParams } from 'react-router';
import { reasonsOf } from '../../core/network/reasons.js';
import { Failure, Loading } from '../components/states.js';
import { useNetwork, useNetworks } from '../queries.js';
import { Heading } from '../components/heading.js';
import { LedgerTable } from '../components/ledger-table.js';

/** The networks that can be wired in. */
export function NetworksPage() {
  const networks = useNetworks();
  if (networks.status === 'pending') return <Loading what="the networks" />;
  if (networks.status === 'error')
    return <Failure error={networks.error} again={() => void networks.refetch()} />;
  return (
    <main className="page">
      <Heading>Which networks are known here?</Heading>
      <p className="lede">
        Each is described by a profile. Add yours: syndexa network new drafts a profile, syndexa network add
        keeps it.
      </p>
      <LedgerTable heads={['Network', 'What it is', 'Formats', 'Platforms']}>
        {networks.data.map(({ id, name, about, formats, platforms }) => (
          <tr key={id}>
            <th scope="row">
              <Link to={`/networks/${id}`}>{name}</Link>
              <div className="soft fw-normal">{id}</div>
            </th>
            <td>{about}</td>
            <td data-label="Formats">{formats.join(', ')}</td>
            <td data-label="Platforms">{platforms.join(', ')}</td>
          </tr>
        ))}
      </LedgerTable>
    </main>
  );
}

/** One network: what its SDK needs and why, and the profile as it is written. */
export function NetworkPage() {
  const { network = '' } = useParams();
  const found = useNetwork(network);
  if (found.status === 'pending') return <Loading what="the network" />;
  if (found.status === 'error') return <Failure error={found.error} again={() => void found.refetch()} />;
  const { profile, source } = found.data;
  const needs = reasonsOf(profile);
  return (
    <main className="page">
      <Heading>What does {profile.name} need, and why?</Heading>
      <p className="lede">{profile.about}</p>
      <table className="ledger reasons cards">
        <thead>
          <tr>
            <th>What</th>
            <th>Value</th>
            <th>Why</th>
          </tr>
        </thead>
        <tbody>
          {needs.map(({ what, value, why }) => (
            <tr key={`${what} ${value}`}>
              <td>{what}</td>
              <td className="text-break">
                <code>{value}</code>
              </td>
              <td>{why}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2>The profile</h2>
      <pre className="source p-2" tabIndex={0} aria-label="The profile as it is written">
        {source}
      </pre>
    </main>
  );
}
