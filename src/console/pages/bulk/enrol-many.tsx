import { useState } from 'react';
import type { Profile } from '../../../core/network/model.js';
import { enrol, type PassedOver } from '../../../core/roster/bulk/enrol.js';
import { Finder, NetworkChoice } from '../../components/controls.js';
import { Empty } from '../../components/states.js';
import { TakingView, useTaking } from '../../components/taking.js';
import { useAddress } from '../../components/use-address.js';
import { useKept } from '../../components/use-kept.js';
import { useNetwork, useNetworks, useTitles } from '../../queries.js';
import { documentOf } from './titles-document.js';

/** The maximum length of the list to choose titles from; with more titles, a search box narrows it. */
const listed = 200;

/** Uses a network in many titles, at every placement whose format and settings it offers. */
export function EnrolMany() {
  const [search, set] = useAddress();
  const networks = useNetworks().data ?? [];
  const network = search.get('network') ?? '';
  const find = (search.get('find') ?? '').trim().toLowerCase();
  const fitting = (useTitles().data ?? []).filter(({ id, name }) =>
    `${id} ${name}`.toLowerCase().includes(find),
  );
  const profile = useNetwork(network).data?.profile;
  const [kept, keep, forget] = useKept('titles to enrol');
  const chosen = new Set(kept.split(' ').filter(Boolean));
  const { taking, passedOver } = useEnrolling([...chosen], profile, forget);
  const choose = (next: ReadonlySet<string>) => {
    keep([...next].join(' '));
    taking.forget();
  };
  return (
    <>
      <div className="controls">
        <NetworkChoice
          all="choose a network"
          value={network}
          set={(id) => {
            set({ network: id });
            taking.forget();
          }}
          networks={networks.map(({ id, name }) => [id, name] as const)}
        />
        <Finder label="Find a title" value={search.get('find') ?? ''} set={(text) => set({ find: text })} />
        <button
          type="button"
          className="btn btn-sm btn-outline-secondary"
          onClick={() => choose(new Set([...chosen, ...fitting.map(({ id }) => id)]))}
        >
          Choose all {fitting.length}
        </button>
        <button
          type="button"
          className="btn btn-sm btn-outline-secondary"
          disabled={chosen.size === 0}
          onClick={() => choose(new Set())}
        >
          Choose none
        </button>
        <span className="soft" role="status">
          {chosen.size} chosen
        </span>
      </div>
      <TitleTicks titles={fitting} network={network} chosen={chosen} choose={choose} />
      <TakingView taking={taking} isEmpty={!profile || chosen.size === 0} />
      {taking.previewed && <PassedOverList passedOver={passedOver} />}
    </>
  );
}

type Passed = PassedOver & { title: string };

function useEnrolling(titles: readonly string[], profile: Profile | undefined, done: () => void) {
  const [passedOver, setPassedOver] = useState<Passed[]>([]);
  const taking = useTaking(async () => {
    const passed: Passed[] = [];
    const incoming = await documentOf(titles, (title, id) => {
      if (!profile) return [];
      const enrolled = enrol(title, profile);
      passed.push(...enrolled.passedOver.map((one) => ({ ...one, title: id })));
      return [[id, enrolled.title]];
    });
    setPassedOver(passed);
    return incoming;
  }, done);
  return { taking, passedOver };
}

interface TitleTicksProps {
  titles: readonly { id: string; name: string; networks: readonly string[] }[];
  network: string;
  chosen: ReadonlySet<string>;
  choose: (next: ReadonlySet<string>) => void;
}

function TitleTicks({ titles, network, chosen, choose }: TitleTicksProps) {
  if (titles.length === 0) return <Empty>No title has this name.</Empty>;
  return (
    <>
      <ul className="tick-list" tabIndex={0} aria-label="Titles">
        {titles.slice(0, listed).map(({ id, name, networks: used }) => (
          <li key={id}>
            <label>
              <input
                type="checkbox"
                className="form-check-input"
                checked={chosen.has(id)}
                onChange={(event) => {
                  const next = new Set(chosen);
                  if (event.target.checked) next.add(id);
                  else next.delete(id);
                  choose(next);
                }}
              />{' '}
              {name} <span className="soft">{used.includes(network) ? 'already uses it' : id}</span>
            </label>
          </li>
        ))}
      </ul>
      {titles.length > listed && (
        <p className="soft">and {titles.length - listed} more: find them by name.</p>
      )}
    </>
  );
}

function PassedOverList({ passedOver }: { passedOver: readonly Passed[] }) {
  if (passedOver.length === 0) return null;
  return (
    <section aria-label="Placements to skip">
      <h2>
        Skipped <span className="soft">{passedOver.length}</span>
      </h2>
      <ul>
        {passedOver.map(({ title, placement, message }) => (
          <li key={`${title} ${placement}`}>
            {title}, {placement}: {message}
          </li>
        ))}
      </ul>
    </section>
  );
}
