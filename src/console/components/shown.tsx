import type { ReactNode } from 'react';
import type { Progress } from '../../core/text/progress.js';
import type { CallError } from '../api.js';
import { ProblemNote, State } from './states.js';
import { Working } from './working.js';

/** Shows a result when it arrives, and the progress until then. */
export function Shown<Data>({
  answer,
  children,
}: {
  answer: {
    status: string;
    data?: Data;
    error: CallError | null;
    refetch: () => unknown;
    /** Whether this is an earlier result, shown until the new one arrives. */
    isPlaceholderData?: boolean;
    fetchStatus?: string;
    /** Of an answer that may take long: how far it is, and what ends it. */
    progress?: Progress | null;
    cancel?: () => void;
  };
  children: (data: Data) => ReactNode;
}) {
  if (answer.error) return <ProblemNote error={answer.error} />;
  if (answer.data === undefined) return <Waiting {...answer} />;
  return (
    <>
      {answer.isPlaceholderData && <Behind />}
      {children(answer.data)}
    </>
  );
}

interface WaitingProps {
  refetch: () => unknown;
  fetchStatus?: string;
  progress?: Progress | null;
  cancel?: () => void;
}

function Waiting({ refetch, fetchStatus, progress = null, cancel }: WaitingProps) {
  if (cancel && fetchStatus === 'idle')
    return (
      <p>
        It was cancelled.{' '}
        <button type="button" className="btn btn-sm btn-outline-secondary" onClick={() => void refetch()}>
          Try again
        </button>
      </p>
    );
  if (cancel && progress) return <Working progress={progress} cancel={cancel} />;
  return <p className="soft">Reading…</p>;
}

function Behind() {
  return (
    <p role="status">
      <State tone="open" shape="↻">
        Something changed. This is the earlier result; updating…
      </State>
    </p>
  );
}
