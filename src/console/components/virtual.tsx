import { useVirtualizer, type VirtualItem } from '@tanstack/react-virtual';
import type { RefObject } from 'react';

/** Which rows of a long table are drawn, and how much room the others take. */
export interface DrawnRows {
  items: VirtualItem[];
  before: number;
  after: number;
  measure: (row: Element | null) => void;
}

/** Draws only the rows in view of a table that scrolls by itself. */
export function useDrawnRows(
  scroll: RefObject<HTMLElement | null>,
  count: number,
  height: number,
): DrawnRows {
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => scroll.current,
    estimateSize: () => height,
    overscan: 20,
  });
  const items = virtual.getVirtualItems();
  return {
    items,
    before: items[0]?.start ?? 0,
    after: virtual.getTotalSize() - (items.at(-1)?.end ?? 0),
    measure: virtual.measureElement,
  };
}

/** The room of rows that are not drawn. */
export function Room({ height, columns }: { height: number; columns: number }) {
  if (height <= 0) return null;
  return (
    <tr aria-hidden="true" className="room">
      <td colSpan={columns} style={{ height }} />
    </tr>
  );
}
