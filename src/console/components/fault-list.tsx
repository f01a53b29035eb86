import type { FieldFault } from '../../api/problem.js';

/** What is wrong with a document: where, what, and what to do about it. */
export function FaultList({ faults }: { faults: readonly FieldFault[] }) {
  return (
    <ul className="faults">
      {faults.map(({ field, message, fix, place }, index) => (
        <li key={index}>
          {place && (
            <span className="place soft">
              line {place.line}, column {place.column}
            </span>
          )}{' '}
          {field !== '' && <code>{field}</code>} {message} {fix}
        </li>
      ))}
    </ul>
  );
}
