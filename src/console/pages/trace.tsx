import type { ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import type { IdTrace } from '../../core/id-trace/trace.js';
import { moneyText } from '../../core/tally/money.js';
import { Heading } from '../components/heading.js';
import { LedgerTable } from '../components/ledger-table.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { Failure, Loading } from '../components/states.js';
import { useTrace } from '../queries.js';

/** Everything known about an ID. */
export function TracePage() {
  const { id = '' } = useParams();
  const found = useTrace(id);
  if (found.status === 'pending') return <Loading what="what is known of the ID" />;
  if (found.status === 'error') return <Failure error={found.error} again={() => void found.refetch()} />;
  const trace = found.data;
  return (
    <main className="page trace">
      <Heading>
        What is <span className="place">{trace.id}</span>?
      </Heading>
      <p className="lede">
        <InShort trace={trace} />
      </p>
      <InRecord record={trace.record} />
      <InTrees builds={trace.builds} />
      <AtNetwork listed={trace.listed} />
      <Earned earned={trace.earned} />
      <Changes changes={trace.changes} />
    </main>
  );
}

function InRecord({ record }: Pick<IdTrace, 'record'>) {
  return (
    <Part name="In the record" head={['Title', 'Placement', 'Network', 'Build']} none="No title uses it.">
      {record.map(({ title, titleName, placement, network, platform, stage }) => (
        <tr key={`${title} ${placement} ${network} ${platform} ${stage}`}>
          <th scope="row">
            <Link to={`/titles/${title}/record`}>{titleName}</Link>
          </th>
          <td>{placement ? <Link to={`/titles/${title}?find=${placement}`}>{placement}</Link> : 'app ID'}</td>
          <td>
            <Link to={`/networks/${network}`}>{network}</Link>
          </td>
          <td>
            {platformLabels[platform]} {stage}
          </td>
        </tr>
      ))}
    </Part>
  );
}

function InTrees({ builds }: Pick<IdTrace, 'builds'>) {
  return (
    <Part
      name="In trees"
      head={['Title', 'Place', 'Variants', 'Read']}
      none="No tree that was read contains it."
    >
      {builds.map(({ title, platform, place, variants, readAt }, at) => (
        <tr key={at}>
          <th scope="row">
            <Link to={`/titles/${title}/${platform}`}>
              {title}, {platformLabels[platform]}
            </Link>
          </th>
          <td className="place">
            {place.path}:{place.line}:{place.column}
          </td>
          <td>{variants.join(', ') || <span className="soft">in no variant</span>}</td>
          <td className="soft">{new Date(readAt).toLocaleString()}</td>
        </tr>
      ))}
    </Part>
  );
}

function AtNetwork({ listed }: Pick<IdTrace, 'listed'>) {
  return (
    <Part
      name="At the network"
      head={['Network', 'Its name there', 'What it is', 'Read']}
      none="No list fetched from a network contains it."
    >
      {listed.map(({ network, name, unit, readAt }) => (
        <tr key={network}>
          <th scope="row">
            <Link to={`/networks/${network}`}>{network}</Link>
          </th>
          <td>{name}</td>
          <td>
            {unit
              ? [unit.format, unit.platform && platformLabels[unit.platform], unit.status]
                  .filter(Boolean)
                  .join(', ')
              : 'an app'}
          </td>
          <td className="soft">{new Date(readAt).toLocaleString()}</td>
        </tr>
      ))}
    </Part>
  );
}

function Earned({ earned }: Pick<IdTrace, 'earned'>) {
  return (
    <Part
      name="What it earned"
      head={['Network', 'Days', 'Requests', 'Impressions', 'Revenue']}
      none="No daily numbers mention it."
    >
      {earned.map(({ network, from, to, requests, impressions, revenue, currency }) => (
        <tr key={`${network} ${currency}`}>
          <th scope="row">{network}</th>
          <td>
            {from} to {to}
          </td>
          <td>{requests?.toLocaleString('en') ?? <span className="soft">not reported</span>}</td>
          <td>{impressions.toLocaleString('en')}</td>
          <td>{moneyText(revenue, currency)}</td>
        </tr>
      ))}
    </Part>
  );
}

function Changes({ changes }: Pick<IdTrace, 'changes'>) {
  return (
    <Part
      name="When it changed"
      head={['When', 'Who', 'What', 'Field']}
      none="No change of the record involved it."
    >
      {changes.map(({ at, who, path, did }) => (
        <tr key={`${at} ${path} ${did}`}>
          <td>{new Date(at).toLocaleString()}</td>
          <td>{who}</td>
          <td>{did === 'set' ? 'set' : 'taken out'}</td>
          <td className="place">{path}</td>
        </tr>
      ))}
    </Part>
  );
}

/** What it is, in a sentence or two. */
function InShort({ trace: { is, record } }: { trace: IdTrace }) {
  if (is.length === 0) return <>No known network has IDs of this shape.</>;
  return is.map(({ network, networkName, label, platform, sample }) => (
    <span key={network}>
      {sample ? `A sample: ${label}` : `${label[0]?.toUpperCase()}${label.slice(1)}`} of{' '}
      <Link to={`/networks/${network}`}>{networkName}</Link>
      {platform && `, for ${platformLabels[platform]}`}
      {sample ? ', for testing only. ' : record.length === 0 ? ', in no record. ' : '. '}
    </span>
  ));
}

function Part({
  name,
  head,
  none,
  children,
}: {
  name: string;
  head: readonly string[];
  none: string;
  children: ReactNode[];
}) {
  return (
    <section>
      <h2>{name}</h2>
      {children.length === 0 ? (
        <p className="soft">{none}</p>
      ) : (
        <LedgerTable heads={head}>{children}</LedgerTable>
      )}
    </section>
  );
}
