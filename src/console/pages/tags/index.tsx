import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import type { TagFollowed, TagLint } from '../../../api/tags.js';
import { players, type PlayerName } from '../../../core/rehearsal/tags/choose.js';
import { call, type CallError } from '../../api.js';
import { Choice, TextInput } from '../../components/controls.js';
import { Heading } from '../../components/heading.js';
import { IdText } from '../../components/id-text.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { platformNames } from '../../components/platform-names.js';
import { Shown } from '../../components/shown.js';
import { Empty, ProblemNote, State } from '../../components/states.js';
import { TextArea } from '../../components/text-area.js';
import { useAddress } from '../../components/use-address.js';
import { useKept } from '../../components/use-kept.js';
import { Play } from './play.js';
import { TagReportView } from './report.js';

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
        A tag is the address of a VAST document. Its wrappers are followed, and what a player would do with it
        is said. Nothing that counts an impression or a click is called.
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
        {platformNames[platform]}, {stage}
      </td>
      <td className="text-break">
        <IdText id={url} peers={[]} />{' '}
        <Link to={`/tags?address=${encodeURIComponent(url)}`}>look into it</Link>
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

const pasted = 'pasted document';

function Follow() {
  const [search, set] = useAddress();
  const [text, setText] = useKept('tag');
  const [isPartner, setPartner] = useState(false);
  const [isMedia, setMedia] = useState(false);
  const address = search.get('address') ?? '';
  const device = (search.get('device') ?? 'phone') as PlayerName;
  const follow = useMutation<TagFollowed, CallError>({
    mutationFn: () =>
      call('followTag', {
        body: {
          start: address === '' ? pasted : address,
          ...(address === '' ? { text } : {}),
          device,
          media: isMedia,
          partner: isPartner,
        },
      }),
  });
  return (
    <>
      <form
        aria-label="Follow a tag"
        onSubmit={(event) => {
          event.preventDefault();
          follow.mutate();
        }}
      >
        <div className="controls">
          <TextInput
            label="Address of the tag"
            hint="https://video.quincebury.example/vast?unit=…"
            value={address}
            set={(next) => set({ address: next })}
            isMono
          />
          <Choice
            label="Device"
            value={device}
            set={(next) => set({ device: next })}
            options={Object.entries(players).map(([id, { name }]) => [id, name] as const)}
          />
          <Form.Check
            id="tag-media"
            label="try its media files"
            checked={isMedia}
            onChange={(event) => setMedia(event.target.checked)}
          />
          <Form.Check
            id="tag-partner"
            label="ask the simulated partner for made-up hosts"
            checked={isPartner}
            onChange={(event) => setPartner(event.target.checked)}
          />
        </div>
        {address === '' && (
          <TextArea
            id="tag-text"
            label="Or a VAST document"
            text={text}
            set={setText}
            hint={'<VAST version="4.2">…'}
          />
        )}
        <button
          type="submit"
          className="btn btn-sm btn-primary mt-2"
          disabled={follow.isPending || (address === '' && text.trim() === '')}
        >
          {follow.isPending ? 'Following it…' : 'Follow it'}
        </button>
      </form>
      {follow.error && <ProblemNote error={follow.error} />}
      {follow.data && (
        <>
          <TagReportView report={follow.data.report} />
          <Play key={follow.submittedAt} followed={follow.data} />
        </>
      )}
    </>
  );
}
