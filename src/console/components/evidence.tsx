import { useState } from 'react';
import type { ChainStep, Place } from '../../core/facts/evidence.js';
import { useSource } from '../queries.js';

export function placeText({ path, line, column }: Place): string {
  return `${path}:${line}:${column}`;
}

/** The chain of evidence: what was read, what it said, where. */
export function Chain({ chain }: { chain: readonly ChainStep[] }) {
  if (chain.length === 0) return null;
  return (
    <ol className="chain">
      {chain.map(({ what, value, place }, index) => (
        <li key={index}>
          <span className="soft">{what}</span> {value !== null && <code>{value}</code>}{' '}
          {place && <span className="place soft">{placeText(place)}</span>}
        </li>
      ))}
    </ol>
  );
}

/** The lines of a file around a place. */
export function SourceLines({ snapshot, place }: { snapshot: string; place: Place }) {
  const source = useSource(snapshot, place.path, place.line);
  if (source.status !== 'success') return null;
  const { first, lines } = source.data;
  const last = place.endLine ?? place.line;
  return (
    <pre className="source" tabIndex={0} aria-label={`Lines of ${place.path}`}>
      {lines.map((text, index) => {
        const number = first + index;
        const marked = number >= place.line && number <= last;
        return (
          <div key={number} className={marked ? 'at' : undefined}>
            <span className="number">{number}</span>
            {text}
          </div>
        );
      })}
    </pre>
  );
}

/** The lines around a place, read when somebody wants to see them. */
export function LinesOnDemand({ snapshot, place }: { snapshot: string; place: Place }) {
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="soft">lines of {place.path.split('/').pop()}</summary>
      {open && <SourceLines snapshot={snapshot} place={place} />}
    </details>
  );
}
