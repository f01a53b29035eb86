import { diffArrays } from 'diff';
import type { Edit } from './edit.js';

/** The edits, whole lines each, that make one text of another. */
export function lineEdits(before: string, after: string): Edit[] {
  const lines = (text: string) => text.match(/[^\n]*\n|[^\n]+$/g) ?? [];
  const edits: Edit[] = [];
  let at = 0;
  let open: Edit | undefined;
  for (const { value, added, removed } of diffArrays(lines(before), lines(after))) {
    const text = value.join('');
    if (!added && !removed) {
      open = undefined;
      at += text.length;
      continue;
    }
    if (!open) {
      open = { start: at, end: at, text: '' };
      edits.push(open);
    }
    if (removed) {
      at += text.length;
      open.end = at;
    } else open.text += text;
  }
  return edits;
}
