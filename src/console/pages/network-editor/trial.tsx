import { useMutation } from '@tanstack/react-query';
import type { ProfileTrial } from '../../../api/networks.js';
import { groupBy } from '../../../core/text/group-by.js';
import { labelOf } from '../../../core/facts/show.js';
import { call, type CallError } from '../../api.js';
import { placeText } from '../../components/evidence.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { State } from '../../components/states.js';
import { TreeReader } from '../../components/tree-reader.js';

/** Tries the profile on a tree: what it recognises there, and which requirements the tree lacks. */
export function Trial({ text, needles }: { text: string; needles: readonly string[] }) {
  const trial = useMutation<ProfileTrial, CallError, string>({
    mutationFn: (snapshot) => call('tryNetwork', { params: { snapshot }, body: { text } }),
  });
  return (
    <section aria-label="Try it on a tree">
      <h2>Try it on a tree</h2>
      <TreeReader
        label="Try it"
        busy="Trying it…"
        needles={needles}
        call={trial}
        then={(snapshot) => trial.mutate(snapshot)}
      />
      {trial.data && <Tried trial={trial.data} />}
    </section>
  );
}

function Tried({ trial: { stacks, facts, unresolved, unmet } }: { trial: ProfileTrial }) {
  if (stacks.length === 0) return <p className="mt-2">No application is recognised in this tree.</p>;
  return (
    <>
      <h3>What it recognises</h3>
      {facts.length === 0 && <p>Nothing.</p>}
      {facts.length > 0 && (
        <LedgerTable heads={['What', 'Value', 'Variants', 'Where']}>
          {facts.map(({ platform, kind, name, value, variants, place }) => (
            <tr key={JSON.stringify([platform, kind, name, value, place])}>
              <td>
                {platformLabels[platform]}, {labelOf(kind)}
              </td>
              <td className="text-break">
                <code>{value}</code>
              </td>
              <td data-label="Variants">{variants.join(', ')}</td>
              <td className="place">{placeText(place)}</td>
            </tr>
          ))}
        </LedgerTable>
      )}
      {unresolved.map(({ what, reason, place }) => (
        <div key={JSON.stringify([what, place])}>
          <State tone="open" shape="?">
            {what}: {reason}
          </State>{' '}
          <span className="place soft">{placeText(place)}</span>
        </div>
      ))}
      {unmet.length > 0 && <h3>What it requires but the tree lacks</h3>}
      {[...groupBy(unmet, ({ fix }) => fix)].map(([fix, lacking]) => (
        <div key={fix}>
          <ul className="mb-0">
            {lacking.map(({ platform, what, place }) => (
              <li key={JSON.stringify([platform, what, place])}>
                {platform && `${platformLabels[platform]}: `}
                {what} {place && <span className="place soft">{placeText(place)}</span>}
              </li>
            ))}
          </ul>
          <p className="soft">{fix}</p>
        </div>
      ))}
    </>
  );
}
