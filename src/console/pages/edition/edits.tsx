import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { LinkedTree, WiringAnswer } from '../../../api/trees.js';
import { call, type CallError } from '../../api.js';
import type { PlatformName } from '../../components/platform-names.js';
import { Shown } from '../../components/shown.js';
import { useAddress } from '../../components/use-address.js';
import { ProblemNote, State } from '../../components/states.js';
import { keys, useTrees, useWiring, useWiringPart, type Question } from '../../queries.js';
import { EditGroups } from './edit-groups.js';
import { TakeBack } from './take-back.js';

/** The edits that would fix it, part by part, and the button that writes them into a linked tree. */
export function EditsView({ platform, question }: { platform: PlatformName; question: Question }) {
  const trees = useTrees();
  const linked = trees.data?.find((tree) => tree.title === question.title);
  const same = linked?.snapshot === question.snapshot;
  return (
    <Shown answer={useWiring(question)}>
      {(wiring) => (
        <Edits
          key={wiring.id}
          wiring={wiring}
          platform={platform}
          question={question}
          linked={same ? linked : undefined}
          other={linked !== undefined && !same}
        />
      )}
    </Shown>
  );
}

interface EditsProps {
  wiring: WiringAnswer;
  platform: PlatformName;
  question: Question;
  /** The linked tree, when it is the one that the edits are for. */
  linked: LinkedTree | undefined;
  /** There is a linked tree, but the last reading was of another one. */
  other: boolean;
}

function Edits({ wiring, platform, question, linked, other }: EditsProps) {
  const [search, set] = useAddress();
  const [left, setLeft] = useState<ReadonlySet<string>>(
    () => new Set(search.get('without')?.split(',').filter(Boolean)),
  );
  const groups = wiring.groups.map(({ id }) => id);
  const chosen = groups.filter((id) => !left.has(id));
  const whole = chosen.length === groups.length;
  const part = useWiringPart(question, whole || chosen.length === 0 ? null : chosen);
  const wanted = whole ? wiring : part.data;
  const steps = wiring.byHand.filter((step) => step.platform === platform || step.platform === null);
  const choose = (id: string, on: boolean) => {
    const next = new Set(left);
    if (on) next.delete(id);
    else next.add(id);
    setLeft(next);
    // Part of the address too, so that it stays on reload.
    set({ without: [...next].join(',') });
  };
  return (
    <>
      {groups.length === 0 ? (
        <p>
          <State tone="good" shape="●">
            The tree agrees with the record: there is nothing to write.
          </State>
        </p>
      ) : (
        <WriteBar
          wanted={wanted}
          title={question.title}
          parts={whole ? [] : chosen}
          none={chosen.length === 0}
          linked={linked}
          other={other}
        />
      )}
      {part.error && <ProblemNote error={part.error} />}
      {linked && <TakeBack tree={linked} title={question.title} />}
      <EditGroups wiring={wiring} platform={platform} left={left} choose={choose} />
      {steps.length > 0 && (
        <section aria-label="Left to you">
          <h2>Left to you</h2>
          <ul>
            {steps.map(({ what, why, where }) => (
              <li key={`${what} ${why} ${where}`}>
                {what} <span className="soft">{why}</span> {where && <code>{where}</code>}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

function destinationText(linked: LinkedTree | undefined, other: boolean): string {
  if (linked) return `into ${linked.path}: all of them, or none`;
  if (other) return 'The last reading was of another tree. Read the linked tree again to write from here.';
  return 'This tree was sent, not linked, so the edits are written where it is.';
}

interface WriteBarProps {
  /** What would be written; undefined while it is being computed. */
  wanted: WiringAnswer | undefined;
  title: string;
  /** The parts that are chosen; none when all are. */
  parts: readonly string[];
  none: boolean;
  linked: LinkedTree | undefined;
  other: boolean;
}

/** The button that writes, the patch file, and the command that does the same. */
function WriteBar({ wanted, title, parts, none, linked, other }: WriteBarProps) {
  const client = useQueryClient();
  const apply = useMutation<unknown, CallError>({
    mutationFn: () =>
      call('applyWiring', { params: { tree: linked?.id ?? '' }, body: { wiring: wanted?.id ?? '' } }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: keys.trees });
      await client.invalidateQueries({ queryKey: keys.board(title) });
      await client.invalidateQueries({ queryKey: keys.writes(linked?.id ?? '') });
    },
  });
  const chosen = parts.map((id) => ` --part ${id}`).join('');
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
        <span className="soft">{destinationText(linked, other)}</span>
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
          <code className="command">
            syndexa wire {linked?.path ?? 'DIR'} --title {title}
            {chosen} --write
          </code>
        </p>
      )}
      {apply.error && <ProblemNote error={apply.error} />}
    </div>
  );
}
