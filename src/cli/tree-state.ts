import { counted } from '../core/text/counted.js';
import { printableName } from '../core/text/printable.js';
import type { WriteEntry } from '../api/trees.js';
import type { Io } from './io.js';
import { homeFolder } from './connect.js';

/**
 * Reports what is odd about a tree before it is read: a write that was interrupted, one that is under way, and markers
 * that no write of this data folder made. Only looks.
 */
export async function reportTreeState(folder: string, io: Io): Promise<void> {
  const { TreeWrites } = await import('../disk/writes/tree-writes.js');
  const state = await new TreeWrites(homeFolder(io.env)).state(folder).catch(() => undefined);
  if (!state) return;
  const { interrupted, busy, strange } = state;
  if (interrupted) io.err(interruptedText(folder, interrupted));
  if (busy) io.err('▲ Another command is writing to this tree. This reading may be incomplete.\n');
  for (const { name: marker, kind } of strange)
    io.err(
      `▲ ${marker} (${kind}) marks a write that this data folder does not know. It is ignored. ` +
        'If another data folder (SYNDEXA_HOME) began that write, settle it from there; otherwise remove it.\n',
    );
}

/** That a write was interrupted, and how to finish it or take it back. */
export function interruptedText(
  folder: string,
  { what, title, at, files }: Pick<WriteEntry, 'what' | 'title' | 'at'> & { files: readonly unknown[] },
): string {
  const name = printableName(folder);
  return (
    `▲ A write to ${name} was interrupted (${what}, ${title}, ${at}). Until it is settled, the tree may contain only part of it (${counted(files.length, 'file')}).\n` +
    `  Take it back with: syndexa undo ${name}\n` +
    `  Or finish it with: syndexa wire ${name} --title ${title} --write\n`
  );
}

/** Settles a write that was interrupted, before another one begins, and says what became of it. */
export async function settleInterrupted(folder: string, io: Io): Promise<void> {
  const { TreeWrites } = await import('../disk/writes/tree-writes.js');
  const settled = await new TreeWrites(homeFolder(io.env)).settle(folder);
  if (!settled) return;
  const { journal, outcome, leftAlone, kept } = settled;
  io.err(
    `▲ An earlier write to this tree was interrupted (${journal.what}, ${journal.title}). ` +
      `It ${outcome === 'finished' ? 'was complete and is kept' : 'was undone'}.\n`,
  );
  if (kept !== undefined)
    io.err(
      `  Changed since, and left as they are: ${leftAlone.map(printableName).join(', ')}.\n` +
        `  Their content before that write is in ${kept}.\n`,
    );
}
