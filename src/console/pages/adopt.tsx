import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import type { TitleDraft } from '../../core/adopting/model.js';
import type { TitleRecord } from '../../api/titles.js';
import { call, type CallError } from '../api.js';
import { FolderPicker } from '../components/folder-picker.js';
import { ProblemNote } from '../components/states.js';
import { useKept } from '../components/use-kept.js';
import { useReading } from '../components/use-reading.js';
import { Working } from '../components/working.js';
import { keys } from '../queries.js';
import { Heading } from '../components/heading.js';

const shapes = { certain: '●', likely: '◐', guess: '○' } as const;

/** The folders that are named, one a line. */
function pathsIn(text: string): string[] {
  return text
    .split('\n')
    .map((path) => path.trim())
    .filter((path) => path !== '');
}

/** Reads folders one after another, and drafts a title of what they carry. */
function useDrafting(folders: string) {
  const reading = useReading();
  const draft = useMutation<TitleDraft, CallError, string[]>({
    mutationFn: (snapshots) => call('draftTitle', { body: { snapshots } }),
  });
  const start = async () => {
    const snapshots: string[] = [];
    for (const path of pathsIn(folders)) {
      const snapshot = await reading.read(path);
      // Cancelled, or refused: the others are of no use alone.
      if (snapshot === undefined) return;
      snapshots.push(snapshot);
    }
    draft.mutate(snapshots);
  };
  const error = reading.error ?? draft.error;
  return { reading, draft, start, error };
}

/** Drafts a title from trees that exist, shows what the draft rests on, and takes it in once it was looked at. */
export function AdoptPage() {
  const [folders, setFolders] = useKept('adopt');
  const { reading, draft, start, error } = useDrafting(folders);
  return (
    <main className="page">
      <Heading>What do your trees already contain?</Heading>
      <p className="lede">
        Name the folders of a title’s source trees, one a line. Nothing is saved until you add the draft to
        the record.
      </p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void start();
        }}
      >
        <FolderPicker
          chosen={pathsIn(folders)}
          choose={(path, on) =>
            setFolders(
              (on ? [...pathsIn(folders), path] : pathsIn(folders).filter((one) => one !== path)).join('\n'),
            )
          }
        />
        <label className="form-label mt-2" htmlFor="adopt-folders">
          Folders, below a root of this service
        </label>
        <textarea
          id="adopt-folders"
          className="form-control font-monospace"
          rows={3}
          value={folders}
          onChange={(event) => setFolders(event.target.value)}
          placeholder="/home/you/work/tidewick"
        />
        {reading.isPending && <Working progress={reading.progress} cancel={reading.cancel} />}
        {error && <ProblemNote error={error} />}
        <button
          type="submit"
          className="btn btn-primary mt-3"
          disabled={reading.isPending || draft.isPending || folders.trim() === ''}
        >
          {draft.isPending ? 'Drafting it…' : 'Draft a title'}
        </button>
      </form>
      {draft.data && <Draft key={draft.submittedAt} folders={folders} draft={draft.data} />}
    </main>
  );
}

/** The draft as a document that may be changed, and then taken in. */
function Draft({ folders, draft }: { folders: string; draft: TitleDraft }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [document, setDocument, forget] = useKept(`adopted ${folders}`, draft.document);
  const take = useMutation<TitleRecord[], CallError>({
    mutationFn: () => call('takeDraft', { body: { document } }),
    onSuccess: async ([record]) => {
      forget();
      if (record) await navigate(`/titles/${record.id}`);
      await client.invalidateQueries({ queryKey: keys.titles });
    },
  });
  return (
    <>
      <h2>The draft</h2>
      <label className="form-label" htmlFor="adopt-document">
        Correct what is wrong; remove what you do not want
      </label>
      <textarea
        id="adopt-document"
        className="form-control font-monospace"
        rows={Math.min(28, document.split('\n').length)}
        value={document}
        spellCheck={false}
        onChange={(event) => setDocument(event.target.value)}
      />
      {take.error && <ProblemNote error={take.error} />}
      <button
        type="button"
        className="btn btn-primary mt-3"
        disabled={take.isPending}
        onClick={() => take.mutate()}
      >
        Add it to the roster
      </button>
      <Evidence draft={draft} />
    </>
  );
}

function Evidence({ draft: { evidence, open } }: { draft: TitleDraft }) {
  return (
    <>
      <h2>What is left out, and why</h2>
      {open.length === 0 ? (
        <p>Nothing: everything in the trees is in the draft.</p>
      ) : (
        <ul>
          {open.map(({ what, why, place }) => (
            <li key={`${what} ${why}`}>
              <strong>{what}.</strong> {why}{' '}
              {place && (
                <span className="place soft">
                  {place.path}:{place.line}
                </span>
              )}
            </li>
          ))}
        </ul>
      )}
      <h2>What the draft is based on</h2>
      <table className="ledger">
        <thead>
          <tr>
            <th>Confidence</th>
            <th>Field</th>
            <th>Value</th>
            <th>Why</th>
          </tr>
        </thead>
        <tbody>
          {evidence.map(({ field, value, confidence, why, place }) => (
            <tr key={`${field} ${value}`}>
              <td className="text-nowrap">
                {shapes[confidence]} {confidence}
              </td>
              <td>
                <code>{field}</code>
              </td>
              <td>
                <code>{value}</code>
              </td>
              <td>
                {why}{' '}
                {place && (
                  <span className="place soft">
                    {place.path}:{place.line}
                  </span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
