import type { Span } from './problem.js';

/**
 * The spans that hold each of some offsets, the outermost first. Both lists are gone through once, so the time grows with
 * their lengths and with how deep spans are in each other.
 */
export function coveringAt<Item extends Span>(items: readonly Item[], offsets: readonly number[]): Item[][] {
  const waiting = [...items].sort((a, b) => a.start - b.start || b.end - a.end);
  const found = new Map<number, Item[]>();
  let open: Item[] = [];
  let next = 0;
  for (const offset of [...offsets].sort((a, b) => a - b)) {
    open = open.filter(({ end }) => end > offset);
    for (let item = waiting[next]; item && item.start <= offset; item = waiting[++next])
      if (item.end > offset) open.push(item);
    found.set(offset, open);
  }
  return offsets.map((offset) => [...(found.get(offset) ?? [])]);
}
