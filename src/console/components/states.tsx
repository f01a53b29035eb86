import type { ReactNode } from 'react';
import type { CallError } from '../api.js';
import { Heading } from './heading.js';

/** While something is asked for. */
export function Loading({ what }: { what: string }) {
  return (
    <main className="page" aria-busy="true">
      <p className="soft">Reading {what}…</p>
    </main>
  );
}

/** What went wrong, and what to do about it. */
export function ProblemNote({ error }: { error: CallError }) {
  const { detail, fix, errors } = error.problem;
  return (
    <div className="problem" role="alert">
      <strong>{detail}</strong>
      {errors && errors.length > 1 ? (
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

const severityShapes = { blocker: '■', warning: '▲', note: '○' } as const;

/** A severity, by word and shape. */
export function SeverityMark({ severity, count }: { severity: keyof typeof severityShapes; count?: number }) {
  return (
    <span className={`state state-${severity}`}>
      <span className="shape" aria-hidden="true">
        {severityShapes[severity]}
      </span>
      {count === undefined ? severity : `${count} ${severity}${count === 1 ? '' : 's'}`}
    </span>
  );
}
