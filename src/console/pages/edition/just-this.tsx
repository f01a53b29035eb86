import { useState } from 'react';
import type { WiringGroup } from '../../../core/edits/model.js';
import { Diff } from '../../components/diff.js';
import { ProblemNote } from '../../components/states.js';
import { useWiring, useWiringPart, type Question } from '../../tree-queries.js';
import { useLinked } from '../../components/use-linked.js';
import { WriteBar } from './write-bar.js';

interface JustThisProps {
  question: Question;
  /** Which groups of the whole wiring it takes. */
  pick: (group: WiringGroup) => boolean;
  /** What it is, for a screen reader. */
  name: string;
}

/** Some of the edits: a preview, and the button that writes only them. */
export function JustThis({ question, pick, name }: JustThisProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary aria-label={`Write just this: ${name}`}>write just this</summary>
      {isOpen && <Part question={question} pick={pick} />}
    </details>
  );
}

function Part({ question, pick }: Pick<JustThisProps, 'question' | 'pick'>) {
  const { linked, isOther } = useLinked(question);
  const wiring = useWiring(question);
  const groups = wiring.data?.groups.filter(pick).map(({ id }) => id) ?? [];
  const part = useWiringPart(question, groups.length === 0 ? null : groups);
  const error = wiring.error ?? part.error;
  if (error) return <ProblemNote error={error} />;
  if (wiring.data && groups.length === 0)
    return <p className="soft">It is part of no group of edits: write them all together.</p>;
  if (!part.data) return <p className="soft">Planning the edits…</p>;
  const chosen = groups.map((id) => ` --part ${id}`).join('');
  return (
    <>
      <WriteBar
        wanted={part.data}
        title={question.title}
        linked={linked}
        isOther={isOther}
        command={(folder) => `syndexa wire ${folder} --title ${question.title}${chosen} --write`}
      />
      <Diff patch={part.data.patch} edits={part.data.edits} />
    </>
  );
}
