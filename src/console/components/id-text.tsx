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

/**
 * An ID that is copied with one click, with the part in bold that tells it from others of its kind.
 * @param shared how many characters at its beginning all of them have; see {@link sharedLength}
 */
export function IdText({ id, shared = 0 }: { id: string; shared?: number }) {
  const [copied, setCopied] = useState(false);
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
