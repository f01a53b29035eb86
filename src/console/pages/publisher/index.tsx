import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { SecretList } from '../../../api/inventory.js';
import type { Publisher } from '../../../core/roster/model.js';
import { call, callWithTag, type CallError } from '../../api.js';
import { TextField } from '../../components/fields.js';
import { Heading } from '../../components/heading.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { Shown } from '../../components/shown.js';
import { Done, Empty, ProblemNote, State } from '../../components/states.js';
import { useKeptFields } from '../../components/use-kept-fields.js';
import { useNetworks } from '../../queries.js';
import { changedPublisher, fieldsOf, type PublisherFields } from './fields.js';
import { useAccountNeeds } from './account-needs.js';

interface Known {
  answer: Publisher | null;
  etag: string | null;
}

/** Who publishes the titles: name, domain, accounts, and the secrets that the record names. */
export function PublisherPage() {
  const known = useQuery<Known, CallError>({
    queryKey: ['publisher'],
    queryFn: () => callWithTag('showPublisher'),
  });
  return (
    <main className="page">
      <Heading>Who publishes, and with which accounts?</Heading>
      <p className="lede">
        The domain is where app-ads.txt is served; the accounts go into it. Credentials are only named here,
        as secret:NAME; their owner stores them with <code>syndexa secret set NAME</code>.
      </p>
      <Shown answer={known}>{(found) => <PublisherForm known={found} />}</Shown>
      <h2>Secrets</h2>
      <Secrets />
    </main>
  );
}

/** What was typed, and the call that saves it. */
function usePublisher({ answer, etag }: Known) {
  const client = useQueryClient();
  const [typed, keep, forget] = useKeptFields<PublisherFields>('publisher', {});
  const values = new Map(Object.entries({ ...fieldsOf(answer), ...typed }));
  const save = useMutation<Publisher, CallError>({
    mutationFn: () =>
      call('setPublisher', {
        body: changedPublisher(answer, typed),
        headers: etag === null ? { 'If-None-Match': '*' } : { 'If-Match': etag },
      }),
    onSuccess: () => {
      forget();
      return client.invalidateQueries();
    },
    // Somebody else wrote first: what they wrote is read, and what was typed stays.
    onError: ({ problem }) =>
      problem.code === 'changed' ? client.invalidateQueries({ queryKey: ['publisher'] }) : undefined,
  });
  return {
    at: (field: string) => values.get(field) ?? '',
    put: (field: string, value: string) => keep({ [field]: value }),
    isChanged: Object.keys(typed).length > 0,
    forget,
    save,
  };
}

function PublisherForm({ known }: { known: Known }) {
  const networks = useNetworks().data ?? [];
  const needs = useAccountNeeds(networks.map(({ id }) => id));
  const { at, put, isChanged, forget, save } = usePublisher(known);
  const field = (name: string, label: string, hint: string) => (
    <TextField
      key={name}
      id={`publisher-${name}`}
      label={label}
      value={at(name)}
      placeholder={hint}
      onChange={(value) => put(name, value)}
      error={save.error}
      faultsOf={[name]}
      mono={name !== 'name'}
    />
  );
  return (
    <form
      aria-label="Publisher"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <div className="fields">
        {field('name', 'Name', 'Saltmarsh Software')}
        {field('domain', 'Domain', 'saltmarsh.example')}
      </div>
      <h2>Accounts</h2>
      <p className="soft">
        At each network whose IDs do not carry the account, as app-ads.txt needs it. Leave it empty if it is
        not known.
      </p>
      <div className="fields">{networks.map(({ id, name }) => field(`accounts.${id}`, name, '204417'))}</div>
      <h2>Credentials of the account</h2>
      {needs.length === 0 && <p className="soft">No network here requires a key of the account.</p>}
      <div className="fields">
        {needs.map(({ network, credential, label }) =>
          field(`credentials.${network}.${credential}`, label, 'secret:NAME'),
        )}
      </div>
      {save.error && <ProblemNote error={save.error} whole />}
      {save.isSuccess && !isChanged && <Done>The publisher is on record.</Done>}
      <div className="actions">
        <button type="submit" className="btn btn-sm btn-primary" disabled={!isChanged || save.isPending}>
          Save the publisher
        </button>
        {isChanged && (
          <button type="button" className="btn btn-sm btn-outline-secondary" onClick={forget}>
            Discard
          </button>
        )}
      </div>
    </form>
  );
}

/** Where each secret of the roster comes from, never its value. */
function Secrets() {
  const secrets = useQuery<SecretList, CallError>({
    queryKey: ['secrets'],
    queryFn: () => call('listSecrets'),
    retry: false,
  });
  return (
    <Shown answer={secrets}>
      {(found) =>
        found.length === 0 ? (
          <Empty>The record names no secrets.</Empty>
        ) : (
          <LedgerTable heads={['Secret', 'Held', 'Fingerprint', 'Used by', 'May be sent to']}>
            {found.map(({ name, from, fingerprint, usedBy, hosts }) => (
              <tr key={name}>
                <th scope="row">
                  <code>{name}</code>
                </th>
                <td>
                  {from === 'nowhere' ? (
                    <State tone="bad" shape="□">
                      nowhere
                    </State>
                  ) : (
                    <State tone="good" shape="●">
                      in the {from}
                    </State>
                  )}
                </td>
                <td data-label="Fingerprint">{fingerprint === null ? '—' : <code>{fingerprint}</code>}</td>
                <td data-label="Used by">{usedBy.join(', ')}</td>
                <td data-label="May be sent to">
                  {hosts.length > 0 ? (
                    hosts.join(', ')
                  ) : (
                    <>
                      nowhere yet: <code>syndexa secret allow {name} --host HOST</code>
                    </>
                  )}
                </td>
              </tr>
            ))}
          </LedgerTable>
        )
      }
    </Shown>
  );
}
