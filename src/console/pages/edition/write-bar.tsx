import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { LinkedTree, WiringAnswer } from '../../../api/trees.js';
import { call, type CallError } from '../../api.js';
import { ProblemNote } from '../../components/states.js';

interface WriteBarProps {
  /** What would be written; undefined while it is being computed. */
  wanted: WiringAnswer | undefined;
  title: string;
  none?: boolean;
  linked: LinkedTree | undefined;
  /** There is a linked tree, but the last reading was of another one. */
  isOther: boolean;
  /** The command that does the same; `DIR` means the folder if none is linked. */
  command: (folder: string) => string;
}

function destinationText(linked: LinkedTree | undefined, isOther: boolean): string {
  if (linked) return `into ${linked.path}: all of them, or none`;
  if (isOther) return 'The last reading was of another tree. Read the linked tree again to write from here.';
  return 'This tree was sent, not linked, so write the edits on the machine that has it.';
}

/** The button that writes, the patch file, and the command that does the same. */
export function WriteBar({ wanted, title, none = false, linked, isOther, command }: WriteBarProps) {
  const client = useQueryClient();
  const apply = useMutation<unknown, CallError>({
    mutationFn: () =>
      call('applyWiring', { params: { tree: linked?.id ?? '' }, body: { wiring: wanted?.id ?? '' } }),
    onSuccess: () => client.invalidateQueries(),
  });
  const ready = wanted !== undefined && !none && !apply.isPending;
  const files = wanted?.edits.length ?? 0;
  const label = files === 1 ? 'Write this 1 file' : `Write these ${files} files`;
  return (
    <div className="mb-3">
      <div className="d-flex flex-wrap gap-3 align-items-center mb-2">
        {linked && (
          <button type="button" className="btn btn-primary" disabled={!ready} onClick={() => apply.mutate()}>
            {apply.isPending ? 'Writing…' : none ? 'Nothing is chosen' : label}
          </button>
        )}
        <span className="soft">{destinationText(linked, isOther)}</span>
        {wanted && !none && (
          <a
            className="btn btn-sm btn-outline-secondary"
            download={`${title}.patch`}
            href={`data:text/x-diff;charset=utf-8,${encodeURIComponent(wanted.patch)}`}
          >
            Patch file
          </a>
        )}
      </div>
      {!none && (
        <p className="mb-0">
          <span className="soft">In a terminal:</span>{' '}
          <code className="command">{command(linked?.path ?? 'DIR')}</code>
        </p>
      )}
      {apply.error && <ProblemNote error={apply.error} />}
    </div>
  );
}
