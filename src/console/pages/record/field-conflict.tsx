import { ConflictNote } from '../../components/conflict-note.js';
import type { Draft } from './use-draft.js';

/** The conflict of one field of a form, when it has one. */
export function FieldConflict({ label, field, draft }: { label: string; field: string; draft: Draft }) {
  const conflict = draft.conflicts.get(field);
  if (!conflict) return null;
  return <ConflictNote label={label} {...conflict} settle={(keep) => draft.settle(field, keep)} />;
}
