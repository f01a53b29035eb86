import { printableValue } from '../../core/text/printable.js';
import type { FileEdit, Wiring } from '../../core/edits/model.js';
import type { Io, Paint } from '../io.js';
import { platformNames, wrap } from './places.js';

/** Writes the diff, then what each part of it fixes, then what is left to a person. */
export function writeWiring(io: Io, wiring: Wiring, paint: Paint, full: boolean): void {
  if (wiring.edits.length > 0) writePatch(io, full ? wiring.patch : folded(wiring.patch), paint);
  io.out(wireText(wiring, paint, io.width));
}

/** Writes a diff: in colour for a person, exactly as it is into a pipe or a file. */
export function writePatch(io: Io, patch: string, paint: Paint): void {
  const coloured = colouredPatch(patch, paint);
  if (io.read || coloured !== patch) io.out(coloured);
  else io.raw(patch);
}

/** The line for a wiring without edits. It says that the tree agrees only if nothing is left to do. */
function withoutEdits({ byHand, compared = 'title' }: Wiring, paint: Paint): string {
  if (compared !== 'title') return paint.red('■ nothing was compared, so nothing can be wired');
  if (byHand.length > 0) return 'No file needs an edit. What is left is yours to do:';
  return paint.green('✔ the tree agrees with the roster; there is nothing to wire');
}

function wireText(wiring: Wiring, paint: Paint, width: number): string {
  const { edits, groups, byHand } = printableValue({ ...wiring, patch: '' });
  const lines = edits.length === 0 ? [withoutEdits(wiring, paint), ''] : [''];
  if (groups.length > 0) lines.push(paint.bold('What it fixes'));
  for (const { id, rules, paths } of groups) {
    lines.push(
      `  ${paint.cyan(id)}`,
      paint.dim(`      ${rules.join(', ') || 'keeps it current'}`),
      ...paths.map((path) => `      ${sign(edits.find((edit) => edit.path === path))} ${path}`),
    );
  }
  const copied = edits.flatMap(({ path, source }) => (source ? [{ path, source }] : []));
  for (const { path, source } of copied)
    lines.push(
      `  ${source.name} is copied to ${path} (SHA-256 ${source.sha256.slice(0, 16)}…); no patch holds it`,
    );
  if (edits.length > 0) lines.push('');
  lines.push(...byHandLines(byHand, paint, width));
  return lines.join('\n');
}

function sign(edit: FileEdit | undefined): string {
  if (edit?.remove) return 'goes';
  return edit?.before === null ? 'new ' : '    ';
}

/** What wiring leaves to a person, with why. */
export function byHandLines(byHand: Wiring['byHand'], paint: Paint, width: number): string[] {
  if (byHand.length === 0) return [];
  const lines = [paint.bold('Left to you')];
  for (const { platform, what, why, where } of byHand) {
    const head = [platform && platformNames[platform], where].filter(Boolean).join('  ');
    lines.push(
      `  ${paint.yellow('▲')} ${head}`,
      wrap(what, width, '    '),
      paint.dim(wrap(why, width, '    ')),
    );
  }
  return [...lines, ''];
}

/** New files longer than this (lines) are generated ones, which nobody reads in a terminal. */
const longFile = 40;
/** How much of one is shown. */
const shownLines = 16;

/** A diff for reading: of a long new file only the beginning. */
export function folded(patch: string): string {
  return patch
    .split(/^(?=diff --git )/m)
    .map((part) => {
      const lines = part.split('\n');
      if (!part.includes('\nnew file mode ') || lines.length <= longFile) return part;
      const left = lines.length - shownLines;
      return `${lines.slice(0, shownLines).join('\n')}\n  … ${left} more lines of a new file; --full shows them\n`;
    })
    .join('');
}

/** A unified diff in colour. */
export function colouredPatch(patch: string, paint: Paint): string {
  return patch
    .split('\n')
    .map((line) => {
      if (line.startsWith('diff --git') || line.startsWith('+++') || line.startsWith('---'))
        return paint.bold(line);
      if (line.startsWith('@@')) return paint.cyan(line);
      if (line.startsWith('+')) return paint.green(line);
      return line.startsWith('-') ? paint.red(line) : line;
    })
    .join('\n');
}
