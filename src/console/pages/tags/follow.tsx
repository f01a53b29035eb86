import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import type { TagFollowed } from '../../../api/tags.js';
import { players, type PlayerName } from '../../../core/rehearsal/tags/choose.js';
import { call, type CallError } from '../../api.js';
import { Choice, TextInput } from '../../components/controls.js';
import { ProblemNote } from '../../components/states.js';
import { TextArea } from '../../components/text-area.js';
import { useAddress } from '../../components/use-address.js';
import { useKept } from '../../components/use-kept.js';
import { Play } from './play.js';
import { TagReportView } from './report.js';

const pasted = 'pasted document';

/** Which tag is followed, and how: the address and the device are part of the page's address. */
function useFollowing() {
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
  return { set, address, device, text, setText, isPartner, setPartner, isMedia, setMedia, follow };
}
type Following = ReturnType<typeof useFollowing>;

/** Follows a tag, or a document that is pasted, and plays what it shows. */
export function Follow() {
  const following = useFollowing();
  const { address, text, setText, follow } = following;
  return (
    <>
      <form
        aria-label="Follow a tag"
        onSubmit={(event) => {
          event.preventDefault();
          follow.mutate();
        }}
      >
        <Asked following={following} />
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

function Asked({ following }: { following: Following }) {
  const { set, address, device, isPartner, setPartner, isMedia, setMedia } = following;
  return (
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
        label="check its media files"
        checked={isMedia}
        onChange={(event) => setMedia(event.target.checked)}
      />
      <Form.Check
        id="tag-partner"
        label="send requests to .example hosts to the simulated partner"
        checked={isPartner}
        onChange={(event) => setPartner(event.target.checked)}
      />
    </div>
  );
}
