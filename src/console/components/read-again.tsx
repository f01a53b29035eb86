import { useLongCall } from '../long-call.js';
import { ProblemNote } from './states.js';
import { Working } from './working.js';

/** A button that reads a linked tree again and checks it; a long reading shows how far it is and can be cancelled. */
export function ReadAgain({ tree, label }: { tree: string; label: string }) {
  const reading = useLongCall('readTree');
  if (reading.isPending) return <Working progress={reading.progress} cancel={reading.cancel} />;
  return (
    <>
      <button
        type="button"
        className="btn btn-sm btn-outline-secondary"
        onClick={() => void reading.run({ params: { tree } })}
      >
        {label}
      </button>
      {reading.error && <ProblemNote error={reading.error} />}
    </>
  );
}
