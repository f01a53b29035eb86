import Form from 'react-bootstrap/Form';
import { groupings, metrics, type TallySettings } from './settings.js';

const spans = { '7d': 'Last 7 days', '28d': 'Last 28 days', '90d': 'Last 90 days' } as const;

interface ControlsProps {
  settings: TallySettings;
  set: (name: string, value: string | null) => void;
  isAll: boolean;
}

/** What is shown; each choice is part of the page's address. */
export function Controls({ settings: { by, days, into, metric }, set, isAll }: ControlsProps) {
  const choices = Object.entries(groupings).filter(([name]) => isAll || name !== 'title');
  return (
    <div className="rehearsal-controls">
      <Choice id="by" label="Rows" value={by} set={set} choices={choices} />
      <Choice
        id="days"
        label="Days"
        value={days}
        set={set}
        choices={[
          ...Object.entries(spans),
          ...(days in spans ? [] : [[days, days.replace('..', ' to ')] as const]),
        ]}
      />
      <Choice id="metric" label="Chart" value={metric} set={set} choices={Object.entries(metrics)} />
      <Choice
        id="in"
        label="Currency"
        value={into ?? ''}
        set={(name, value) => set(name, value === '' ? null : value)}
        choices={[
          ['', 'as reported'],
          ['EUR', 'in EUR'],
          ['USD', 'in USD'],
          ['GBP', 'in GBP'],
        ]}
      />
    </div>
  );
}

interface ChoiceProps {
  id: string;
  label: string;
  value: string;
  choices: readonly (readonly [string, string])[];
  set: (name: string, value: string) => void;
}

function Choice({ id, label, value, choices, set }: ChoiceProps) {
  return (
    <Form.Group controlId={`tally-${id}`}>
      <Form.Label>{label}</Form.Label>
      <Form.Select size="sm" value={value} onChange={(event) => set(id, event.target.value)}>
        {choices.map(([name, text]) => (
          <option key={name} value={name}>
            {text}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
}
