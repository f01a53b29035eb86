import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import type { ChainStep, Place } from '../../core/facts/evidence.js';
import { useSource } from '../queries.js';
import type { Question } from '../tree-queries.js';
import { EditorLink } from './editor-link.js';

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

/** The lines of a file around a place, with the colours of its language once these are loaded. */
export function SourceLines({ question, place }: { question: Question; place: Place }) {
  const source = useSource(question.snapshot, place.path, place.line);
  const colours = useQuery({
    queryKey: ['highlight'],
    queryFn: () => import('./highlight.js'),
    staleTime: Infinity,
  });
  if (source.status !== 'success') return null;
  const { first, lines } = source.data;
  const last = place.endLine ?? place.line;
  const tokens = colours.data?.highlightLines(place.path, lines);
  return (
    <pre className="source" tabIndex={0} aria-label={`Lines of ${place.path}`}>
      {lines.map((text, index) => {
        const number = first + index;
        const marked = number >= place.line && number <= last;
        return (
          <div key={number} className={marked ? 'at' : undefined}>
            <span className="number">{number}</span>
            {tokens?.[index]?.map((token, at) => (
              <span key={at} className={token.className}>
                {token.text}
              </span>
            )) ?? text}
          </div>
        );
      })}
    </pre>
  );
}

/** Evidence that is read when somebody wants to see it; its place is its name. */
export function SourceOnDemand({
  question,
  place,
  children,
}: {
  question: Question;
  place: Place;
  children?: ReactNode;
}) {
  const [isOpen, setOpen] = useState(false);
  return (
    <details className="evidence" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="soft place">{placeText(place)}</summary>
      {isOpen && (
        <>
          {children}
          <SourceLines question={question} place={place} />
          <EditorLink question={question} place={place} />
        </>
      )}
    </details>
  );
}
