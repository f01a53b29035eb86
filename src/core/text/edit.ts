/** Replace the characters from `start` up to `end` (UTF-16 offsets) by `text`. */
export interface Edit {
  start: number;
  end: number;
  text: string;
  /** Lines around an insertion, which it shares with others at its place that have equal ones. See `withBlocks`. */
  block?: { open: string; close: string };
}

/** The edits with blocks written out: insertions at one place with equal blocks come to be in one. */
export function withBlocks(edits: readonly Edit[]): Edit[] {
  const blocks = new Map<string, string[]>();
  const keyOf = ({ start, block }: Edit) => JSON.stringify([start, block]);
  for (const edit of edits) {
    if (!edit.block) continue;
    const lines = blocks.get(keyOf(edit)) ?? [];
    blocks.set(keyOf(edit), lines.includes(edit.text) ? lines : [...lines, edit.text]);
  }
  return edits.flatMap((edit) => {
    const { start, end, text, block } = edit;
    if (!block) return [{ start, end, text }];
    const lines = blocks.get(keyOf(edit));
    blocks.delete(keyOf(edit));
    return lines ? [{ start, end, text: [block.open, ...lines, block.close].join('') }] : [];
  });
}

/** Two edits claim the same characters. */
export class EditOverlapError extends Error {
  constructor(
    readonly first: Edit,
    readonly second: Edit,
  ) {
    super(
      `Two edits claim the same text: ${first.start}–${first.end} (${JSON.stringify(first.text)}) ` +
        `and ${second.start}–${second.end} (${JSON.stringify(second.text)}).`,
    );
    this.name = 'EditOverlapError';
  }
}

/** Edits in order of place. Insertions at one offset keep the order in which they were given. */
export function sortEdits<E extends Edit>(edits: readonly E[]): E[] {
  return [...edits].sort((a, b) => a.start - b.start || a.end - b.end);
}

/**
 * The text with all edits applied. Equal edits count once; an overlap is an error that names both.
 * @throws EditOverlapError, RangeError
 */
export function applyEdits(text: string, edits: readonly Edit[]): string {
  let result = '';
  let at = 0;
  let previous: Edit | undefined;
  for (const edit of sortEdits(edits)) {
    if (edit.start < 0 || edit.end < edit.start || edit.end > text.length) {
      throw new RangeError(`An edit at ${edit.start}–${edit.end} is outside a text of ${text.length}.`);
    }
    if (previous && edit.start < previous.end) {
      throw new EditOverlapError(previous, edit);
    }
    result += text.slice(at, edit.start) + edit.text;
    at = edit.end;
    previous = edit;
  }
  return result + text.slice(at);
}

/** The smallest single edit that turns one text into the other; none when they are equal. */
export function editBetween(before: string, after: string): Edit | undefined {
  if (before === after) return undefined;
  const shortest = Math.min(before.length, after.length);
  let head = 0;
  while (head < shortest && before[head] === after[head]) head++;
  let tail = 0;
  while (tail < shortest - head && before[before.length - 1 - tail] === after[after.length - 1 - tail])
    tail++;
  return { start: head, end: before.length - tail, text: after.slice(head, after.length - tail) };
}
