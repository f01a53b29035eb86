import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { AnswerOf } from '../../../api/routes.js';
import { call, type CallError } from '../../api.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { ProblemNote, State } from '../../components/states.js';

type Accepted = AnswerOf<'listAccepted'>['acceptances'][number];

/** All accepted findings of the title, on both platforms, even expired ones. */
export function Acceptances({ title }: { title: string }) {
  const client = useQueryClient();
  const found = useQuery<AnswerOf<'listAccepted'>, CallError>({
    queryKey: ['title', title, 'accepted'],
    queryFn: () => call('listAccepted', { params: { title } }),
  });
  const withdraw = useMutation<unknown, CallError, string>({
    mutationFn: (fingerprint) => call('withdraw', { params: { title, fingerprint } }),
    onSuccess: () => client.invalidateQueries(),
  });
  const all = found.data?.acceptances ?? [];
  if (all.length === 0) return null;
  const today = new Date().toISOString().slice(0, 10);
  const byEnd = [...all].sort((a, b) => (a.until < b.until ? -1 : 1));
  return (
    <section aria-label="All accepted findings">
      <h2>
        All accepted findings <span className="soft">{all.length}</span>
      </h2>
      {withdraw.error && <ProblemNote error={withdraw.error} />}
      <LedgerTable heads={['Until', 'Finding', 'Why', 'Who', 'Take back']}>
        {byEnd.map((one) => (
          <Row
            key={one.fingerprint}
            one={one}
            today={today}
            withdraw={() => withdraw.mutate(one.fingerprint)}
          />
        ))}
      </LedgerTable>
    </section>
  );
}

function Row({ one, today, withdraw }: { one: Accepted; today: string; withdraw: () => void }) {
  const { rule, message, reason, who, until } = one;
  return (
    <tr>
      <td className="text-nowrap">
        <State tone={until < today ? 'open' : 'good'} shape={until < today ? '○' : '◇'}>
          {until} {until < today && 'is over'}
        </State>
      </td>
      <td>
        {rule}: {message}
      </td>
      <td data-label="Why">{reason}</td>
      <td data-label="Who">{who}</td>
      <td>
        <button
          type="button"
          className="btn btn-sm btn-outline-secondary"
          aria-label={`Take back: ${message}`}
          onClick={withdraw}
        >
          Take back
        </button>
      </td>
    </tr>
  );
}
