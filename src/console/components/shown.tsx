import type { ReactNode } from 'react';
import type { CallError } from '../api.js';
import { ProblemNote } from './states.js';

/** Shows an answer when it is there, and says what happens until then. */
export function Shown<Data>({
  answer,
  children,
}: {
  answer: { status: string; data?: Data; error: CallError | null; refetch: () => unknown };
  children: (data: Data) => ReactNode;
}) {
  if (answer.error) return <ProblemNote error={answer.error} />;
  if (answer.data === undefined) return <p className="soft">Reading…</p>;
  return <>{children(answer.data)}</>;
}
