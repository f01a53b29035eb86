import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { counted } from '../../core/text/counted.js';
import type { HistoryEntry } from '../../api/titles.js';
import { fieldLines, type FieldLine } from '../../core/roster/field-changes.js';
import { call, type CallError } from '../api.js';
import { Controls, Finder } from '../components/controls.js';
import { Heading } from '../components/heading.js';
import { Empty, Failure, Loading, ProblemNote } from '../components/states.js';
import { useAddress } from '../components/use-address.js';
import { keys, usePages, useTitles } from '../queries.js';

/** What changed in a title: who, when, what was, what is; and the way back. */
export function HistoryPage() {
  const { title = '' } = useParams();
  const [search, set] = useAddress();
  const find = search.get('find') ?? '';
  const name = useTitles().data?.find(({ id }) => id === title)?.name ?? title;
  const found = usePages('titleHistory', [...keys.title(title), 'history'], { params: { title } });
  if (found.status === 'pending') return <Loading what="what changed" />;
  if (found.status === 'error') return <Failure error={found.error} again={() => void found.refetch()} />;
  const wanted = find.trim().toLowerCase();
  const shown = found.entries.filter(
    (entry) => wanted === '' || JSON.stringify(entry).toLowerCase().includes(wanted),
  );
  return (
    <main className="page">
      <Heading>What changed in {name}, and who changed it?</Heading>
      <Controls name="Changes">
        <Finder label="Find a field, a value, a person" value={find} set={(text) => set({ find: text })} />
        <span className="soft" role="status">
          {counted(shown.length, 'change')}
        </span>
      </Controls>
      {shown.length === 0 && <Empty>No change matches.</Empty>}
      {shown.map((entry) => (
        <Change key={entry.revision} title={title} entry={entry} />
      ))}
      {found.hasNextPage && (
        <button
          type="button"
          className="btn btn-outline-primary mt-3"
          disabled={found.isFetchingNextPage}
          onClick={() => void found.fetchNextPage()}
        >
          {found.isFetchingNextPage ? 'Reading…' : 'Show earlier changes'}
        </button>
      )}
    </main>
  );
}

/** More fields of one change than this are folded. */
const unfolded = 6;

function Change({ title, entry }: { title: string; entry: HistoryEntry }) {
  const client = useQueryClient();
  const { revision, at, who, path, was, is } = entry;
  const lines = fieldLines(was, is, path.replace(`titles.${title}`, '').replace(/^\./, ''));
  const revert = useMutation<unknown, CallError>({
    mutationFn: () => call('revertChange', { params: { title, revision: String(revision) }, body: {} }),
    onSuccess: () => client.invalidateQueries(),
  });
  // What added the title is taken back by taking it out.
  const canRevert = path !== `titles.${title}` || (was !== null && was !== undefined);
  return (
    <article className="change" aria-label={`Change ${revision}`}>
      <header>
        <strong>{who}</strong>
        <time className="soft" dateTime={at}>
          {new Date(at).toLocaleString()}
        </time>
        <span className="soft">change {revision}</span>
        {canRevert && (
          <button
            type="button"
            className="btn btn-sm btn-outline-secondary"
            aria-label={`Revert change ${revision}`}
            disabled={revert.isPending}
            onClick={() => revert.mutate()}
          >
            Revert
          </button>
        )}
      </header>
      <Lines lines={lines.slice(0, unfolded)} />
      {lines.length > unfolded && (
        <details>
          <summary className="soft">and {lines.length - unfolded} more fields</summary>
          <Lines lines={lines.slice(unfolded)} />
        </details>
      )}
      {revert.error && <ProblemNote error={revert.error} />}
    </article>
  );
}

function Lines({ lines }: { lines: readonly FieldLine[] }) {
  return (
    <ul className="change-lines">
      {lines.map(({ field, was, is }) => (
        <li key={field}>
          <code>{field}</code>: {was === undefined ? '' : <del>{was}</del>}{' '}
          {is === undefined ? '' : <ins>{is}</ins>}
        </li>
      ))}
    </ul>
  );
}
