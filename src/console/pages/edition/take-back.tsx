import { useMutation, useQueryClient } from '@tanstack/react-query';
import { counted } from '../../../core/text/counted.js';
import type { LinkedTree } from '../../../api/trees.js';
import { call, type CallError } from '../../api.js';
import { CallButton } from '../../components/call-button.js';
import { useWrites } from '../../queries.js';

/** What taking a write back does to a file. */
const outcomes = { new: 'is removed', changed: 'is as it was', removed: 'is restored' } as const;

/** The last write into the tree, with what taking it back would restore; nothing where none can be. */
export function TakeBack({ tree }: { tree: LinkedTree }) {
  const client = useQueryClient();
  const writes = useWrites(tree.id);
  const undo = useMutation<unknown, CallError>({
    mutationFn: () => call('undoWrite', { params: { tree: tree.id } }),
    onSuccess: () => client.invalidateQueries(),
  });
  const [last, ...earlier] = writes.data ?? [];
  if (!last) return null;
  const more = earlier.length === 0 ? '' : `; ${earlier.length} earlier writes can be undone after it`;
  return (
    <section aria-label="Take back" className="mb-3">
      <div className="d-flex flex-wrap gap-3 align-items-center">
        <CallButton call={undo} label="Undo the last write" busy="Taking back…" />
        <span className="soft">
          {last.what}, {last.at.slice(0, 16).replace('T', ' ')}
          {more}
        </span>
      </div>
      <details>
        <summary>What that restores: {counted(last.files.length, 'file')}</summary>
        <ul className="mb-0">
          {last.files.map(({ path, change }) => (
            <li key={path}>
              <span className="place">{path}</span> <span className="soft">{outcomes[change]}</span>
            </li>
          ))}
        </ul>
      </details>
    </section>
  );
}
