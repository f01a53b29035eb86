import { useState, type ReactNode } from 'react';
import type { CallError } from '../api.js';
import { ProblemNote } from './states.js';
import { TreeChoice } from './tree-choice.js';
import { useReading } from './use-reading.js';
import { Working } from './working.js';

interface TreeReaderProps {
  label: string;
  /** The call with the snapshot that was read, and its state. */
  then: (snapshot: string) => void;
  call: { isPending: boolean; error: CallError | null };
  /** What the label says while that call is under way. */
  busy?: string;
  /** Files that hold one of these texts are read too. */
  needles?: readonly string[];
  /** More controls, before the tree. */
  children?: ReactNode;
}

/** Chooses a source tree and reads it; a long reading shows how far it is and can be cancelled. */
export function TreeReader({ label, then, call, busy = label, needles = [], children }: TreeReaderProps) {
  const [path, setPath] = useState('');
  const reading = useReading();
  const start = async () => {
    const snapshot = await reading.read(path, needles);
    if (snapshot !== undefined) then(snapshot);
  };
  const error = reading.error ?? call.error;
  return (
    <>
      <div className="controls">
        {children}
        <TreeChoice path={path} set={setPath} />
        <button
          type="button"
          className="btn btn-sm btn-outline-primary"
          disabled={path === '' || reading.isPending || call.isPending}
          onClick={() => void start()}
        >
          {call.isPending ? busy : label}
        </button>
      </div>
      {reading.isPending && <Working progress={reading.progress} cancel={reading.cancel} />}
      {error && <ProblemNote error={error} />}
    </>
  );
}
