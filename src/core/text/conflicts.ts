/** The markers that version control leaves where two versions of some lines could not be merged (git-merge(1)). */
const markers = /^<{7}(?: [^\r\n]*)?\r?$[^]*?^={7}\r?$[^]*?^>{7}(?: [^\r\n]*)?\r?$/m;

/** Where the first unmerged lines of a text begin (UTF-16 offset); undefined where there are none. */
export function conflictIn(text: string): number | undefined {
  // The first marker is rare, and searched for at the speed of plain text.
  const first = text.startsWith('<<<<<<<') ? 0 : text.indexOf('\n<<<<<<<') + 1;
  if (first === 0 && !text.startsWith('<<<<<<<')) return undefined;
  const found = markers.exec(text.slice(first));
  return found ? first + found.index : undefined;
}
