import { useParams } from 'react-router';
import type { TitleRecord } from '../../../api/titles.js';
import { Controls, Finder, NetworkChoice } from '../../components/controls.js';
import { Heading } from '../../components/heading.js';
import { Failure, Loading, State } from '../../components/states.js';
import { useAddress } from '../../components/use-address.js';
import { useDrafts } from '../../components/use-kept.js';
import { useNetworks, useTitle } from '../../queries.js';
import { HeadForm } from './head-form.js';
import { Ids } from './ids.js';
import { Placements } from './placements.js';
import { RemoveTitle } from './remove-title.js';
import { draftsOf } from './use-draft.js';

/** What the record says of a title, to read and to change. */
export function RecordPage() {
  const { title = '' } = useParams();
  const record = useTitle(title);
  if (record.status === 'pending') return <Loading what="the record" />;
  if (record.status === 'error') return <Failure error={record.error} again={() => void record.refetch()} />;
  return <RecordOf key={title} record={record.data} />;
}

function RecordOf({ record }: { record: TitleRecord }) {
  const [search, set] = useAddress();
  const networks = useNetworks().data ?? [];
  const find = (search.get('find') ?? '').trim().toLowerCase();
  const network = search.get('network') ?? '';
  return (
    <main className="page">
      <Heading>What does the record say of {record.title.name}?</Heading>
      <p className="lede">
        Version {record.version}. Every change is kept in the history; invalid values are refused, as in the
        terminal.
      </p>
      <Unsaved title={record.id} />
      <HeadForm record={record} />
      <Controls name="Placements and IDs" className="mt-4">
        <Finder
          label="Find a placement"
          value={search.get('find') ?? ''}
          set={(text) => set({ find: text })}
        />
        <NetworkChoice
          value={network}
          set={(id) => set({ network: id })}
          networks={networks.map(({ id, name }) => [id, name] as const)}
        />
      </Controls>
      <Placements record={record} find={find} />
      <h2>IDs</h2>
      <Ids record={record} find={find} only={network} />
      <RemoveTitle record={record} />
    </main>
  );
}

/** Fields that were typed in and are not in the record, perhaps because the service refused them. */
function Unsaved({ title }: { title: string }) {
  const drafts = useDrafts(draftsOf(title));
  if (drafts.length === 0) return null;
  return (
    <p role="status">
      <State tone="open" shape="▲">
        not saved yet
      </State>{' '}
      {drafts.slice(0, 5).join(', ')}
      {drafts.length > 5 && ` and ${drafts.length - 5} more`}. What you typed is kept in this tab.
    </p>
  );
}
