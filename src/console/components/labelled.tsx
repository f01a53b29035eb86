import type { ReactNode } from 'react';

/** A control under its label. */
export function Labelled({ id, label, children }: { id: string; label: string; children: ReactNode }) {
  return (
    <>
      <label className="form-label mt-2" htmlFor={id}>
        {label}
      </label>
      {children}
    </>
  );
}
