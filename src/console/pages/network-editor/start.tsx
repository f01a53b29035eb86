import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { ProfileDraft } from '../../../api/networks.js';
import { call, type CallError } from '../../api.js';
import { Choice } from '../../components/controls.js';
import { TreeReader } from '../../components/tree-reader.js';
import { useAddress } from '../../components/use-address.js';
import { useNetwork, useNetworks } from '../../queries.js';
import { Answers } from './answers-form.js';
import { DraftIt } from './draft-it.js';

interface StartProps {
  setText: (text: string) => void;
  /** Whether there is a draft, which another one would replace. */
  hasText: boolean;
}

const ways = {
  page: 'from its integration page',
  tree: 'from a tree that contains it',
  profile: 'from another profile',
} as const;

/** Where the draft of a profile comes from. */
export function Start({ setText, hasText }: StartProps) {
  const [search, set] = useAddress();
  const way = search.get('from') ?? 'page';
  return (
    <section aria-label="Draft it">
      <div className="choices mb-3" role="group" aria-label="Draft it">
        {Object.entries(ways).map(([id, label]) => (
          <button key={id} type="button" aria-pressed={way === id} onClick={() => set({ from: id })}>
            {label}
          </button>
        ))}
      </div>
      {way === 'tree' && <FromTree setText={setText} hasText={hasText} />}
      {way === 'profile' && <FromProfile setText={setText} hasText={hasText} />}
      {way !== 'tree' && way !== 'profile' && <Answers setText={setText} hasText={hasText} />}
    </section>
  );
}

/** What a tree declares and no profile claims, vendor by vendor. */
function FromTree({ setText, hasText }: StartProps) {
  const [only, setOnly] = useState('');
  const found = useMutation<ProfileDraft, CallError, { snapshot: string; stem?: string }>({
    mutationFn: ({ snapshot, stem }) =>
      call('draftFromTree', { params: { snapshot }, body: stem === undefined ? {} : { only: stem } }),
  });
  const draft = found.data;
  const vendors = draft ? [{ stem: draft.stem ?? draft.id, declared: draft.declared }, ...draft.others] : [];
  const chosen = vendors.find(({ stem }) => stem === only) ?? vendors[0];
  return (
    <>
      <TreeReader
        label="See what no profile explains"
        call={found}
        then={(snapshot) => found.mutate({ snapshot })}
      />
      {chosen && (
        <div className="mt-3">
          <Choice
            label="Vendor"
            value={chosen.stem}
            set={setOnly}
            options={vendors.map(
              ({ stem, declared }) => [stem, `${stem}: ${declared.length} declared`] as const,
            )}
          />
          <ul className="mt-2">
            {chosen.declared.map(({ kind, name, value }) => (
              <li key={`${kind} ${name}`}>
                {kind} <code>{name}</code> {value !== '' && <code>{value}</code>}
              </li>
            ))}
          </ul>
          <DraftIt
            hasText={hasText}
            isPending={found.isPending}
            act={() =>
              found.mutate(
                { snapshot: found.variables?.snapshot ?? '', stem: chosen.stem },
                { onSuccess: ({ text }) => setText(text) },
              )
            }
          />
        </div>
      )}
    </>
  );
}

/** The profile of another network, to be changed into this one. */
function FromProfile({ setText, hasText }: StartProps) {
  const networks = useNetworks().data ?? [];
  const [id, setId] = useState('');
  const network = id || (networks[0]?.id ?? '');
  const found = useNetwork(network);
  return (
    <div className="controls">
      <Choice
        label="Profile"
        value={network}
        set={setId}
        options={networks.map((one) => [one.id, one.name] as const)}
      />
      <DraftIt
        hasText={hasText}
        isPending={found.data === undefined}
        act={() => found.data && setText(found.data.source)}
      />
    </div>
  );
}
