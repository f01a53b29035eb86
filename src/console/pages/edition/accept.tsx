import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Finding } from '../../../core/checks/model.js';
import { call, type CallError } from '../../api.js';
import { DayInput, TextInput } from '../../components/controls.js';
import { ProblemNote } from '../../components/states.js';
import { useKeptFields } from '../../components/use-kept-fields.js';

/** A finding may stay for a while, if somebody says why and until when; that is taken back in the same place. */
export function Accept({ title, finding }: { title: string; finding: Finding }) {
  const client = useQueryClient();
  const { fingerprint, accepted } = finding;
  const onSuccess = () => client.invalidateQueries();
  const accept = useMutation<unknown, CallError, { reason: string; until: string }>({
    mutationFn: (given) => call('accept', { params: { title }, body: { fingerprint, ...given } }),
    onSuccess,
  });
  const withdraw = useMutation<unknown, CallError>({
    mutationFn: () => call('withdraw', { params: { title, fingerprint } }),
    onSuccess,
  });
  const error = accept.error ?? withdraw.error;
  if (accepted && !accepted.ended)
    return (
      <>
        <button
          type="button"
          className="btn btn-sm btn-outline-secondary"
          disabled={withdraw.isPending}
          onClick={() => withdraw.mutate()}
        >
          Withdraw the acceptance
        </button>
        {error && <ProblemNote error={error} />}
      </>
    );
  return (
    <details>
      <summary className="soft">accept it until a day</summary>
      <AcceptForm
        name={`accept ${title} ${fingerprint}`}
        isPending={accept.isPending}
        accept={(reason, until, done) => accept.mutate({ reason, until }, { onSuccess: done })}
      />
      {error && <ProblemNote error={error} whole />}
    </details>
  );
}

function AcceptForm({
  name,
  isPending,
  accept,
}: {
  /** Under which what is typed is kept. */
  name: string;
  isPending: boolean;
  accept: (reason: string, until: string, done: () => void) => void;
}) {
  const [{ reason, until }, set, forget] = useKeptFields(name, { reason: '', until: '' });
  return (
    <form
      className="controls mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        accept(reason, until, forget);
      }}
    >
      <TextInput
        label="Why it may stay"
        hint="why it is acceptable"
        value={reason}
        set={(text) => set({ reason: text })}
      />
      <DayInput label="Until when" value={until} set={(day) => set({ until: day })} />
      <button
        type="submit"
        className="btn btn-sm btn-outline-primary"
        disabled={reason.trim() === '' || until === '' || isPending}
      >
        Accept
      </button>
    </form>
  );
}
