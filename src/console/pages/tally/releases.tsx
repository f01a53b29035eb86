import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Release } from '../../../api/tally.js';
import { call, type CallError } from '../../api.js';
import { Choice, Controls, DayInput, TextInput } from '../../components/controls.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { ProblemNote } from '../../components/states.js';
import { useKeptFields } from '../../components/use-kept-fields.js';
import { keys } from '../../queries.js';

/** When versions went out: noted here, so that what falls after one is seen. */
export function Releases({ title, releases }: { title: string; releases: readonly Release[] }) {
  const client = useQueryClient();
  const forget = useMutation<unknown, CallError, Release>({
    mutationFn: ({ platform, version }) =>
      call('dropRelease', { params: { title }, query: { platform, version } }),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.tally }),
  });
  return (
    <section>
      <h2>Releases</h2>
      <NoteRelease title={title} />
      {forget.error && <ProblemNote error={forget.error} />}
      <ul className="change-lines">
        {releases.map((release) => (
          <li key={`${release.platform} ${release.version}`}>
            {platformLabels[release.platform]} {release.version}, {release.day}{' '}
            <button
              type="button"
              className="btn btn-sm btn-link"
              aria-label={`Remove ${platformLabels[release.platform]} ${release.version}`}
              onClick={() => forget.mutate(release)}
            >
              forget
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function NoteRelease({ title }: { title: string }) {
  const client = useQueryClient();
  const [fields, set, forget] = useKeptFields(`release ${title}`, {
    platform: 'android',
    version: '',
    day: '',
  });
  const { version, day } = fields;
  const platform: Release['platform'] = fields.platform === 'ios' ? 'ios' : 'android';
  const note = useMutation<unknown, CallError>({
    mutationFn: () =>
      call('setRelease', { params: { title }, body: { title, platform, version: version.trim(), day } }),
    onSuccess: () => {
      forget();
      return client.invalidateQueries({ queryKey: keys.tally });
    },
  });
  return (
    <>
      <Controls name="A release">
        <Choice
          label="Platform of the release"
          value={platform}
          set={(id) => set({ platform: id })}
          options={Object.entries(platformLabels)}
        />
        <TextInput label="Version" hint="3.2.0" value={version} set={(text) => set({ version: text })} />
        <DayInput label="Release day" value={day} set={(chosen) => set({ day: chosen })} />
        <button
          type="button"
          className="btn btn-sm btn-outline-primary"
          disabled={version.trim() === '' || day === '' || note.isPending}
          onClick={() => note.mutate()}
        >
          Add the release
        </button>
      </Controls>
      {note.error && <ProblemNote error={note.error} whole />}
    </>
  );
}
