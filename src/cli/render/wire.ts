import { counted } from '../../core/text/counted.js';
import { printableValue } from '../../core/text/printable.js';
import type { FileEdit, Wiring } from '../../core/edits/model.js';
import type { Io, Paint } from '../io.js';
import { groupBy } from '../../core/text/group-by.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { wrap } from './places.js';

/** Writes what would change and why, file by file, then the diff, then what is left to a person. */
export function writeWiring(io: Io, wiring: Wiring, paint: Paint, full: boolean): void {
  io.out(overviewText(wiring, paint, io.width));
  if (wiring.edits.length > 0) writePatch(io, full ? wiring.patch : folded(wiring.patch), paint);
  const left = byHandLines(printableValue(wiring.byHand), paint, io.width);
  io.out(['', ...left, ''].join('\n'));
}

/** Writes a diff: in colour for a person, exactly as it is into a pipe or a file. */
export function writePatch(io: Io, patch: string, paint: Paint): void {
  const coloured = colouredPatch(patch, paint);
  if (io.read || coloured !== patch) io.out(coloured);
  else io.raw(patch);
}

/** The line for a wiring without edits. It says that the tree agrees only if nothing is left to do. */
function withoutEdits({ byHand, compared = 'title' }: Wiring, paint: Paint): string {
  if (compared !== 'title') return paint.red('■ Nothing can be wired here.');
  if (byHand.length > 0) return 'No file needs an edit. These steps are left to you:';
  return paint.green('✔ the tree agrees with the roster; there is nothing to wire');
}

/** Every file that would change, each with the parts of the wiring that change it. */
function overviewText(wiring: Wiring, paint: Paint, width: number): string {
  const { edits, groups } = printableValue({ ...wiring, patch: '', byHand: [] });
  if (edits.length === 0) return `${withoutEdits(wiring, paint)}\n`;
  const lines = [paint.bold(`${counted(edits.length, 'file')} would change`)];
  for (const edit of edits) {
    const why = groups.filter(({ paths }) => paths.includes(edit.path));
    lines.push(`  ${paint.green(sign(edit))} ${edit.path}`);
    for (const { platform, network, topic, rules } of why.map(partsOf)) {
      const fixes = rules.length === 0 ? 'kept current' : rules.join(', ');
      lines.push(paint.dim(wrap(`${platform}, ${network}, ${topic}: ${fixes}`, width, '      ')));
    }
    if (edit.source)
      lines.push(
        wrap(
          `${edit.source.name} is copied to ${edit.path} (SHA-256 ${edit.source.sha256.slice(0, 16)}…), which a patch cannot contain.`,
          width,
          '      ',
        ),
      );
  }
  return `${lines.join('\n')}\n\n`;
}

/** What a group is about, in words: `android/cobalt-heron/app-id` is the app ID of Cobalt Heron on Android. */
function partsOf({ id, rules }: Wiring['groups'][number]) {
  const [platform = '', network = '', ...topic] = id.split('/');
  return {
    platform: platform === 'android' || platform === 'ios' ? platformLabels[platform] : platform,
    network: network === 'all' ? 'all networks' : network,
    topic: topic
      .join(' ')
      .replace(/-/g, ' ')
      .replace(/\bid\b/, 'ID'),
    rules,
  };
}

function sign(edit: FileEdit): string {
  if (edit.remove) return 'gone   ';
  return edit.before === null ? 'new    ' : 'changed';
}

/** What wiring leaves to a person: what is wrong and where, then what to do about it, once for all that it fixes. */
export function byHandLines(byHand: Wiring['byHand'], paint: Paint, width: number): string[] {
  if (byHand.length === 0) return [];
  const lines = [paint.bold('Left to you')];
  for (const [what, items] of groupBy(byHand, (item) => item.what)) {
    for (const [why, of] of groupBy(items, (item) => item.why)) {
      const [first = '', ...more] = wrap(why, width, '    ').split('\n');
      lines.push(`  ${paint.yellow('▲')} ${first.trimStart()}`, ...more);
      for (const { platform, where } of of) {
        const place = [platform && platformLabels[platform], where].filter(Boolean).join('  ');
        if (place !== '') lines.push(paint.dim(`      ${place}`));
      }
    }
    const [first = '', ...more] = wrap(what, width, '      ').split('\n');
    lines.push(`    ${paint.green('→')} ${first.trimStart()}`, ...more, '');
  }
  return lines;
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
