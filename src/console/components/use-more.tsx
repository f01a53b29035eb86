import { useState, type ReactNode } from 'react';

/**
 * The first of many things, and the button that shows more of them: a page of thousands would be slow to draw, and nobody
 * reads it to its end.
 * @param step how many are shown at first, and by each press
 */
export function useMore<Item>(
  items: readonly Item[],
  step: number,
): [shown: readonly Item[], more: ReactNode] {
  const [count, setCount] = useState(step);
  const left = items.length - count;
  const more = left > 0 && (
    <button
      type="button"
      className="btn btn-sm btn-outline-secondary mb-3"
      onClick={() => setCount(count + step)}
    >
      Show {Math.min(step, left)} more of {left}
    </button>
  );
  return [items.slice(0, count), more];
}
