import { enrol } from '../../../core/roster/bulk/enrol.js';
import { Finder, NetworkChoice } from '../../components/controls.js';
import { Empty } from '../../components/states.js';
import { TakingView, useTaking } from '../../components/taking.js';
import { useKept } from '../../components/use-kept.js';
import { useAddress } from '../../components/use-address.js';
import { useNetworks, useTitles } from '../../queries.js';
import { documentOf } from './titles-document.js';

/** Titles are chosen in a list of so many; of more, the finder shows those that are meant. */
const listed = 200;

/** Uses a network in many titles, at every placement whose format it offers. */
export function EnrolMany() {
  const [search, set] = useAddress();
  const networks = useNetworks().data ?? [];
  const titles = useTitles().data ?? [];
  const network = networks.find(({ id }) => id === search.get('network'));
  const [kept, keep, forget] = useKept('titles to enrol');
  const chosen = new Set(kept.split(' ').filter(Boolean));
  const find = (search.get('find') ?? '').trim().toLowerCase();
  const fitting = titles.filter(({ id, name }) => `${id} ${name}`.toLowerCase().includes(find));
  const taking = useTaking(
    () => documentOf([...chosen], (title, id) => (network ? [[id, enrol(title, network).title]] : [])),
    forget,
  );
  const choose = (next: ReadonlySet<string>) => {
    keep([...next].join(' '));
    taking.forget();
  };
  return (
    <>
      <div className="controls">
        <NetworkChoice
          all="choose a network"
          value={network?.id ?? ''}
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
      {fitting.length === 0 && <Empty>No title is called that.</Empty>}
      <ul className="tick-list">
        {fitting.slice(0, listed).map(({ id, name, networks: used }) => (
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
              {name}{' '}
              <span className="soft">{network && used.includes(network.id) ? 'uses it already' : id}</span>
            </label>
          </li>
        ))}
      </ul>
      {fitting.length > listed && (
        <p className="soft">and {fitting.length - listed} more: find them by name.</p>
      )}
      <TakingView taking={taking} isEmpty={!network || chosen.size === 0} />
    </>
  );
}
