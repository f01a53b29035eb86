import { entryLines, removeItem } from '../../../formats/pbxproj/edit.js';
import { stringOf, type PbxDict, type PbxEntry } from '../../../formats/pbxproj/read.js';
import { groupBy } from '../../../text/group-by.js';
import type { Edit } from '../../../text/edit.js';

/** Takes objects out, each with the lines that it fills; with its section where nothing is left in that. */
export function objectLines(text: string, objects: PbxDict, ids: readonly string[]): Edit[] {
  const kinds = groupBy(objects.entries, ({ value }) => stringOf(value, 'isa') ?? '');
  return [...kinds].flatMap(([isa, entries]): Edit[] => {
    const gone = entries.filter(({ key }) => ids.includes(key));
    const section = gone.length === entries.length ? sectionOf(text, isa, gone) : undefined;
    return section
      ? [{ ...section, text: '' }]
      : gone.map((entry) => ({ ...entryLines(text, entry), text: '' }));
  });
}

/** The comments around all objects of a kind, and the blank line before them; undefined where there are none. */
function sectionOf(
  text: string,
  isa: string,
  entries: readonly PbxEntry[],
): { start: number; end: number } | undefined {
  const [first, last] = [entries[0], entries.at(-1)];
  if (!first || !last) return undefined;
  const before = new RegExp(`(?:\\r\\n|\\n|\\r)\\/\\* Begin ${isa} section \\*\\/(?:\\r\\n|\\n|\\r)[ \\t]*$`);
  const behind = new RegExp(
    `^[^\\r\\n]*(?:\\r\\n|\\n|\\r)\\/\\* End ${isa} section \\*\\/(?:\\r\\n|\\n|\\r)`,
  );
  const head = before.exec(text.slice(Math.max(0, first.start - 200), first.start))?.[0];
  const tail = behind.exec(text.slice(last.end, last.end + 300))?.[0];
  if (head === undefined || tail === undefined) return undefined;
  return { start: first.start - head.length, end: last.end + tail.length };
}

/** Removes items with these IDs from every list; a list that becomes empty is removed if wiring creates such lists. */
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
      return mine.map((item) => removeItem(text, item));
    });
  });
}
