import { useState } from 'react';
import type { LinkedTree, WiringAnswer } from '../../../api/trees.js';
import type { Platform } from '../../../core/words/words.js';
import { Shown } from '../../components/shown.js';
import { useAddress } from '../../components/use-address.js';
import { LeftToYou } from '../../components/left-to-you.js';
import { ProblemNote, State } from '../../components/states.js';
import { useWiring, useWiringPart, type Question } from '../../tree-queries.js';
import { EditGroups } from './edit-groups.js';
import { TakeBack } from './take-back.js';
import { useLinked } from '../../components/use-linked.js';
import { WriteBar } from './write-bar.js';

/** The edits that would fix it, part by part, and the button that writes them into a linked tree. */
export function EditsView({ platform, question }: { platform: Platform; question: Question }) {
  const { linked, isOther } = useLinked(question);
  return (
    <Shown answer={useWiring(question)}>
      {(wiring) => (
        <Edits
          key={wiring.id}
          wiring={wiring}
          platform={platform}
          question={question}
          linked={linked}
          isOther={isOther}
        />
      )}
    </Shown>
  );
}

interface EditsProps {
  wiring: WiringAnswer;
  platform: Platform;
  question: Question;
  /** The linked tree, when it is the one that the edits are for. */
  linked: LinkedTree | undefined;
  /** There is a linked tree, but the last reading was of another one. */
  isOther: boolean;
}

function Edits({ wiring, platform, question, linked, isOther }: EditsProps) {
  const [search, set] = useAddress();
  const [left, setLeft] = useState<ReadonlySet<string>>(
    () => new Set(search.get('without')?.split(',').filter(Boolean)),
  );
  const groups = wiring.groups.map(({ id }) => id);
  const chosen = groups.filter((id) => !left.has(id));
  const whole = chosen.length === groups.length;
  const part = useWiringPart(question, whole || chosen.length === 0 ? null : chosen);
  const wanted = whole ? wiring : part.data;
  const parts = whole ? '' : chosen.map((id) => ` --part ${id}`).join('');
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
          none={chosen.length === 0}
          linked={linked}
          isOther={isOther}
          command={(folder) => `syndexa wire ${folder} --title ${question.title}${parts} --write`}
        />
      )}
      {part.error && <ProblemNote error={part.error} />}
      {linked && <TakeBack tree={linked} />}
      <EditGroups wiring={wiring} platform={platform} question={question} left={left} choose={choose} />
      <LeftToYou steps={steps} />
    </>
  );
}
