import { entryOf, holdsPlain, lackingIn, type PlainValue } from '../../../formats/plist/plain.js';
import { removeEntry } from '../../../formats/plist/edit.js';
import type { PlistValue } from '../../../formats/plist/read.js';
import { removeElement } from '../../../formats/xml/edit.js';
import type { Edit } from '../../../text/edit.js';

/** What a network wants in a value, what others want there, and which parts wiring made. */
export interface Share {
  mine: PlainValue;
  others: readonly PlainValue[];
  isMade: (way: string[], item?: PlainValue) => boolean;
}

/** A part of a value: the entry at the end of a way, or the item of the array there. */
interface Part {
  way: string[];
  at?: number;
}

/** The parts of a dictionary or an array that are one network's alone and that wiring made, the last first. */
export function partsAlone(found: PlainValue, { mine, others, isMade }: Share, way: string[] = []): Part[] {
  if (Array.isArray(found) && Array.isArray(mine)) {
    const kept = others.flatMap((other) => (Array.isArray(other) ? other : []));
    const parts = found.flatMap((item, at): Part[] => {
      const wanted = mine.find((one) => holdsPlain(item, one));
      const isAlone = wanted !== undefined && isMade(way, wanted);
      return isAlone && !kept.some((other) => holdsPlain(item, other)) ? [{ way, at }] : [];
    });
    return parts.reverse();
  }
  if (typeof found !== 'object' || Array.isArray(found)) return [];
  const entries = Object.entries(found).reverse();
  return entries.flatMap(([key, held]): Part[] => {
    const own = entryOf(mine, key);
    if (own === undefined) return [];
    const here = [...way, key];
    const also = others.map((other) => entryOf(other, key)).filter((value) => value !== undefined);
    // What a person added to an entry of ours is not ours to take away.
    const isOnlyOurs = lackingIn(own, held).length === 0;
    if (also.length === 0 && isMade(here) && isOnlyOurs) return [{ way: here }];
    return partsAlone(held, { mine: own, others: also, isMade }, here);
  });
}

/** The edits that take such parts out of a property list. */
export function partRemovals(text: string, value: PlistValue, parts: readonly Part[]): Edit[] {
  return parts.flatMap(({ way, at }): Edit[] => {
    let holder: PlistValue | undefined = value;
    for (const key of at === undefined ? way.slice(0, -1) : way)
      holder = holder?.type === 'dict' ? holder.entries.find((entry) => entry.key === key)?.value : undefined;
    if (at !== undefined) {
      const item = holder?.type === 'array' ? holder.items[at] : undefined;
      return item ? [removeElement(text, item.element)] : [];
    }
    const entry = holder?.type === 'dict' ? holder.entries.find(({ key }) => key === way.at(-1)) : undefined;
    return entry ? [removeEntry(text, entry)] : [];
  });
}
