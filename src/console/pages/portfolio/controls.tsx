import Form from 'react-bootstrap/Form';
import { portfolioStates } from '../../../core/portfolio/states.js';
import { Choice, Controls, Finder, NetworkChoice } from '../../components/controls.js';
import { orders, type Shown, type View } from './view.js';
import { stateWords } from './words.js';

const orderWords = {
  work: 'most urgent first',
  name: 'by name',
  changed: 'last changed first',
  earned: 'most earned first',
  record: 'as in the record',
} as const;

interface ControlsProps {
  titles: readonly Shown[];
  view: View;
  set: (changes: Record<string, string | null>) => void;
}

/** Chooses which titles are shown, and in which order. */
export function PortfolioControls({ titles, view, set }: ControlsProps) {
  const networks = [...new Set(titles.flatMap((title) => title.networks))].sort();
  return (
    <Controls name="Titles">
      <Finder label="Find a title" value={view.find} set={(find) => set({ find })} />
      <States titles={titles} view={view} set={set} />
      <NetworkChoice
        value={view.network ?? ''}
        set={(network) => set({ network })}
        networks={networks.map((network) => [network, network] as const)}
      />
      <Choice
        label="Order"
        value={view.order}
        set={(order) => set({ sort: order === 'work' ? null : order })}
        options={orders.map((order) => [order, orderWords[order]] as const)}
      />
      <Form.Check
        id="portfolio-grouped"
        label="group by state"
        checked={view.isGrouped}
        onChange={(event) => set({ group: event.target.checked ? 'state' : null })}
      />
    </Controls>
  );
}

function States({ titles, view, set }: ControlsProps) {
  const states = portfolioStates.filter((state) => titles.some((title) => title.state === state));
  return (
    <div className="choices" role="group" aria-label="State">
      <button type="button" aria-pressed={view.state === null} onClick={() => set({ state: null })}>
        all {titles.length}
      </button>
      {states.map((state) => (
        <button
          key={state}
          type="button"
          aria-pressed={view.state === state}
          onClick={() => set({ state: view.state === state ? null : state })}
        >
          <span aria-hidden="true">{stateWords[state].shape} </span>
          {stateWords[state].word} {titles.filter((title) => title.state === state).length}
        </button>
      ))}
    </div>
  );
}
