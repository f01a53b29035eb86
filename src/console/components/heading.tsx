import { useEffect, useRef, type ReactNode } from 'react';
import { useLocation } from 'react-router';

/** The address whose heading had the focus last. On the first page, the browser decides about the focus. */
let headed: string | undefined;

/**
 * The question that a page answers: the name of the document too. When somebody comes from another page, the focus
 * moves here, so that what reads the page aloud begins with it.
 */
export function Heading({ children }: { children: ReactNode }) {
  const heading = useRef<HTMLHeadingElement>(null);
  const { pathname } = useLocation();
  useEffect(() => {
    document.title = `${heading.current?.textContent ?? ''} · Syndexa`;
  });
  useEffect(() => {
    const isSpokenTo = document.querySelector('[role=dialog]') !== null;
    if (headed !== undefined && headed !== pathname && !isSpokenTo) heading.current?.focus();
    headed = pathname;
  }, [pathname]);
  return (
    <h1 ref={heading} tabIndex={-1}>
      {children}
    </h1>
  );
}
