import { counted } from '../../../core/text/counted.js';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ImportSummary } from '../../../api/tally.js';
import { importWords } from '../../../core/tally/import-words.js';
import { spanText } from '../../../core/tally/words.js';
import { call, type CallError } from '../../api.js';
import { Controls, DayInput, FileInput, NetworkChoice } from '../../components/controls.js';
import { Heading } from '../../components/heading.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { Shown } from '../../components/shown.js';
import { Done, ProblemNote, State } from '../../components/states.js';
import { Working } from '../../components/working.js';
import { useLongCall, useUpload } from '../../long-call.js';
import { keys, useImports, useNetworks } from '../../queries.js';

/** Where daily numbers come from: networks that are asked, tables, rates; and what came so far. */
export function NumbersPage() {
  const networks = (useNetworks().data ?? []).map(({ id, name }) => [id, name] as const);
  return (
    <main className="page">
      <Heading>Where do the numbers come from?</Heading>
      <h2>Fetch from the networks</h2>
      <Fetch networks={networks} />
      <h2>Or import a table</h2>
      <ImportTable networks={networks} />
      <h2>Exchange rates</h2>
      <Rates />
      <h2>Imports so far</h2>
      <Imports />
    </main>
  );
}

interface NetworksProps {
  networks: readonly (readonly [id: string, name: string])[];
}

function Fetch({ networks }: NetworksProps) {
  const [network, setNetwork] = useState('');
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const fetch = useLongCall('fetchTally');
  const body = {
    ...(network === '' ? {} : { networks: [network] }),
    ...(from === '' ? {} : { from }),
    ...(to === '' ? {} : { to }),
  };
  return (
    <>
      <Controls name="What to fetch">
        <NetworkChoice
          label="Network to fetch from"
          value={network}
          set={setNetwork}
          all="every network whose key is known"
          networks={networks}
        />
        <DayInput label="First day; default: where the last fetch ended" value={from} set={setFrom} />
        <DayInput label="Last day; default: yesterday" value={to} set={setTo} />
        <button
          type="button"
          className="btn btn-sm btn-outline-primary"
          disabled={fetch.isPending}
          onClick={() => void fetch.run({ body })}
        >
          Ask
        </button>
      </Controls>
      {fetch.isPending && <Working progress={fetch.progress} cancel={fetch.cancel} />}
      {fetch.error && <ProblemNote error={fetch.error} />}
      {fetch.answer?.fetched.map((summary) => (
        <Brought key={summary.network} summary={summary} />
      ))}
      {fetch.answer?.skipped.map(({ network: id, why, fix }) => (
        <div key={id} className="problem">
          <strong>
            {id} was not read: {why}
          </strong>
          <div>{fix}</div>
        </div>
      ))}
    </>
  );
}

function ImportTable({ networks }: NetworksProps) {
  const [network, setNetwork] = useState('');
  const [file, setFile] = useState<File>();
  const take = useUpload('importTally', file, 'text/csv');
  return (
    <>
      <Controls name="Table to import">
        <NetworkChoice
          label="Network of the table"
          value={network}
          set={setNetwork}
          all="choose its network"
          networks={networks}
        />
        <FileInput
          label="Table of daily numbers"
          accept=".csv,.tsv,.txt"
          choose={(chosen) => {
            take.reset();
            setFile(chosen);
          }}
        />
        <button
          type="button"
          className="btn btn-sm btn-outline-primary"
          disabled={!file || network === '' || take.isPending}
          onClick={() => file && void take.run({ query: { network, name: file.name } })}
        >
          Read it
        </button>
      </Controls>
      {take.isPending && <Working progress={take.progress} cancel={take.cancel} />}
      {take.error && <ProblemNote error={take.error} />}
      {take.answer && <Brought summary={take.answer} />}
    </>
  );
}

/** What an import brought, in the words of the terminal. */
function Brought({ summary }: { summary: ImportSummary }) {
  const { done, warnings } = importWords(summary);
  return (
    <div className="brought" role="status">
      <State tone="good" shape="✔">
        {summary.name === '' ? summary.network : `${summary.network} from ${summary.name}`}: {done}
      </State>
      {warnings.map((warning) => (
        <div key={warning}>
          <State tone="open" shape="▲">
            {warning}
          </State>
        </div>
      ))}
      {summary.odd.slice(0, 20).map(({ row, message }) => (
        <div key={row} className="soft">
          line {row}: {message}
        </div>
      ))}
    </div>
  );
}

function Rates() {
  const client = useQueryClient();
  const set = useMutation<{ rates: number; changed: number; oddCount: number }, CallError, File>({
    mutationFn: async (file) => call('setRates', { body: { table: await file.text() } }),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.tally }),
  });
  return (
    <>
      <Controls name="Rates to import">
        <FileInput
          label="Table of rates: day, currency, base, rate"
          accept=".csv"
          choose={(file) => file && set.mutate(file)}
        />
        <span className="soft">a table with the columns day, currency, base and rate</span>
      </Controls>
      {set.error && <ProblemNote error={set.error} />}
      {set.data && (
        <Done>
          {counted(set.data.rates, 'rate')}, {set.data.changed} of them new or changed
          {set.data.oddCount > 0 ? `; ${counted(set.data.oddCount, 'row')} left out` : ''}
        </Done>
      )}
    </>
  );
}

function Imports() {
  return (
    <Shown answer={useImports()}>
      {(all) =>
        all.length === 0 ? (
          <p className="soft">Nothing yet.</p>
        ) : (
          <LedgerTable heads={['Network', 'From', 'Days', 'Rows', 'When', 'Who']}>
            {all.map(({ network, source, name, days, rows, at, who, complete }) => (
              <tr key={`${at} ${network} ${name}`}>
                <th scope="row">{network}</th>
                <td data-label="From">{source === 'http' ? 'the network' : name || 'a table'}</td>
                <td data-label="Days">
                  {days ? spanText(days) : '—'}
                  {!complete && <span className="state state-open"> broke off</span>}
                </td>
                <td data-label="Rows">{rows.toLocaleString('en')}</td>
                <td data-label="When">{new Date(at).toLocaleString()}</td>
                <td data-label="Who">{who}</td>
              </tr>
            ))}
          </LedgerTable>
        )
      }
    </Shown>
  );
}
