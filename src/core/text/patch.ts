import { structuredPatch } from 'diff';

/** One file of a patch. `before` is null for a new file, `after` null for a removed one. */
export interface FileChange {
  path: string;
  before: string | null;
  after: string | null;
}

/** A unified diff of all the files, in the form that `git apply` takes. Empty when nothing differs. */
export function unifiedPatch(changes: readonly FileChange[], context = 3): string {
  return changes
    .filter(({ before, after }) => before !== after)
    .map((change) => filePatch(change, context))
    .join('');
}

function filePatch({ path, before, after }: FileChange, context: number): string {
  const [a, b] = [quotePath(`a/${path}`), quotePath(`b/${path}`)];
  const head = [`diff --git ${a} ${b}`];
  if (before === null) head.push('new file mode 100644');
  if (after === null) head.push('deleted file mode 100644');
  const { hunks } = structuredPatch(path, path, before ?? '', after ?? '', '', '', { context });
  if (hunks.length > 0) {
    head.push(
      `--- ${before === null ? '/dev/null' : ended(a)}`,
      `+++ ${after === null ? '/dev/null' : ended(b)}`,
    );
  }
  const body = hunks.map(
    (hunk) =>
      `@@ -${span(hunk.oldStart, hunk.oldLines)} +${span(hunk.newStart, hunk.newLines)} @@\n` +
      hunk.lines.map((line) => `${line}\n`).join(''),
  );
  return `${head.join('\n')}\n${body.join('')}`;
}

function span(start: number, lines: number): string {
  // An empty side is named by the line before it.
  if (lines === 0) return `${start - 1},0`;
  return lines === 1 ? `${start}` : `${start},${lines}`;
}

/** A name with a blank in it ends at a tab, as git itself writes it. */
function ended(name: string): string {
  return name.includes(' ') && !name.startsWith('"') ? `${name}\t` : name;
}

/** Git quotes a path that holds anything outside printable ASCII, a quote or a backslash. */
function quotePath(path: string): string {
  if (/^[\x20\x21\x23-\x5b\x5d-\x7e]+$/.test(path)) return path;
  const bytes = [...new TextEncoder().encode(path)];
  const quoted = bytes.map((byte) => {
    const char = String.fromCharCode(byte);
    if (char === '"' || char === '\\') return `\\${char}`;
    return byte >= 0x20 && byte < 0x7f ? char : `\\${byte.toString(8).padStart(3, '0')}`;
  });
  return `"${quoted.join('')}"`;
}
