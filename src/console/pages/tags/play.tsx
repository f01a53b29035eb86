import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { counted } from '../../../core/text/counted.js';
import type { PlayLine, TagFollowed, TagPlayed } from '../../../api/tags.js';
import { actionNames, type Action } from '../../../core/rehearsal/tags/playback.js';
import { call, type CallError } from '../../api.js';
import { CallButton } from '../../components/call-button.js';
import { Choice, TextInput } from '../../components/controls.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { State } from '../../components/states.js';
import { seconds } from './report.js';

/** Goes through the break with what a user does, and says what would be called when. */
export function Play({ followed: { question } }: { followed: TagFollowed }) {
  const [actions, setActions] = useState<Action[]>([]);
  const [what, setWhat] = useState<string>('skip');
  const [at, setAt] = useState('6');
  const play = useMutation<TagPlayed, CallError>({
    mutationFn: () => call('playTag', { body: { ...question, actions } }),
  });
  const milliseconds = Math.round(Number(at) * 1000);
  const isTime = at.trim() !== '' && milliseconds >= 0 && milliseconds <= 86_400_000;
  return (
    <section aria-label="Play it">
      <h2>What is called when it plays</h2>
      <form
        className="controls"
        onSubmit={(event) => {
          event.preventDefault();
          setActions(
            [...actions, { at: milliseconds, do: what as Action['do'] }].sort((a, b) => a.at - b.at),
          );
        }}
      >
        <Choice
          label="What the user does"
          value={what}
          set={setWhat}
          options={actionNames.map((name) => [name, name] as const)}
        />
        <span className="soft">after</span>
        <TextInput label="After how many seconds" hint="6" value={at} set={setAt} />
        <span className="soft">seconds</span>
        <button type="submit" className="btn btn-sm btn-outline-secondary" disabled={!isTime}>
          Add it
        </button>
      </form>
      <Actions actions={actions} set={setActions} />
      <CallButton call={play} label="Play it" busy="Playing…" look="outline-primary" />
      {play.data && <Played lines={play.data.lines} />}
    </section>
  );
}

/** What the user does, each to be left out again. */
function Actions({ actions, set }: { actions: readonly Action[]; set: (actions: Action[]) => void }) {
  if (actions.length === 0) return null;
  return (
    <ul className="chips">
      {actions.map((action, index) => (
        <li key={index}>
          {action.do} at {seconds(action.at)}{' '}
          <button
            type="button"
            className="btn btn-sm btn-link p-0"
            aria-label={`Leave out ${action.do} at ${seconds(action.at)}`}
            onClick={() => set(actions.filter((_, other) => other !== index))}
          >
            ✕
          </button>
        </li>
      ))}
    </ul>
  );
}

const tones = {
  event: { tone: 'good', shape: '●' },
  error: { tone: 'bad', shape: '■' },
  ignored: { tone: 'open', shape: '○' },
  stuck: { tone: 'bad', shape: '■' },
  content: { tone: 'good', shape: '▷' },
} as const;

function Played({ lines }: { lines: readonly PlayLine[] }) {
  const calls = lines.reduce((sum, line) => sum + line.calls.length, 0);
  return (
    <>
      <p role="status" className="mt-2">
        {counted(calls, 'call')} in total; none was made.
      </p>
      <LedgerTable heads={['When', 'What', 'Calls']}>
        {lines.map(({ at, ad, what, name, playhead, note, calls: called }, index) => (
          <tr key={index}>
            <td className="text-nowrap">{seconds(at)}</td>
            <td>
              <State tone={tones[what].tone} shape={tones[what].shape}>
                {name}
              </State>{' '}
              <span className="soft">
                {ad !== null && `ad ${ad}`}
                {playhead !== undefined && `, at ${seconds(playhead)} of the video`} {note}
              </span>
            </td>
            <td className="text-break" data-label="Calls">
              {called.length === 0 && <span className="soft">none</span>}
              {called.map((url, other) => (
                <div key={other}>
                  <code>{url}</code>
                </div>
              ))}
            </td>
          </tr>
        ))}
      </LedgerTable>
    </>
  );
}
