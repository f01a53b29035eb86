import type { ReactNode } from 'react';
import type { CallError } from '../api.js';
import { ProblemNote, State } from './states.js';

/** Shows an answer when it is there, and says what happens until then. */
export function Shown<Data>({
  answer,
  children,
}: {
  answer: {
    status: string;
    data?: Data;
    error: CallError | null;
    refetch: () => unknown;
    /** Whether this is an earlier answer, shown until the new one is there. */
    isPlaceholderData?: boolean;
  };
  children: (data: Data) => ReactNode;
}) {
  if (answer.error) return <ProblemNote error={answer.error} />;
  if (answer.data === undefined) return <p className="soft">Reading…</p>;
  return (
    <>
      {answer.isPlaceholderData && <Behind />}
      {children(answer.data)}
    </>
  );
}

function Behind() {
  return (
    <p role="status">
      <State tone="open" shape="↻">
        Something changed: this is how it was, and is looked into again…
      </State>
    </p>
  );
}
