import { useEffect, useRef, useState } from 'react';

interface ConfirmedProps {
  label: string;
  /** The accessible name of the button, if the label alone is not clear. */
  name?: string;
  /** What is asked before it is done. */
  question: string;
  isPending?: boolean;
  act: () => void;
}

/** A button that asks for confirmation. The focus moves to the answer, and back to the button. */
export function Confirmed({ label, name = label, question, isPending = false, act }: ConfirmedProps) {
  const [isAsked, ask] = useState(false);
  const answer = useRef<HTMLButtonElement>(null);
  const button = useRef<HTMLButtonElement>(null);
  const wasAsked = useRef(false);
  useEffect(() => {
    if (isAsked) answer.current?.focus();
    else if (wasAsked.current) button.current?.focus();
    wasAsked.current = isAsked;
  }, [isAsked]);
  if (!isAsked)
    return (
      <button
        ref={button}
        type="button"
        className="btn btn-sm btn-outline-secondary"
        aria-label={name}
        disabled={isPending}
        onClick={() => ask(true)}
      >
        {label}
      </button>
    );
  return (
    <span
      className="confirmed"
      role="group"
      aria-label={name}
      onKeyDown={(event) => event.key === 'Escape' && ask(false)}
    >
      {question}{' '}
      <button
        ref={answer}
        type="button"
        className="btn btn-sm btn-outline-danger"
        onClick={() => {
          ask(false);
          act();
        }}
      >
        Yes
      </button>{' '}
      <button type="button" className="btn btn-sm btn-outline-secondary" onClick={() => ask(false)}>
        No
      </button>
    </span>
  );
}
