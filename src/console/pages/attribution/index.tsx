import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { counted } from '../../../core/text/counted.js';
import type { AttributionLint } from '../../../api/attribution.js';
import type { AnswerOf } from '../../../api/routes.js';
import type { AttributionComparison } from '../../../core/roster/attribution-needs.js';
import { call, type CallError } from '../../api.js';
import { Choice } from '../../components/controls.js';
import { Diff } from '../../components/diff.js';
import { FaultList, placed } from '../../components/fault-list.js';
import { FileField } from '../../components/file-field.js';
import { Heading } from '../../components/heading.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { saveFile } from '../../components/save-file.js';
import { Shown } from '../../components/shown.js';
import { Empty, ProblemNote, State } from '../../components/states.js';
import { TextArea } from '../../components/text-area.js';
import { TreeReader } from '../../components/tree-reader.js';
import { useAddress } from '../../components/use-address.js';
import { useKept } from '../../components/use-kept.js';
import { useSettled } from '../../components/use-settled.js';
import { useTitles } from '../../queries.js';

/** SKAdNetwork identifiers: what is needed, what a list lacks, and what a tree declares. */
export function AttributionPage() {
  const needs = useQuery<AnswerOf<'attributionNeeds'>, CallError>({
    queryKey: ['attribution'],
    queryFn: () => call('attributionNeeds'),
  });
  return (
    <main className="page">
      <Heading>Which attribution identifiers must an app declare?</Heading>
      <p className="lede">
        Installs that come from an ad are attributed only to networks whose SKAdNetwork identifier the app
        declares in its property list.
      </p>
      <Shown answer={needs}>
        {({ needed }) =>
          needed.length === 0 ? (
            <Empty>No network of any title requires an identifier.</Empty>
          ) : (
            <LedgerTable heads={['Network', 'Identifiers', 'Why']}>
              {needed.map(({ network, networkName, ids, why, list }) => (
                <tr key={network}>
                  <th scope="row">
                    <Link to={`/networks/${network}`}>{networkName}</Link>
                  </th>
                  <td className="text-break">
                    {ids.map((id) => (
                      <div key={id}>
                        <code>{id}</code>
                      </div>
                    ))}
                  </td>
                  <td>
                    {why}
                    {list !== null && (
                      <div className="soft">
                        Its list: <code>{list}</code>
                      </div>
                    )}
                  </td>
                </tr>
              ))}
            </LedgerTable>
          )
        }
      </Shown>
      <h2>In a tree</h2>
      <InTree />
      <h2>In a list</h2>
      <InList />
    </main>
  );
}

/** What a tree declares, variant by variant. */
function InTree() {
  const titles = useTitles().data ?? [];
  const [search, set] = useAddress();
  const title = search.get('title') ?? '';
  const compare = useMutation<AttributionComparison, CallError, string>({
    mutationFn: (snapshot) =>
      call('compareAttribution', { params: { snapshot }, body: { title: title === '' ? null : title } }),
  });
  return (
    <>
      <TreeReader label="Compare" call={compare} then={(snapshot) => compare.mutate(snapshot)}>
        <Choice
          label="Title"
          all="the networks of the title that it builds"
          value={title}
          set={(chosen) => set({ title: chosen })}
          options={titles.map(({ id, name }) => [id, `the networks of ${name}`] as const)}
        />
      </TreeReader>
      {compare.data && <Compared found={compare.data} />}
    </>
  );
}

function Compared({ found: { missing, odd, more, there } }: { found: AttributionComparison }) {
  return (
    <section aria-label="The tree">
      <p role="status">
        {counted(there, 'identifier')} in the tree, {missing.length} missing.
      </p>
      {missing.map(({ id, networks, variants }) => (
        <div key={id}>
          <State tone="bad" shape="□">
            missing
          </State>{' '}
          <code>{id}</code>{' '}
          <span className="soft">
            {networks.join(', ') || 'a list'}; missing in {variants.join(', ')}
          </span>
        </div>
      ))}
      {odd.map((text) => (
        <div key={text}>
          <State tone="open" shape="▲">
            not in its right form
          </State>{' '}
          <code>{text}</code>
        </div>
      ))}
      {more.length > 0 && (
        <details>
          <summary className="soft">{more.length} that no network here requires</summary>
          {more.map((id) => (
            <div key={id}>
              <code>{id}</code>
            </div>
          ))}
        </details>
      )}
    </section>
  );
}

/** An opened list: its faults, and its content with everything required. */
function useList() {
  const [text, setText] = useKept('attribution');
  const [name, setName] = useState('list.plist');
  const [lists, setLists] = useState<string[]>([]);
  const settled = useSettled(text);
  const isGiven = settled.trim() !== '';
  const lint = useQuery<AttributionLint, CallError>({
    queryKey: ['attribution', 'lint', settled],
    enabled: isGiven,
    queryFn: ({ signal }) => call('lintAttribution', { body: { text: settled }, signal }),
  });
  const merged = useQuery<AnswerOf<'mergeAttribution'>, CallError>({
    queryKey: ['attribution', 'merge', settled, name, lists],
    enabled: isGiven,
    queryFn: ({ signal }) => call('mergeAttribution', { body: { text: settled, path: name, lists }, signal }),
    retry: false,
  });
  const open = async (file: File | undefined) => {
    if (!file) return;
    setName(file.name);
    setText(await file.text());
  };
  const openLists = async (files: readonly File[]) =>
    setLists(await Promise.all(files.map((file) => file.text())));
  return { text, setText, name, open, openLists, isGiven, lint, merged };
}

const listFiles = '.plist,.xml,.json';

/** A published list, or a part of a property list: its faults, and what it lacks. */
function InList() {
  const { text, setText, name, open, openLists, isGiven, lint, merged } = useList();
  return (
    <>
      <FileField
        id="attribution-file"
        label="A property list or a list of a network"
        accept={listFiles}
        open={([file]) => void open(file)}
      />
      <TextArea
        id="attribution-text"
        label="Or its text"
        text={text}
        set={setText}
        hint="<array>…</array> or a JSON list"
      />
      <FileField
        id="attribution-lists"
        label="Lists that networks publish, to include as well"
        isMultiple
        accept={listFiles}
        open={(files) => void openLists(files)}
      />
      {isGiven && lint.error && <ProblemNote error={lint.error} />}
      {isGiven && lint.data && <Linted lint={lint.data} />}
      {isGiven && merged.error && <ProblemNote error={merged.error} />}
      {isGiven && merged.data && <Merged merged={merged.data} name={name} />}
    </>
  );
}

function Linted({ lint: { ids, problems } }: { lint: AttributionLint }) {
  return (
    <section aria-label="The list" className="mt-3">
      <p role="status">
        {counted(ids.length, 'identifier')}, {counted(problems.length, 'fault')}
      </p>
      <FaultList faults={problems.map(placed)} />
    </section>
  );
}

function Merged({
  merged: { text, patch, ids },
  name,
}: {
  merged: AnswerOf<'mergeAttribution'>;
  name: string;
}) {
  if (patch === '')
    return (
      <p>
        <State tone="good" shape="✔">
          It names {counted(ids.length, 'identifier')}; none is missing.
        </State>
      </p>
    );
  return (
    <>
      <h3>What would be added</h3>
      <Diff patch={patch} edits={[]} />
      <button type="button" className="btn btn-sm btn-primary mt-2" onClick={() => saveFile(name, text)}>
        Save the file with these
      </button>
    </>
  );
}
