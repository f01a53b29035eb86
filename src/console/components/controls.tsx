import type { ReactNode } from 'react';
import Form from 'react-bootstrap/Form';

/** What chooses the part of a list that is shown. */
export function Controls({ name, children }: { name: string; children: ReactNode }) {
  return (
    <form className="controls" role="search" aria-label={name} onSubmit={(event) => event.preventDefault()}>
      {children}
    </form>
  );
}

interface ControlProps {
  label: string;
  value: string;
  set: (value: string) => void;
}

/** A text that is looked for. */
export function Finder({ label, value, set }: ControlProps) {
  return (
    <Form.Control
      size="sm"
      type="search"
      aria-label={label}
      placeholder={label}
      value={value}
      onChange={(event) => set(event.target.value)}
    />
  );
}

/**
 * One of several.
 * @param all what it is called when none is chosen; left out where one always is
 */
export function Choice({
  label,
  value,
  set,
  all,
  options,
}: ControlProps & { all?: string; options: Iterable<readonly [value: string, words: string]> }) {
  return (
    <Form.Select size="sm" aria-label={label} value={value} onChange={(event) => set(event.target.value)}>
      {all !== undefined && <option value="">{all}</option>}
      {[...options].map(([id, words]) => (
        <option key={id} value={id}>
          {words}
        </option>
      ))}
    </Form.Select>
  );
}
