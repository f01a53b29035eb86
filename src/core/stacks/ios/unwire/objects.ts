import type { PbxDict, PbxEntry, PbxValue } from '../../../formats/pbxproj/read.js';
import type { Edit } from '../../../text/edit.js';

/** The line that holds an offset, with its line end. */
export function wholeLine(text: string, offset: number): { start: number; end: number } {
  const start = Math.max(text.lastIndexOf('\n', offset - 1), text.lastIndexOf('\r', offset - 1)) + 1;
  const rest = /[^\r\n]*(\r\n|\n|\r)?/.exec(text.slice(offset))?.[0].length ?? 0;
  return { start, end: offset + rest };
}

/** Takes objects out: each with the lines that it fills. */
export function objectLines(text: string, objects: PbxDict, ids: readonly string[]): Edit[] {
  return objects.entries
    .filter(({ key }) => ids.includes(key))
    .map((entry) => ({ ...entryLines(text, entry), text: '' }));
}

/** The lines that an entry fills; only the entry itself where something else is on them. */
export function entryLines(text: string, { start, end }: PbxEntry): { start: number; end: number } {
  const first = wholeLine(text, start);
  const last = wholeLine(text, Math.max(start, end - 1));
  const alone = text.slice(first.start, start).trim() === '' && text.slice(end, last.end).trim() === '';
  return alone ? { start: first.start, end: last.end } : { start, end };
}

/** Takes items with these IDs out of every list; a list that held nothing else goes where wiring makes such lists. */
export function ownItems(text: string, objects: PbxDict, ids: readonly string[]): Edit[] {
  const made = new Set(['packageReferences', 'packageProductDependencies']);
  return objects.entries.flatMap(({ key, value }) => {
    if (ids.includes(key) || value.type !== 'dict') return [];
    return value.entries.flatMap((entry): Edit[] => {
      const list = entry.value;
      if (list.type !== 'list') return [];
      const mine = list.items.filter((item) => item.type === 'string' && ids.includes(item.value));
      if (mine.length === 0) return [];
      if (mine.length === list.items.length && made.has(entry.key))
        return [{ ...entryLines(text, entry), text: '' }];
      return mine.map((item) => ({ ...itemLine(text, item), text: '' }));
    });
  });
}

function itemLine(text: string, item: PbxValue): { start: number; end: number } {
  const line = wholeLine(text, item.start);
  const around = text.slice(line.start, line.end);
  const alone = /^\s*\S+( \/\*.*?\*\/)?,?\s*$/.test(around);
  if (alone) return line;
  const behind = /^( \/\*.*?\*\/)?,? ?/.exec(text.slice(item.end, line.end))?.[0].length ?? 0;
  return { start: item.start, end: item.end + behind };
}
