import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import type { RosterImported } from '../../../api/titles.js';
import { call, type CallError } from '../../api.js';
import { Heading } from '../../components/heading.js';
import { Done, ProblemNote } from '../../components/states.js';
import { ChangeTable, ThreeWayTable } from './changes.js';

/** The record as a document: out, into an earlier one, and in. */
export function DocumentsPage() {
  const [text, setText] = useState('');
  return (
    <main className="page">
      <Heading>What does the record say, as a document?</Heading>
      <p className="lede">
        One YAML file holds all titles, so that a team can keep it beside its code. What comes in is shown
        before it is taken.
      </p>
      <h2>Out</h2>
      <Export earlier={text} />
      <h2>In</h2>
      <Import text={text} setText={setText} />
    </main>
  );
}

function Import({ text, setText }: { text: string; setText: (text: string) => void }) {
  const [isPruned, setPruned] = useState(false);
  const [profiles, setProfiles] = useState<{ name: string; text: string }[]>([]);
  const take = useImport({ document: text, prune: isPruned, profiles });
  const open = async (chosen: FileList) => {
    const read = await Promise.all(
      [...chosen].map(async (file) => ({ name: file.name, text: await file.text() })),
    );
    const isProfile = (file: { text: string }) => /^profile:/m.test(file.text);
    setProfiles(read.filter(isProfile));
    setText(read.find((file) => !isProfile(file))?.text ?? '');
    take.forget();
  };
  return (
    <>
      <label className="form-label" htmlFor="document-files">
        A document, and the profiles that belong to it
      </label>
      <input
        id="document-files"
        type="file"
        multiple
        accept=".yaml,.yml"
        className="form-control"
        onChange={(event) => event.target.files && void open(event.target.files)}
      />
      <label className="form-label mt-2" htmlFor="document-text">
        Or its text
      </label>
      <textarea
        id="document-text"
        className="form-control font-monospace"
        rows={text === '' ? 4 : 14}
        value={text}
        spellCheck={false}
        placeholder={'syndexa: 1\ntitles:\n  tidewick:\n    …'}
        onChange={(event) => {
          setText(event.target.value);
          take.forget();
        }}
      />
      {profiles.length > 0 && (
        <p className="soft mt-2">With the profiles {profiles.map(({ name }) => name).join(', ')}.</p>
      )}
      <Form.Check
        id="document-prune"
        className="mt-2"
        label="take out titles that the document does not name"
        checked={isPruned}
        onChange={(event) => {
          setPruned(event.target.checked);
          take.forget();
        }}
      />
      <Taking take={take} isEmpty={text.trim() === ''} />
    </>
  );
}

/** The preview of an import, its faults, and the button that does it. */
function Taking({ take, isEmpty }: { take: ReturnType<typeof useImport>; isEmpty: boolean }) {
  const { error, previewed, taken, isPending } = take;
  return (
    <>
      <div className="actions">
        <button
          type="button"
          className="btn btn-outline-primary"
          disabled={isEmpty || isPending}
          onClick={take.preview}
        >
          {isPending ? 'Comparing…' : 'Show what would change'}
        </button>
      </div>
      {error && <ProblemNote error={error} />}
      {error?.problem.code === 'stale' && <ThreeWayTable changes={error.problem.changes ?? []} />}
      {previewed && (
        <section aria-label="What would change">
          <ChangeTable changes={previewed.changes} />
          {previewed.changes.length > 0 && (
            <button type="button" className="btn btn-primary" disabled={isPending} onClick={take.apply}>
              Take {previewed.changes.length} {previewed.changes.length === 1 ? 'change' : 'changes'} into the
              record
            </button>
          )}
        </section>
      )}
      {taken && (
        <Done>
          {taken.changes.length} {taken.changes.length === 1 ? 'change is' : 'changes are'} in the record, at
          revision {taken.revision}.
        </Done>
      )}
    </>
  );
}

/** Previews an import, then does it; what was previewed counts only for the document that it was made for. */
function useImport(input: { document: string; prune: boolean; profiles: { text: string }[] }) {
  const client = useQueryClient();
  const send = (dryRun: boolean) =>
    call('importRoster', {
      body: { ...input, dryRun, profiles: input.profiles.map(({ text }) => text) },
    });
  const trial = useMutation<RosterImported, CallError>({ mutationFn: () => send(true) });
  const real = useMutation<RosterImported, CallError>({
    mutationFn: () => send(false),
    onSuccess: () => {
      trial.reset();
      return client.invalidateQueries();
    },
  });
  return {
    preview: () => {
      real.reset();
      trial.mutate();
    },
    apply: () => real.mutate(),
    forget: () => {
      trial.reset();
      real.reset();
    },
    previewed: real.data ? undefined : trial.data,
    taken: real.data,
    error: real.error ?? trial.error,
    isPending: trial.isPending || real.isPending,
  };
}

/** Downloads the record; an earlier document that is open below keeps its comments. */
function Export({ earlier }: { earlier: string }) {
  const out = useMutation<unknown, CallError, boolean>({
    mutationFn: async (isInto) => {
      const { document, profiles } = isInto
        ? await call('updateRosterDocument', { body: { document: earlier } })
        : await call('exportRoster');
      save('roster.yaml', document);
      for (const { id, text } of profiles) save(`${id}.yaml`, text);
    },
  });
  return (
    <>
      <div className="actions">
        <button
          type="button"
          className="btn btn-outline-primary"
          disabled={out.isPending}
          onClick={() => out.mutate(false)}
        >
          Save roster.yaml
        </button>
        {earlier.trim() !== '' && (
          <button
            type="button"
            className="btn btn-outline-primary"
            disabled={out.isPending}
            onClick={() => out.mutate(true)}
          >
            Save it with the comments of the document below
          </button>
        )}
      </div>
      {out.error && <ProblemNote error={out.error} />}
    </>
  );
}

function save(name: string, text: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type: 'application/yaml' }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
