import type { ReactNode } from 'react';
import Form from 'react-bootstrap/Form';

/** What chooses the part of a list that is shown. */
export function Controls({
  name,
  className = '',
  children,
}: {
  name: string;
  className?: string;
  children: ReactNode;
}) {
  return (
    <form
      className={`controls ${className}`}
      role="search"
      aria-label={name}
      onSubmit={(event) => event.preventDefault()}
    >
      {children}
    </form>
  );
}

interface ControlProps {
  label: string;
  value: string;
  set: (value: string) => void;
}

/** A line of text. */
export function TextInput({
  label,
  value,
  set,
  hint,
  isMono = false,
  type = 'text',
}: ControlProps & { hint: string; isMono?: boolean; type?: 'text' | 'search' }) {
  return (
    <Form.Control
      size="sm"
      type={type}
      className={type === 'search' ? '' : isMono ? 'grows font-monospace' : 'grows'}
      aria-label={label}
      placeholder={hint}
      value={value}
      onChange={(event) => set(event.target.value)}
    />
  );
}

/** A day, as `2026-10-01`; empty while none is chosen. */
export function DayInput({ label, value, set }: ControlProps) {
  return (
    <Form.Control
      size="sm"
      type="date"
      aria-label={label}
      title={label}
      value={value}
      onChange={(event) => set(event.target.value)}
    />
  );
}

/** A file; undefined when none is chosen any more. */
export function FileInput({
  label,
  accept,
  choose,
}: {
  label: string;
  accept: string;
  choose: (file: File | undefined) => void;
}) {
  return (
    <input
      type="file"
      className="form-control form-control-sm"
      aria-label={label}
      accept={accept}
      onChange={(event) => choose(event.target.files?.[0])}
    />
  );
}

/** One of the networks, or all of them. */
export function NetworkChoice({
  label = 'Network',
  all = 'every network',
  networks,
  ...control
}: Omit<ControlProps, 'label'> & {
  label?: string;
  all?: string;
  networks: Iterable<readonly [id: string, name: string]>;
}) {
  return <Choice label={label} all={all} options={networks} {...control} />;
}

/** A text that is looked for. */
export function Finder(control: ControlProps) {
  return <TextInput type="search" hint={control.label} {...control} />;
}

/**
 * One of several.
 * @param all the label of choosing none; absent if one is always chosen
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
