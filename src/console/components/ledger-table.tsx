import type { ReactNode } from 'react';

/** A table with a head; each row is a card where the window is narrow. */
export function LedgerTable({
  heads,
  className = '',
  children,
}: {
  heads: readonly string[];
  className?: string;
  children: ReactNode;
}) {
  return (
    <table className={`ledger cards ${className}`}>
      <thead>
        <tr>
          {heads.map((head) => (
            <th key={head} scope="col">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  );
}
