import Form from 'react-bootstrap/Form';
import { useScenarios } from '../../queries.js';
import type { RehearsalSettings } from '../../tree-queries.js';

const faults: Record<RehearsalSettings['fault'], string> = {
  none: 'as it is',
  offline: 'no connection',
  'no-fill': 'no network fills a request',
  slow: 'ads take 12 seconds',
};

/** What the address of the page says is rehearsed. */
export function settingsIn(title: string, search: URLSearchParams): RehearsalSettings {
  const seed = Number(search.get('seed') ?? 1);
  const fault = search.get('fault') ?? 'none';
  return {
    title,
    scenario: search.get('scenario') ?? 'first-session',
    seed: Number.isInteger(seed) && seed >= 0 && seed < 2 ** 32 ? seed : 1,
    fault: Object.hasOwn(faults, fault) ? (fault as RehearsalSettings['fault']) : 'none',
  };
}

/** Changes parts of the page's address; null takes one out. */
export type SetSearch = (values: Readonly<Record<string, string | null>>) => void;

interface ControlsProps {
  settings: RehearsalSettings;
  set: SetSearch;
  isBusy: boolean;
  again: () => void;
}

/** The scenario, the seed and the faults; each is part of the page's address. */
export function Controls({ settings, set, isBusy, again }: ControlsProps) {
  const scenarios = useScenarios();
  const chosen = scenarios.data?.find(({ id }) => id === settings.scenario);
  return (
    <>
      <div className="rehearsal-controls">
        <Form.Group controlId="scenario">
          <Form.Label>Scenario</Form.Label>
          <Form.Select
            size="sm"
            value={settings.scenario}
            onChange={(event) => set({ scenario: event.target.value })}
          >
            {(scenarios.data ?? [{ id: settings.scenario, name: settings.scenario }]).map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group controlId="fault">
          <Form.Label>The network</Form.Label>
          <Form.Select
            size="sm"
            value={settings.fault}
            onChange={(event) => set({ fault: event.target.value === 'none' ? null : event.target.value })}
          >
            {Object.entries(faults).map(([id, label]) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group controlId="seed">
          <Form.Label>Seed</Form.Label>
          <Form.Control
            size="sm"
            type="number"
            min={0}
            max={4294967295}
            defaultValue={settings.seed}
            key={settings.seed}
            onBlur={(event) => set({ seed: event.target.value || null })}
            onKeyDown={(event) => {
              if (event.key === 'Enter') set({ seed: event.currentTarget.value || null });
            }}
          />
        </Form.Group>
        <button type="button" className="btn btn-sm btn-outline-secondary" disabled={isBusy} onClick={again}>
          {isBusy ? 'Rehearsing…' : 'Rehearse again'}
        </button>
      </div>
      {chosen && <p className="soft mb-2">{chosen.about}</p>}
    </>
  );
}
