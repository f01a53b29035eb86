import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { AnswerOf } from '../../api/routes.js';
import { call, type CallError } from '../api.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { ProblemNote } from './states.js';

interface FolderPickerProps {
  chosen: readonly string[];
  choose: (path: string, on: boolean) => void;
}

/** Folders below the roots of the service, to go into and to choose from. What a chosen one holds is read and shown. */
export function FolderPicker({ chosen, choose }: FolderPickerProps) {
  const [path, setPath] = useState<string>();
  const found = useQuery<AnswerOf<'listFolders'>, CallError>({
    queryKey: ['folders', path],
    queryFn: () => call('listFolders', { query: path === undefined ? {} : { path } }),
  });
  if (found.error) return <ProblemNote error={found.error} />;
  if (!found.data) return <p className="soft">Reading the folders…</p>;
  const { path: here, parent, folders, more } = found.data;
  return (
    <div className="folders" role="group" aria-label="Folders below the roots of the service">
      <div className="folders-here">
        {here === null ? (
          <span className="soft">the roots of this service</span>
        ) : (
          <>
            <button
              type="button"
              className="btn btn-sm btn-outline-secondary"
              onClick={() => setPath(parent ?? undefined)}
            >
              ↑ up
            </button>{' '}
            <code>{here}</code>
          </>
        )}
      </div>
      {folders.length === 0 && <p className="soft">This folder has no subfolders.</p>}
      <ul>
        {folders.map(({ name, path: below }) => (
          <li key={below}>
            <label>
              <input
                type="checkbox"
                className="form-check-input"
                checked={chosen.includes(below)}
                onChange={(event) => choose(below, event.target.checked)}
              />{' '}
              <span className="visually-hidden">take </span>
              {name}
            </label>{' '}
            <button
              type="button"
              className="btn btn-sm btn-link"
              aria-label={`Open ${name}`}
              onClick={() => setPath(below)}
            >
              open ›
            </button>
            {chosen.includes(below) && <Holds path={below} />}
          </li>
        ))}
      </ul>
      {more > 0 && <p className="soft">{more} more are not listed: type the path.</p>}
    </div>
  );
}

/** What a folder holds, as the build tools will read it. */
function Holds({ path }: { path: string }) {
  const found = useQuery<AnswerOf<'survey'>, CallError>({
    queryKey: ['folders', 'holds', path],
    queryFn: async () => {
      const { snapshot } = await call('openFolder', { body: { path } });
      return call('survey', { params: { snapshot }, body: { title: null } });
    },
  });
  if (found.error) return <span className="state state-bad">{found.error.problem.detail}</span>;
  if (!found.data) return <span className="soft"> reading…</span>;
  const { stacks, editions } = found.data;
  if (stacks.length === 0) return <span className="state state-open"> no application</span>;
  return (
    <span className="soft">
      {' '}
      {[...new Set(stacks.map(({ stack }) => stack))].join(', ')}
      {editions.length > 0 &&
        `: ${editions.map(({ platform, identifier }) => `${platformLabels[platform]} ${identifier ?? 'with an unknown identifier'}`).join(', ')}`}
    </span>
  );
}
