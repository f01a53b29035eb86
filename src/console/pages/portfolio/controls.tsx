import Form from 'react-bootstrap/Form';
import { portfolioStates } from '../../../core/portfolio/states.js';
import { orders, type Shown, type View } from './view.js';
import { stateWords } from './words.js';

const orderWords = {
  work: 'what needs work first',
  name: 'by name',
  changed: 'changed last first',
  earned: 'most earned first',
  record: 'as in the record',
} as const;

/** Chooses which titles are shown, and in which order. */
export function PortfolioControls({
  titles,
  view,
  set,
}: {
  titles: readonly Shown[];
  view: View;
  set: (changes: Record<string, string | null>) => void;
}) {
  const networks = [...new Set(titles.flatMap((title) => title.networks))].sort();
  const states = portfolioStates.filter((state) => titles.some((title) => title.state === state));
  return (
    <form className="controls" role="search" aria-label="Titles" onSubmit={(event) => event.preventDefault()}>
      <Form.Control
        size="sm"
        type="search"
        aria-label="Find a title"
        placeholder="Find a title"
        value={view.find}
        onChange={(event) => set({ find: event.target.value })}
      />
      <div className="choices" role="group" aria-label="State">
        <button type="button" aria-pressed={view.state === null} onClick={() => set({ state: null })}>
          all {titles.length}
        </button>
        {states.map((state) => (
          <button
            key={state}
            type="button"
            aria-pressed={view.state === state}
            className={`state-${stateWords[state].tone}`}
            onClick={() => set({ state: view.state === state ? null : state })}
          >
            <span aria-hidden="true">{stateWords[state].shape} </span>
            {stateWords[state].word} {titles.filter((title) => title.state === state).length}
          </button>
        ))}
      </div>
      <Form.Select
        size="sm"
        aria-label="Network"
        value={view.network ?? ''}
        onChange={(event) => set({ network: event.target.value })}
      >
        <option value="">every network</option>
        {networks.map((network) => (
          <option key={network} value={network}>
            {network}
          </option>
        ))}
      </Form.Select>
      <Form.Select
        size="sm"
        aria-label="Order"
        value={view.order}
        onChange={(event) => set({ sort: event.target.value === 'work' ? null : event.target.value })}
      >
        {orders.map((order) => (
          <option key={order} value={order}>
            {orderWords[order]}
          </option>
        ))}
      </Form.Select>
      <Form.Check
        id="portfolio-grouped"
        label="group by state"
        checked={view.isGrouped}
        onChange={(event) => set({ group: event.target.checked ? 'state' : null })}
      />
    </form>
  );
}
