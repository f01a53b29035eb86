import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { TagLint } from '../../../api/tags.js';
import { call, type CallError } from '../../api.js';
import { Heading } from '../../components/heading.js';
import { IdText } from '../../components/id-text.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { Shown } from '../../components/shown.js';
import { Empty, State } from '../../components/states.js';
import { Follow } from './follow.js';

/** VAST tags: those on record, and what one shows on a device. */
export function TagsPage() {
  const onRecord = useQuery<TagLint, CallError>({
    queryKey: ['tags'],
    queryFn: () => call('lintTags', { query: {} }),
  });
  return (
    <main className="page">
      <Heading>What would a video tag show?</Heading>
      <p className="lede">
        A tag is the address of a VAST document. Its wrappers are followed, and you see what a player would do
        with it. Nothing that counts an impression or a click is called.
      </p>
      <Follow />
      <h2>Tags on record</h2>
      <Shown answer={onRecord}>
        {(tags) =>
          tags.length === 0 ? (
            <Empty>No unit on record is the address of a tag.</Empty>
          ) : (
            <LedgerTable heads={['Placement', 'Build', 'Tag', 'What is wrong']}>
              {tags.map((tag) => (
                <OnRecord
                  key={JSON.stringify([tag.title, tag.placement, tag.network, tag.platform, tag.stage])}
                  tag={tag}
                />
              ))}
            </LedgerTable>
          )
        }
      </Shown>
    </main>
  );
}

function OnRecord({
  tag: { title, placement, network, platform, stage, url, problems },
}: {
  tag: TagLint[number];
}) {
  return (
    <tr>
      <th scope="row">
        <Link to={`/titles/${title}`}>{title}</Link> · {placement}
        <div className="soft fw-normal">{network}</div>
      </th>
      <td>
        {platformLabels[platform]}, {stage}
      </td>
      <td className="text-break">
        <IdText id={url} /> <Link to={`/tags?address=${encodeURIComponent(url)}`}>look at it</Link>
      </td>
      <td data-label="What is wrong">
        {problems.length === 0 ? (
          <State tone="good" shape="✔">
            nothing
          </State>
        ) : (
          problems.map(({ severity, message, fix }) => (
            <div key={message}>
              <State tone={severity === 'error' ? 'bad' : 'open'} shape={severity === 'error' ? '■' : '▲'}>
                {message}
              </State>{' '}
              {fix}
            </div>
          ))
        )}
      </td>
    </tr>
  );
}
