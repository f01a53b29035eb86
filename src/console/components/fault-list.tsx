import { State } from './states.js';

/** Something wrong with a text, and where. */
export interface PlacedFault {
  /** A field, where the text has fields. */
  field?: string | undefined;
  message: string;
  fix?: string | undefined;
  place?: { line: number; column: number } | undefined;
  severity?: 'error' | 'warning' | undefined;
  /** Where a standard says so. */
  source?: string | undefined;
}

/** Faults of a document: how bad, where, what, and what to do about it. */
export function FaultList({ faults }: { faults: readonly PlacedFault[] }) {
  if (faults.length === 0) return null;
  return (
    <ul className="faults">
      {faults.map(({ field = '', message, fix, place, severity, source }, index) => (
        <li key={index}>
          {severity && (
            <State tone={severity === 'error' ? 'bad' : 'open'} shape={severity === 'error' ? '■' : '▲'}>
              {severity}
            </State>
          )}{' '}
          {place && (
            <span className="place soft">
              line {place.line}, column {place.column}
            </span>
          )}{' '}
          {field !== '' && <code>{field}</code>} {message} {fix}{' '}
          {source !== undefined && <span className="soft">{source}</span>}
        </li>
      ))}
    </ul>
  );
}

/** A fault with its place in separate fields. */
export function placed<Fault extends { line: number; column: number }>({ line, column, ...fault }: Fault) {
  return { ...fault, place: { line, column } };
}
