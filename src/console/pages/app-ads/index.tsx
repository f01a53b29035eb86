import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { counted } from '../../../core/text/counted.js';
import type { AppAdsComparison, AppAdsLint, AppAdsNeeds, AppAdsVerified } from '../../../api/app-ads.js';
import { call, type CallError } from '../../api.js';
import { FileInput, TextInput } from '../../components/controls.js';
import { FaultList, placed } from '../../components/fault-list.js';
import { Diff } from '../../components/diff.js';
import { Heading } from '../../components/heading.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { saveFile } from '../../components/save-file.js';
import { Shown } from '../../components/shown.js';
import { Empty, ProblemNote, State } from '../../components/states.js';
import { TextArea } from '../../components/text-area.js';
import { useKept } from '../../components/use-kept.js';
import { useSettled } from '../../components/use-settled.js';

/** app-ads.txt: what is needed, what the site serves, and what would bring a file up to it. */
export function AppAdsPage() {
  const needs = useQuery<AppAdsNeeds, CallError>({
    queryKey: ['app-ads'],
    queryFn: () => call('appAdsNeeds'),
  });
  return (
    <main className="page">
      <Heading>What must app-ads.txt say?</Heading>
      <p className="lede">
        Buyers pay only for apps whose developer site names the network in /app-ads.txt. The accounts are
        those of the <Link to="/publisher">publisher</Link>.
      </p>
      <Shown answer={needs}>
        {({ needed, domain, text }) => (
          <>
            {needed.length === 0 ? (
              <Empty>No network of any title requires a record.</Empty>
            ) : (
              <>
                <Needed needed={needed} />
                <div className="actions">
                  <button
                    type="button"
                    className="btn btn-sm btn-outline-primary"
                    onClick={() => saveFile('app-ads.txt', text)}
                  >
                    Save a file with all of them
                  </button>
                </div>
              </>
            )}
            <h2>What your site serves</h2>
            <Site domain={domain} />
            <h2>A file of yours</h2>
            <OwnFile />
          </>
        )}
      </Shown>
    </main>
  );
}

type Needs = AppAdsNeeds['needed'][number];

function recordText({ record }: Pick<Needs, 'record'>): string {
  if (!record) return '—';
  const { domain, account, relationship, certification } = record;
  return [domain, account, relationship, certification].filter(Boolean).join(', ');
}

function Needed({ needed }: { needed: readonly Needs[] }) {
  return (
    <LedgerTable heads={['Network', 'Record', 'Why']}>
      {needed.map((need) => (
        <tr key={`${need.network} ${recordText(need)}`}>
          <th scope="row">
            <Link to={`/networks/${need.network}`}>{need.networkName}</Link>
          </th>
          <td className="text-break">
            <code>{recordText(need)}</code>
            {need.missing !== undefined && (
              <div>
                <State tone="open" shape="▲">
                  {need.missing}
                </State>
              </div>
            )}
          </td>
          <td>{need.why}</td>
        </tr>
      ))}
    </LedgerTable>
  );
}

/** What the developer site serves now. */
function Site({ domain }: { domain: string | null }) {
  const client = useQueryClient();
  const [url, setUrl] = useState('');
  const verify = useMutation<AppAdsVerified, CallError>({
    mutationFn: () => call('verifyAppAds', { body: url.trim() === '' ? {} : { url: url.trim() } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['steps'] }),
  });
  return (
    <>
      <form
        className="controls"
        onSubmit={(event) => {
          event.preventDefault();
          verify.mutate();
        }}
      >
        <TextInput
          label="Address of the file"
          hint={domain === null ? 'https://saltmarsh.example/app-ads.txt' : `https://${domain}/app-ads.txt`}
          value={url}
          set={setUrl}
          isMono
        />
        <button
          type="submit"
          className="btn btn-sm btn-outline-primary"
          disabled={verify.isPending || (domain === null && url.trim() === '')}
        >
          {verify.isPending ? 'Fetching…' : 'Fetch and compare'}
        </button>
      </form>
      {verify.error && <ProblemNote error={verify.error} />}
      {verify.data && (
        <>
          <p>
            As served at <code>{verify.data.url}</code>:
          </p>
          <Compared comparisons={verify.data.comparisons} />
          <FaultList faults={verify.data.problems.map(placed)} />
        </>
      )}
    </>
  );
}

const states = {
  there: { tone: 'good', shape: '✔', words: 'there' },
  missing: { tone: 'bad', shape: '□', words: 'missing' },
  differs: { tone: 'bad', shape: '■', words: 'differs' },
  'unknown-account': { tone: 'open', shape: '?', words: 'cannot tell' },
} as const;

function Compared({ comparisons }: AppAdsComparison) {
  if (comparisons.length === 0) return <p className="soft">No network requires a record.</p>;
  return (
    <LedgerTable heads={['Network', 'State', 'Record', 'Line']}>
      {comparisons.map((one) => {
        const { tone, shape, words } = states[one.state];
        return (
          <tr key={`${one.network} ${recordText(one)}`}>
            <th scope="row">{one.networkName}</th>
            <td>
              <State tone={tone} shape={shape}>
                {words}
              </State>
            </td>
            <td className="text-break">
              <code>{recordText(one)}</code> {one.missing}
            </td>
            <td data-label="Line">{one.line ?? '—'}</td>
          </tr>
        );
      })}
    </LedgerTable>
  );
}

/** A pasted or opened file: its faults, what it lacks, and how to add that. */
function OwnFile() {
  const [text, setText] = useKept('app-ads');
  const settled = useSettled(text);
  const found = useQuery<[AppAdsLint, AppAdsComparison, { text: string; patch: string }], CallError>({
    queryKey: ['app-ads', 'file', settled],
    enabled: settled.trim() !== '',
    queryFn: ({ signal }) => {
      const options = { body: { text: settled }, signal };
      return Promise.all([
        call('lintAppAds', options),
        call('compareAppAds', options),
        call('mergeAppAds', options),
      ]);
    },
    placeholderData: (before) => before,
  });
  const [lint, comparison, merged] = found.data ?? [];
  return (
    <>
      <FileInput label="Open app-ads.txt" accept=".txt" choose={(file) => void file?.text().then(setText)} />
      <TextArea
        id="app-ads-text"
        label="Or its text"
        text={text}
        set={setText}
        hint="cobaltheron.example, 204417, DIRECT, c0ba17he"
      />
      {found.error && <ProblemNote error={found.error} />}
      {text.trim() !== '' && lint && comparison && merged && (
        <section aria-label="The file" className="mt-3">
          <p role="status">
            {counted(lint.records.length, 'record')}, {counted(lint.problems.length, 'fault')}
          </p>
          <FaultList faults={lint.problems.map(placed)} />
          <Compared comparisons={comparison.comparisons} />
          {merged.patch === '' ? (
            <p>
              <State tone="good" shape="✔">
                The file has every record that is needed.
              </State>
            </p>
          ) : (
            <>
              <h3>What would be added</h3>
              <Diff patch={merged.patch} edits={[]} />
              <button
                type="button"
                className="btn btn-sm btn-primary mt-2"
                onClick={() => saveFile('app-ads.txt', merged.text)}
              >
                Save the file with these
              </button>
            </>
          )}
        </section>
      )}
    </>
  );
}
