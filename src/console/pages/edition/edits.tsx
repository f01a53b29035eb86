import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { LinkedTree, WiringAnswer } from '../../../api/trees.js';
import { call, type CallError } from '../../api.js';
import { Diff } from '../../components/diff.js';
import type { PlatformName } from '../../components/platform-names.js';
import { Shown } from '../../components/shown.js';
import { ProblemNote } from '../../components/states.js';
import { keys, useTrees, useWiring, type Question } from '../../queries.js';

/** The edits that would mend it, and the button that writes them into a linked tree. */
export function EditsView({ platform, question }: { platform: PlatformName; question: Question }) {
  const trees = useTrees();
  const linked = trees.data?.find((tree) => tree.title === question.title);
  const same = linked?.snapshot === question.snapshot;
  return (
    <Shown answer={useWiring(question)}>
      {(wiring) => (
        <Edits
          wiring={wiring}
          platform={platform}
          linked={same ? linked : undefined}
          other={linked !== undefined && !same}
          title={question.title}
        />
      )}
    </Shown>
  );
}

function whereTo(linked: LinkedTree | undefined, other: boolean): string {
  if (linked) return `into ${linked.path}: all of them, or none`;
  if (other) return 'The last reading was of another tree. Read the linked tree again to write from here.';
  return 'This tree was sent, not linked, so the edits are written where it lies.';
}

interface EditsProps {
  wiring: WiringAnswer;
  platform: PlatformName;
  /** The linked tree, when it is the one that the edits are for. */
  linked: LinkedTree | undefined;
  /** There is a linked tree, but the last reading was of another one. */
  other: boolean;
  title: string;
}

function Edits({ wiring, platform, linked, other, title }: EditsProps) {
  const client = useQueryClient();
  const apply = useMutation<unknown, CallError>({
    mutationFn: () =>
      call('applyWiring', { params: { tree: linked?.id ?? '' }, body: { wiring: wiring.id } }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: keys.trees });
      await client.invalidateQueries({ queryKey: keys.board(title) });
    },
  });
  const steps = wiring.byHand.filter((step) => step.platform === platform || step.platform === null);
  return (
    <>
      {wiring.edits.length === 0 ? (
        <p className="state state-good">
          <span className="shape">●</span>The tree agrees with the record: there is nothing to write.
        </p>
      ) : (
        <div className="d-flex flex-wrap gap-3 align-items-center mb-3">
          {linked ? (
            <button
              type="button"
              className="btn btn-primary"
              disabled={apply.isPending}
              onClick={() => apply.mutate()}
            >
              {apply.isPending ? 'Writing…' : `Write these ${wiring.edits.length} files`}
            </button>
          ) : (
            <code>syndexa wire DIR --title {title} --write</code>
          )}
          <span className="soft">{whereTo(linked, other)}</span>
          <a
            className="btn btn-sm btn-outline-secondary"
            download={`${title}.patch`}
            href={`data:text/x-diff;charset=utf-8,${encodeURIComponent(wiring.patch)}`}
          >
            Patch file
          </a>
        </div>
      )}
      {apply.error && <ProblemNote error={apply.error} />}
      {steps.length > 0 && (
        <section aria-label="Left to you">
          <h2>Left to you</h2>
          <ul>
            {steps.map(({ what, why, where }) => (
              <li key={`${what} ${why}`}>
                {what} <span className="soft">{why}</span> {where && <code>{where}</code>}
              </li>
            ))}
          </ul>
        </section>
      )}
      {wiring.edits.length > 0 && <h2>The edits</h2>}
      <Diff patch={wiring.patch} edits={wiring.edits} />
    </>
  );
}
