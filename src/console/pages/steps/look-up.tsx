import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { AnswerOf } from '../../../api/routes.js';
import { call, type CallError } from '../../api.js';
import { CallButton } from '../../components/call-button.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { State } from '../../components/states.js';

/** Asks the store whether it lists the editions of a title. */
export function LookUp({ title }: { title: string }) {
  const client = useQueryClient();
  const look = useMutation<AnswerOf<'lookUp'>, CallError>({
    mutationFn: () => call('lookUp', { params: { title } }),
    onSuccess: () => client.invalidateQueries(),
  });
  return (
    <section aria-label="In the store">
      <h2>In the store</h2>
      <CallButton call={look} label="Look the title up" busy="Looking it up…" look="outline-primary" />
      {look.data && (
        <LedgerTable heads={['Edition', 'Listed', 'Name', 'Site']} className="mt-3">
          {look.data.map(({ platform, identifier, listed, name, site }) => (
            <tr key={platform}>
              <th scope="row">
                {platformLabels[platform]} <code>{identifier}</code>
              </th>
              <td>
                <State tone={listed ? 'good' : 'open'} shape={listed ? '●' : '○'}>
                  {listed ? 'listed' : 'not listed'}
                </State>
              </td>
              <td data-label="Name">{name ?? '—'}</td>
              <td data-label="Site">{site ?? '—'}</td>
            </tr>
          ))}
        </LedgerTable>
      )}
    </section>
  );
}
