import type { Span } from './problem.js';

/**
 * Finds the spans that hold another, the outermost first. The spans of a syntax tree hold each other or are apart. Making
 * the finder sorts them once; each search takes as long as the result, and a logarithm.
 */
export function enclosing<Item extends Span>(items: readonly Item[]): (span: Span) => Item[] {
  const sorted = [...items].sort((a, b) => a.start - b.start || b.end - a.end);
  const outer: number[] = [];
  for (const [at, item] of sorted.entries()) {
    let holds = at - 1;
    for (let span = sorted[holds]; span && span.end < item.end; span = sorted[holds])
      holds = outer[holds] ?? -1;
    outer.push(holds);
  }
  return ({ start, end }) => {
    let [low, high] = [0, sorted.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((sorted[middle]?.start ?? 0) <= start) low = middle + 1;
      else high = middle;
    }
    const found: Item[] = [];
    let at = low - 1;
    for (let item = sorted[at]; item; item = sorted[at]) {
      if (item.end >= end) found.push(item);
      at = outer[at] ?? -1;
    }
    return found.reverse();
  };
}
