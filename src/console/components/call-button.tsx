import type { UseMutationResult } from '@tanstack/react-query';
import type { CallError } from '../api.js';
import { ProblemNote } from './states.js';

interface CallButtonProps {
  call: UseMutationResult<unknown, CallError, void>;
  label: string;
  /** What it says while the call is under way. */
  busy: string;
  look?: 'primary' | 'outline-primary' | 'outline-secondary';
  isDisabled?: boolean;
}

/** A button that makes a call, and what went wrong with it. */
export function CallButton({ call, label, busy, look = 'outline-secondary', isDisabled }: CallButtonProps) {
  return (
    <>
      <button
        type="button"
        className={`btn btn-sm btn-${look}`}
        disabled={isDisabled === true || call.isPending}
        onClick={() => call.mutate()}
      >
        {call.isPending ? busy : label}
      </button>
      {call.error && <ProblemNote error={call.error} />}
    </>
  );
}
