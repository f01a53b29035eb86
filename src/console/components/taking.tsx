import { useMutation, useQueryClient } from '@tanstack/react-query';
import { counted } from '../../core/text/counted.js';
import type { BodyOf } from '../../api/routes.js';
import type { RosterImported } from '../../api/titles.js';
import { call, type CallError } from '../api.js';
import { ChangeTable } from './change-tables.js';
import { Done, ProblemNote } from './states.js';

/** What is taken into the record: a roster document, and the profiles that belong to it. */
export type Incoming = Omit<BodyOf<'importRoster'>, 'dryRun'>;

interface Trial {
  incoming: Incoming;
  answer: RosterImported;
}

/** A change of the record as a document: it is shown first, then taken in. */
export interface Taking {
  preview: () => void;
  apply: () => void;
  /** What was previewed is of no use any more. */
  forget: () => void;
  previewed: RosterImported | undefined;
  taken: RosterImported | undefined;
  error: CallError | null;
  isPending: boolean;
}

/**
 * Previews a change of the record, then makes it: what is taken in is what was previewed, byte for byte.
 * @param make makes the document, from the record as it is then
 */
export function useTaking(make: () => Promise<Incoming> | Incoming, done?: () => void): Taking {
  const client = useQueryClient();
  const trial = useMutation<Trial, CallError>({
    mutationFn: async () => {
      const incoming = await make();
      return { incoming, answer: await call('importRoster', { body: { ...incoming, dryRun: true } }) };
    },
  });
  const real = useMutation<RosterImported, CallError, Incoming>({
    mutationFn: (incoming) => call('importRoster', { body: { ...incoming, dryRun: false } }),
    onSuccess: () => {
      trial.reset();
      done?.();
      return client.invalidateQueries();
    },
  });
  return {
    preview: () => {
      real.reset();
      trial.mutate();
    },
    apply: () => trial.data && real.mutate(trial.data.incoming),
    forget: () => {
      trial.reset();
      real.reset();
    },
    previewed: real.data ? undefined : trial.data?.answer,
    taken: real.data,
    error: real.error ?? trial.error,
    isPending: trial.isPending || real.isPending,
  };
}

/** The button that shows what would change, what it shows, and the button that makes the change. */
export function TakingView({ taking, isEmpty }: { taking: Taking; isEmpty: boolean }) {
  const { error, previewed, taken, isPending, preview, apply } = taking;
  return (
    <>
      <div className="actions">
        <button
          type="button"
          className="btn btn-outline-primary"
          disabled={isEmpty || isPending}
          onClick={preview}
        >
          {isPending ? 'Comparing…' : 'Show what would change'}
        </button>
      </div>
      {error && <ProblemNote error={error} whole={error.problem.code === 'invalid'} />}
      {previewed && (
        <section aria-label="What would change">
          <ChangeTable changes={previewed.changes} />
          {previewed.changes.length > 0 && (
            <button type="button" className="btn btn-primary" disabled={isPending} onClick={apply}>
              Take {counted(previewed.changes.length, 'change')} into the record
            </button>
          )}
        </section>
      )}
      {taken && (
        <Done>
          {counted(taken.changes.length, 'change is', 'changes are')} in the record, at revision{' '}
          {taken.revision}.
        </Done>
      )}
    </>
  );
}
