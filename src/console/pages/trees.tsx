import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { LinkedTree } from '../../api/trees.js';
import { call, type CallError } from '../api.js';
import { TextInput } from '../components/controls.js';
import { FolderPicker } from '../components/folder-picker.js';
import { Heading } from '../components/heading.js';
import { Shown } from '../components/shown.js';
import { Empty, ProblemNote } from '../components/states.js';
import { ReadAgain } from '../components/read-again.js';
import { useReading } from '../components/use-reading.js';
import { Working } from '../components/working.js';
import { useTitles, useTrees } from '../queries.js';

/** The source trees of a title that the service reads by itself, and follows. */
export function TreesPage() {
  const { title = '' } = useParams();
  const name = useTitles().data?.find(({ id }) => id === title)?.name ?? title;
  return (
    <main className="page">
      <Heading>Which trees build {name}?</Heading>
      <p className="lede">
        A linked tree is read again whenever one of its files is saved, and edits are written into it from
        here. Other trees are sent by <code>syndexa check DIR --title {title}</code>.
      </p>
      <Shown answer={useTrees()}>
        {(trees) => <Trees trees={trees.filter((tree) => tree.title === title)} title={title} />}
      </Shown>
      <h2>Link a folder</h2>
      <LinkFolder title={title} />
    </main>
  );
}

function Trees({ trees, title }: { trees: readonly LinkedTree[]; title: string }) {
  const client = useQueryClient();
  const unlink = useMutation<unknown, CallError, string>({
    mutationFn: (tree) => call('unlinkTree', { params: { tree } }),
    onSuccess: () => client.invalidateQueries(),
  });
  if (trees.length === 0) return <Empty>No tree of this title is linked yet.</Empty>;
  return (
    <>
      {unlink.error && <ProblemNote error={unlink.error} />}
      <ul className="trees">
        {trees.map(({ id, path, interrupted }) => (
          <li key={id}>
            <code>{path}</code>{' '}
            {interrupted && (
              <Link to={`/titles/${title}`} className="state state-bad">
                a write was interrupted
              </Link>
            )}
            <ReadAgain tree={id} label="Read it again" />{' '}
            <button
              type="button"
              className="btn btn-sm btn-outline-secondary"
              disabled={unlink.isPending}
              onClick={() => unlink.mutate(id)}
            >
              Unlink
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

function LinkFolder({ title }: { title: string }) {
  const client = useQueryClient();
  const [path, setPath] = useState('');
  const reading = useReading();
  const link = useMutation<unknown, CallError>({
    mutationFn: () => call('linkTree', { body: { title, path: path.trim() } }),
    onSuccess: () => {
      setPath('');
      return client.invalidateQueries();
    },
  });
  const error = reading.error ?? link.error;
  return (
    <>
      <FolderPicker chosen={[path]} choose={(chosen, on) => setPath(on ? chosen : '')} />
      <form
        className="controls mt-2"
        onSubmit={(event) => {
          event.preventDefault();
          // The folder is read first, which may take long; linking it then takes what was read.
          void reading.read(path.trim()).then((snapshot) => snapshot !== undefined && link.mutate());
        }}
      >
        <TextInput label="Folder" hint="/home/you/work/tidewick" value={path} set={setPath} isMono />
        <button
          type="submit"
          className="btn btn-sm btn-primary"
          disabled={path.trim() === '' || reading.isPending || link.isPending}
        >
          {link.isPending ? 'Linking it…' : 'Link it'}
        </button>
      </form>
      {reading.isPending && <Working progress={reading.progress} cancel={reading.cancel} />}
      {error && <ProblemNote error={error} />}
    </>
  );
}
