import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { call, type CallError } from '../../api.js';
import { Merge } from './merge.js';
import { FileField } from '../../components/file-field.js';
import { Heading } from '../../components/heading.js';
import { saveFile } from '../../components/save-file.js';
import { ProblemNote } from '../../components/states.js';
import { TextArea } from '../../components/text-area.js';
import { useKept } from '../../components/use-kept.js';
import { TakingView, useTaking } from '../../components/taking.js';

/** The record as a document: out, into an earlier one, and in. */
export function DocumentsPage() {
  const [text, setText] = useKept('document');
  return (
    <main className="page">
      <Heading>What does the record say, as a document?</Heading>
      <p className="lede">
        One YAML file holds all titles, so that a team can keep it beside its code. Every change is shown
        before it is imported.
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
  const take = useTaking(() => ({
    document: text,
    prune: isPruned,
    profiles: profiles.map((profile) => profile.text),
  }));
  const change = (next: string) => {
    setText(next);
    take.forget();
  };
  const open = async (chosen: readonly File[]) => {
    const read = await openDocuments(chosen);
    setProfiles(read.profiles);
    change(read.document);
  };
  return (
    <>
      <FileField
        id="document-files"
        label="A document, and the profiles that belong to it"
        accept=".yaml,.yml"
        isMultiple
        open={(chosen) => void open(chosen)}
      />
      <TextArea
        id="document-text"
        label="Or its text"
        text={text}
        set={change}
        hint={'syndexa: 1\ntitles:\n  tidewick:\n    …'}
      />
      {profiles.length > 0 && (
        <p className="soft mt-2">With the profiles {profiles.map(({ name }) => name).join(', ')}.</p>
      )}
      <Form.Check
        id="document-prune"
        className="mt-2"
        label="remove titles that the document does not name"
        checked={isPruned}
        onChange={(event) => {
          setPruned(event.target.checked);
          take.forget();
        }}
      />
      <TakingView taking={take} isEmpty={text.trim() === ''} />
      {take.error?.problem.code === 'stale' && (
        <Merge document={text} changes={take.error.problem.changes ?? []} merged={change} />
      )}
    </>
  );
}

/** Of the files that were chosen, the roster document, and the profiles that belong to it. */
async function openDocuments(chosen: readonly File[]) {
  const read = await Promise.all(chosen.map(async (file) => ({ name: file.name, text: await file.text() })));
  const isProfile = (file: { text: string }) => /^profile:/m.test(file.text);
  return { profiles: read.filter(isProfile), document: read.find((file) => !isProfile(file))?.text ?? '' };
}

/** Downloads the record; an earlier document that is open below keeps its comments. */
function Export({ earlier }: { earlier: string }) {
  const out = useMutation<unknown, CallError, boolean>({
    mutationFn: async (isInto) => {
      const { document, profiles } = isInto
        ? await call('updateRosterDocument', { body: { document: earlier } })
        : await call('exportRoster');
      saveFile('roster.yaml', document, 'application/yaml');
      for (const { id, text } of profiles) saveFile(`${id}.yaml`, text, 'application/yaml');
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
