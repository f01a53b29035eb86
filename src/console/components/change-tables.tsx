import { useRef } from 'react';
import type { RosterImported } from '../../api/titles.js';
import type { ThreeWayChange } from '../../core/roster/compare.js';
import type { Settled } from '../../core/roster/merge-changes.js';
import { Room, useDrawnRows } from './virtual.js';
import { State } from './states.js';
import { LedgerTable } from './ledger-table.js';

/** A value of the record as a line. */
export function ValueText({ value }: { value: unknown }) {
  if (value === undefined || value === null) return <span className="soft">—</span>;
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  return <code>{text.length > 300 ? `${text.slice(0, 300)}…` : text}</code>;
}

/** Field by field, what was and what would be. */
export function ChangeTable({ changes }: { changes: RosterImported['changes'] }) {
  const scroll = useRef<HTMLDivElement>(null);
  const { items, before, after, measure } = useDrawnRows(scroll, changes.length, 30);
  if (changes.length === 0)
    return <p className="soft mt-3">Nothing would change: the record already says all of this.</p>;
  return (
    <div
      className="ledger-scroll mt-3"
      ref={scroll}
      tabIndex={0}
      role="region"
      aria-label="Changes, scrollable"
    >
      <LedgerTable heads={['Field', 'Now', 'Then']}>
        <Room height={before} columns={3} />
        {items.map(({ index }) => {
          const change = changes[index];
          return (
            change && (
              <tr key={change.path} data-index={index} ref={measure}>
                <td className="place">{change.path}</td>
                <td data-label="Now">
                  <ValueText value={change.was} />
                </td>
                <td data-label="Then">
                  <ValueText value={change.is} />
                </td>
              </tr>
            )
          );
        })}
        <Room height={after} columns={3} />
      </LedgerTable>
    </div>
  );
}

interface ThreeWayProps {
  changes: readonly ThreeWayChange[];
  /** Which side was chosen for a field that both changed. */
  settled: Settled;
  settle: (path: string, side: 'record' | 'document') => void;
}

/** What the record and the document changed since the document was written; one of two values is chosen here. */
export function ThreeWayTable({ changes, settled, settle }: ThreeWayProps) {
  if (changes.length === 0) return null;
  return (
    <div className="mt-3">
      <LedgerTable heads={['Field', 'When it was written', 'In the record now', 'In the document']}>
        {changes.map(({ path, base, record, document, conflict }) => {
          const side = (name: 'record' | 'document', value: unknown) => (
            <>
              {conflict && (
                <input
                  type="radio"
                  className="form-check-input"
                  name={path}
                  aria-label={`${path}: take what is in the ${name}`}
                  checked={settled.get(path) === name}
                  onChange={() => settle(path, name)}
                />
              )}{' '}
              <ValueText value={value} />
            </>
          );
          return (
            <tr key={path} className={conflict && !settled.has(path) ? 'cell-wrong' : undefined}>
              <td className="place">
                {path}
                {conflict && (
                  <div>
                    <State tone="bad" shape="✕">
                      both changed it
                    </State>
                  </div>
                )}
              </td>
              <td data-label="When it was written">
                <ValueText value={base} />
              </td>
              <td data-label="In the record now">{side('record', record)}</td>
              <td data-label="In the document">{side('document', document)}</td>
            </tr>
          );
        })}
      </LedgerTable>
    </div>
  );
}
