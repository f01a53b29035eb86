import { Confirmed } from '../../components/confirmed.js';

/** The button that puts a draft in place; where there is one already, it asks first. */
export function DraftIt({
  hasText,
  isPending,
  act,
}: {
  hasText: boolean;
  isPending: boolean;
  act: () => void;
}) {
  if (hasText)
    return (
      <Confirmed label="Draft it again" question="Replace the draft below?" isPending={isPending} act={act} />
    );
  return (
    <button type="button" className="btn btn-sm btn-primary" disabled={isPending} onClick={act}>
      Draft it
    </button>
  );
}
