import { counted } from '../../core/text/counted.js';
import { printableValue } from '../../core/text/printable.js';
import type { WriteEntry } from '../../api/trees.js';
import type { Paint } from '../io.js';

const signs = { new: 'new    ', changed: 'changed', removed: 'removed' } as const;
/** What taking a write back does to a file. */
const takenBack = { new: 'taken away', changed: 'as it was', removed: 'there again' } as const;

/** The writes of a tree that can be taken back, the latest first. */
export function writesText(entries: readonly WriteEntry[], directory: string, paint: Paint): string {
  if (entries.length === 0)
    return `Nothing was written into ${directory} from this machine that could be undone.\n`;
  const lines = printableValue(entries).flatMap(({ at, title, what, files }, index) => [
    `${paint.bold(what)}  ${title}  ${paint.dim(at.replace('T', ' ').slice(0, 16))}${index === 0 ? `  ${paint.green('← syndexa undo reverts this')}` : ''}`,
    ...files.map(({ path, change }) => `  ${paint.dim(signs[change])} ${path}`),
    '',
  ]);
  return lines.join('\n');
}

/** What was taken back. */
export function undoText(entry: WriteEntry, paint: Paint): string {
  const { what, title, files } = printableValue(entry);
  const count = counted(files.length, 'file');
  return [
    `${paint.green('✔ undone')}: ${what} of ${title}, ${count}, byte for byte`,
    ...files.map(({ path, change }) => `  ${path}  ${paint.dim(takenBack[change])}`),
    '',
  ].join('\n');
}

/** Whether the placebooks of a tree are current, file by file. */
export function placebookText(
  files: readonly { path: string; state: string }[],
  again: string,
  paint: Paint,
): string {
  if (files.length === 0) return `${paint.green('✔ current')}: the placebooks match the roster\n`;
  return [
    paint.red('✘ not current'),
    ...files.map(({ path, state }) => `  ${state.padEnd(11)} ${path}`),
    `${paint.dim('To write them:')} ${again}`,
    '',
  ].join('\n');
}
