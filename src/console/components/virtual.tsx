import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useState, type RefObject } from 'react';
import { flushSync } from 'react-dom';

/** Which rows of a long table are drawn, and how much room the others take. */
export interface DrawnRows {
  items: readonly { index: number }[];
  before: number;
  after: number;
  measure: (row: Element | null) => void;
}

/** Draws only the rows in view of a table that scrolls by itself; on paper, all of them. */
export function useDrawnRows(
  scroll: RefObject<HTMLElement | null>,
  count: number,
  height: number,
): DrawnRows {
  const isPrinted = usePrinting();
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => scroll.current,
    estimateSize: () => height,
    overscan: 8,
  });
  if (isPrinted)
    return {
      items: Array.from({ length: count }, (_, index) => ({ index })),
      before: 0,
      after: 0,
      measure: () => undefined,
    };
  const items = virtual.getVirtualItems();
  return {
    items,
    before: items[0]?.start ?? 0,
    after: virtual.getTotalSize() - (items.at(-1)?.end ?? 0),
    measure: virtual.measureElement,
  };
}

/** Whether the page is being printed. The browser takes the picture as soon as it has said so. */
function usePrinting(): boolean {
  const [isPrinted, setPrinted] = useState(false);
  useEffect(() => {
    const begin = () => flushSync(() => setPrinted(true));
    const end = () => setPrinted(false);
    window.addEventListener('beforeprint', begin);
    window.addEventListener('afterprint', end);
    return () => {
      window.removeEventListener('beforeprint', begin);
      window.removeEventListener('afterprint', end);
    };
  }, []);
  return isPrinted;
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
