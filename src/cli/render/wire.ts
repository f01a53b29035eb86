import type { FileEdit, Wiring } from '../../core/wiring/model.js';
import type { Paint } from '../io.js';
import { platformNames, wrap } from './places.js';

/** The diff in colour, then what each part of it mends, then what is left to a person. */
export function wireText({ edits, groups, patch, byHand }: Wiring, paint: Paint, width: number): string {
  const lines =
    edits.length === 0
      ? [paint.green('✔ the tree agrees with the roster; there is nothing to wire'), '']
      : [colouredPatch(patch, paint)];
  if (groups.length > 0) lines.push(paint.bold('What it mends'));
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
