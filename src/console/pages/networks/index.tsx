import { Link } from 'react-router';
import { Heading } from '../../components/heading.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { Failure, Loading } from '../../components/states.js';
import { useNetworks } from '../../queries.js';

/** The networks that can be wired in, and who uses them. */
export function NetworksPage() {
  const networks = useNetworks();
  if (networks.status === 'pending') return <Loading what="the networks" />;
  if (networks.status === 'error')
    return <Failure error={networks.error} again={() => void networks.refetch()} />;
  return (
    <main className="page">
      <Heading>Which networks are known here?</Heading>
      <p className="lede">
        Each is described by a profile: what its IDs look like, and what a build needs.{' '}
        <Link to="/networks/new">Describe another network.</Link>
      </p>
      <LedgerTable heads={['Network', 'What it is', 'Formats', 'Platforms', 'Used by']}>
        {networks.data.map(({ id, name, about, formats, platforms, shipped, usedBy }) => (
          <tr key={id}>
            <th scope="row">
              <Link to={`/networks/${id}`}>{name}</Link>
              <div className="soft fw-normal">
                {id}
                {!shipped && ', your own profile'}
              </div>
            </th>
            <td>{about}</td>
            <td data-label="Formats">{formats.join(', ')}</td>
            <td data-label="Platforms">{platforms.join(', ')}</td>
            <td data-label="Used by">
              <UsedBy titles={usedBy} />
            </td>
          </tr>
        ))}
      </LedgerTable>
    </main>
  );
}

/** More titles than this are counted, not listed. */
const listed = 6;

/** The titles that use a network, each with the way to its board. */
export function UsedBy({ titles }: { titles: readonly string[] }) {
  if (titles.length === 0) return <span className="soft">no title</span>;
  return (
    <>
      {titles.slice(0, listed).map((title, index) => (
        <span key={title}>
          {index > 0 && ', '}
          <Link to={`/titles/${title}`}>{title}</Link>
        </span>
      ))}
      {titles.length > listed && <span className="soft"> and {titles.length - listed} more</span>}
    </>
  );
}
