import type { FieldChange } from './compare.js';

/** Takes changes back: the value as it was before them. The last change is undone first. */
export function revert(value: unknown, changes: readonly FieldChange[]): unknown {
  const result = structuredClone(value);
  for (const { path, was } of [...changes].reverse()) setPath(result, path.split('.'), was);
  return result;
}

function setPath(root: unknown, path: readonly string[], value: unknown): void {
  let at = root as Record<string, unknown>;
  for (const step of path.slice(0, -1)) {
    const next = at[step];
    if (typeof next === 'object' && next !== null) at = next as Record<string, unknown>;
    else at = at[step] = {};
  }
  const last = path.at(-1);
  if (last === undefined) return;
  if (value === undefined) delete at[last];
  else at[last] = structuredClone(value);
}
