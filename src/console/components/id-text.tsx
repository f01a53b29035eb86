import { useState } from 'react';

/** How many characters at the beginning all the IDs have in common, cut back to a whole part. */
export function sharedLength(ids: readonly string[]): number {
  const [first = '', ...others] = ids;
  let length = others.length === 0 ? 0 : first.length;
  for (const other of others) {
    let at = 0;
    while (at < length && other[at] === first[at]) at++;
    length = at;
  }
  return first.slice(0, length).lastIndexOf('-') + 1;
}

/** An ID, with the part that tells it from its peers in bold; copied with one click. */
export function IdText({ id, peers }: { id: string; peers: readonly string[] }) {
  const [copied, setCopied] = useState(false);
  const shared = sharedLength([...new Set([id, ...peers])]);
  const copy = () => {
    void navigator.clipboard.writeText(id).then(() => {
      setCopied(true);
      setTimeout(() => setCopied(false), 1_200);
    });
  };
  return (
    <button type="button" className={`id${copied ? ' copied' : ''}`} onClick={copy} title="Copy">
      <span className="shared">{id.slice(0, shared)}</span>
      <strong>{id.slice(shared)}</strong>
    </button>
  );
}
