import { useMutation, useQueryClient } from '@tanstack/react-query';
import { counted } from '../../core/text/counted.js';
import type { LinkedTree } from '../../api/trees.js';
import { call, type CallError } from '../api.js';
import { useTrees } from '../queries.js';
import { CallButton } from './call-button.js';

/** A write to a linked tree that was interrupted: until it is settled, what is read of that tree may be half of it. */
export function Interrupted({ title }: { title: string }) {
  const trees = useTrees().data ?? [];
  return trees
    .filter((tree) => tree.title === title && tree.interrupted !== null)
    .map((tree) => <Settle key={tree.id} tree={tree} />);
}

function Settle({ tree: { id, path, title, interrupted } }: { tree: LinkedTree }) {
  const client = useQueryClient();
  const undo = useMutation<unknown, CallError>({
    mutationFn: () => call('undoWrite', { params: { tree: id } }),
    onSuccess: () => client.invalidateQueries(),
  });
  if (!interrupted) return null;
  const { what, at, files } = interrupted;
  return (
    <div className="problem" role="alert">
      <strong>
        A write to {path} was interrupted ({what}, {at.slice(0, 16).replace('T', ' ')}).
      </strong>
      <div>
        Until it is settled, the tree may contain only part of it ({counted(files.length, 'file')}). Take it
        back here or with <code>syndexa undo {path}</code>, or finish it with{' '}
        <code>
          syndexa wire {path} --title {title} --write
        </code>
        .
      </div>
      <div className="mt-2">
        <CallButton call={undo} label="Undo the interrupted write" busy="Taking it back…" />
      </div>
    </div>
  );
}
