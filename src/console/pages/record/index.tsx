import { useParams } from 'react-router';
import type { TitleRecord } from '../../../api/titles.js';
import { Failure, Loading } from '../../components/states.js';
import { useTitle } from '../../queries.js';
import { HeadForm } from './head-form.js';
import { Ids } from './ids.js';
import { Placements } from './placements.js';
import { Heading } from '../../components/heading.js';

/** What the record says of a title, to read and to change. */
export function RecordPage() {
  const { title = '' } = useParams();
  const record = useTitle(title);
  if (record.status === 'pending') return <Loading what="the record" />;
  if (record.status === 'error') return <Failure error={record.error} again={() => void record.refetch()} />;
  return <RecordOf key={title} record={record.data} />;
}

function RecordOf({ record }: { record: TitleRecord }) {
  return (
    <main className="page">
      <Heading>What does the record say of {record.title.name}?</Heading>
      <p className="lede">
        Version {record.version}. Every change is kept in the history; a value that is not right is refused
        here as in the terminal.
      </p>
      <HeadForm record={record} />
      <h2>Placements</h2>
      <Placements record={record} />
      <h2>IDs</h2>
      <Ids record={record} />
    </main>
  );
}
