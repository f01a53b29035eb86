import type { ReactNode } from 'react';
import Form from 'react-bootstrap/Form';
import type { CallError } from '../api.js';

interface TextFieldProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  /** The last parts of field paths whose faults are shown here. */
  faultsOf?: readonly string[];
  error?: CallError | null;
  placeholder?: string;
  mono?: boolean;
  id: string;
  /** What is below the field. */
  note?: ReactNode;
}

/** A line of text with the faults that the service found in it. */
export function TextField({
  label,
  value,
  onChange,
  faultsOf = [],
  error,
  placeholder,
  mono,
  id,
  note,
}: TextFieldProps) {
  const faults = (error?.problem.errors ?? []).filter(({ field }) =>
    faultsOf.some((end) => field === end || field.endsWith(`.${end}`)),
  );
  return (
    <div>
      <Form.Label htmlFor={id}>{label}</Form.Label>
      <Form.Control
        id={id}
        size="sm"
        className={mono ? 'id-input' : ''}
        value={value}
        placeholder={placeholder}
        isInvalid={faults.length > 0}
        spellCheck={false}
        autoComplete="off"
        onChange={(event) => onChange(event.target.value)}
      />
      {faults.map(({ message, fix }) => (
        <div key={message} className="field-fault" role="alert">
          {message} {fix}
        </div>
      ))}
      {note}
    </div>
  );
}

interface ChoiceProps {
  label: string;
  id: string;
  value: string;
  choices: readonly string[];
  onChange: (value: string) => void;
  note?: ReactNode;
}

export function Choice({ label, id, value, choices, onChange, note }: ChoiceProps) {
  return (
    <div>
      <Form.Label htmlFor={id}>{label}</Form.Label>
      <Form.Select id={id} size="sm" value={value} onChange={(event) => onChange(event.target.value)}>
        {choices.map((choice) => (
          <option key={choice}>{choice}</option>
        ))}
      </Form.Select>
      {note}
    </div>
  );
}

/** Words in one field, parted by commas. */
export function words(text: string): string[] {
  return text
    .split(',')
    .map((word) => word.trim())
    .filter((word) => word !== '');
}
