import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { counted } from '../../../core/text/counted.js';
import type { ThreeWayChange } from '../../../core/roster/compare.js';
import { readRoster, writeRoster } from '../../../core/roster/document.js';
import { mergeIntoRecord, type Settled } from '../../../core/roster/merge-changes.js';
import type { CallError } from '../../api.js';
import { call } from '../../api.js';
import { ThreeWayTable } from '../../components/change-tables.js';
import { ProblemNote } from '../../components/states.js';

interface MergeProps {
  /** The document, which was written from an earlier record. */
  document: string;
  changes: readonly ThreeWayChange[];
  merged: (document: string) => void;
}

/** Brings a document up to the record: what only one side changed is taken, and a person chooses where both did. */
export function Merge({ document, changes, merged }: MergeProps) {
  const [settled, setSettled] = useState<Settled>(new Map());
  const conflicts = changes.filter(({ conflict }) => conflict);
  const open = conflicts.filter(({ path }) => !settled.has(path)).length;
  const merge = useMutation<string, CallError>({
    mutationFn: async () => {
      const { document: current } = await call('exportRoster');
      const { roster } = readRoster(current);
      if (!roster) throw new Error('The record could not be written as a document.');
      // The comments of the document stay.
      return writeRoster(mergeIntoRecord(roster, changes, settled), document);
    },
    onSuccess: merged,
  });
  if (changes.length === 0) return null;
  return (
    <section aria-label="Update the document from the record">
      <h2>What changed since the document was written</h2>
      <p className="soft">
        What only one side changed is kept.{' '}
        {conflicts.length > 0 && 'Choose where both sides changed a field.'}
      </p>
      <ThreeWayTable
        changes={changes}
        settled={settled}
        settle={(path, side) => setSettled(new Map([...settled, [path, side]]))}
      />
      {merge.error && <ProblemNote error={merge.error} />}
      <button
        type="button"
        className="btn btn-outline-primary mt-2"
        disabled={open > 0 || merge.isPending}
        onClick={() => merge.mutate()}
      >
        {open > 0
          ? `${counted(open, 'field is', 'fields are')} still to choose`
          : 'Update the document from the record'}
      </button>
    </section>
  );
}
