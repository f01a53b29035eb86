import { resolve } from 'node:path';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';
import { unreadable } from '../read-file.js';
import { reportTreeState } from '../tree-state.js';
import { treeWrites, asCommandError, followed } from './wire.js';

export interface UndoOptions {
  list?: boolean;
  json?: boolean;
  force?: boolean;
}

/** `syndexa undo DIR [--list]`. */
export async function undo(io: Io, paint: Paint, directory: string, options: UndoOptions): Promise<number> {
  const { entryOf } = await import('../../disk/writes/journal.js');
  const folder = resolve(io.cwd, directory);
  const writes = await treeWrites(io);
  const found = await writes.list(folder).catch((error: unknown) => {
    throw unreadable(directory, error, 'Name the folder of a source tree.');
  });
  const { undoText, writesText } = await import('../render/undo.js');
  if (options.list) {
    await reportTreeState(folder, io);
    const entries = found.map(entryOf);
    if (options.json) printJson(io, entries);
    else io.out(writesText(entries, directory, paint));
    return exit.clean;
  }
  const undone = await asCommandError(
    () => writes.undo(folder, { force: options.force === true }),
    'Revert those changes first, or keep the write: only files that have not changed since then can be restored.',
  );
  if (!undone)
    throw new CommandError(
      `Nothing was written into ${directory} that could be undone.`,
      exit.wrongUse,
      'Only writes of syndexa wire and unwire can be undone, on the machine that made them.',
    );
  const entry = entryOf(undone);
  await followed(io, directory, entry.title);
  if (options.json) printJson(io, entry);
  else io.out(undoText(entry, paint));
  return exit.clean;
}
