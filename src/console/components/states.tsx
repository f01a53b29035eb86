import type { ReactNode } from 'react';
import { counted } from '../../core/text/counted.js';
import type { CallError } from '../api.js';
import { Heading } from './heading.js';

/** While something is loading. */
export function Loading({ what }: { what: string }) {
  return (
    <main className="page" aria-busy="true">
      <p className="soft">Reading {what}…</p>
    </main>
  );
}

/**
 * What went wrong, and what to do about it.
 * @param whole whether to show faults of single fields here, because no field shows them
 */
export function ProblemNote({ error, whole = false }: { error: CallError; whole?: boolean }) {
  const { detail, fix, errors } = error.problem;
  return (
    <div className="problem" role="alert">
      <strong>{detail}</strong>
      {errors && errors.length > (whole ? 0 : 1) ? (
        <ul className="mb-0">
          {errors.map(({ field, message, fix: how }) => (
            <li key={`${field} ${message}`}>
              <code>{field}</code>: {message} {how}
            </li>
          ))}
        </ul>
      ) : (
        fix && <div>{fix}</div>
      )}
    </div>
  );
}

/** A page that could not be filled. */
export function Failure({ error, again }: { error: CallError; again: () => void }) {
  return (
    <main className="page">
      <Heading>{error.problem.title}</Heading>
      <ProblemNote error={error} />
      <button type="button" className="btn btn-sm btn-outline-secondary" onClick={again}>
        Try again
      </button>
    </main>
  );
}

/** What to do first, where there is nothing yet. */
export function Empty({ children }: { children: ReactNode }) {
  return <div className="empty">{children}</div>;
}

interface StateProps {
  tone: string;
  shape: string;
  title?: string;
  children: ReactNode;
}

/** A state by word and shape, never by colour alone. */
export function State({ tone, shape, title, children }: StateProps) {
  return (
    <span className={`state state-${tone}`} title={title}>
      <span className="shape" aria-hidden="true">
        {shape}
      </span>
      {children}
    </span>
  );
}

/** Says that something was done. */
export function Done({ children }: { children: ReactNode }) {
  return (
    <p className="done" role="status">
      <State tone="good" shape="✔">
        {children}
      </State>
    </p>
  );
}

/** Rows that were left out, each with the reason; of many, the first 20. */
export function LeftOut({ rows }: { rows: readonly { row: number; message: string }[] }) {
  return rows.slice(0, 20).map(({ row, message }) => (
    <div key={row}>
      <State tone="open" shape="▲">
        row {row} is left out: {message}
      </State>
    </div>
  ));
}

const severityShapes = { blocker: '■', warning: '▲', note: '○' } as const;

/** A severity, by word and shape. */
export function SeverityMark({ severity, count }: { severity: keyof typeof severityShapes; count?: number }) {
  return (
    <State tone={severity} shape={severityShapes[severity]}>
      {count === undefined ? severity : counted(count, severity)}
    </State>
  );
}
