import { useEffect } from 'react';
import { useLocation, useNavigationType } from 'react-router';

const stored = 'scroll';
/** So many visits of pages are remembered, the latest. */
const most = 50;
/** How long the content of a page may take to come, in milliseconds. */
const patience = 5_000;

/** The parts of a page that scroll: the page itself, then its long tables. */
function scrolling(): Element[] {
  return [document.documentElement, ...document.querySelectorAll('.ledger-scroll')];
}

function known(): [key: string, tops: number[]][] {
  try {
    return JSON.parse(sessionStorage.getItem(stored) ?? '[]') as [string, number[]][];
  } catch {
    return [];
  }
}

function keep(key: string): void {
  const tops = scrolling().map(({ scrollTop }) => Math.round(scrollTop));
  const others = known().filter(([other]) => other !== key);
  sessionStorage.setItem(stored, JSON.stringify([...others, [key, tops]].slice(-most)));
}

/** A page that is loaded again, or gone back to, is where it was: as soon as its content is long enough. */
export function useScrollKept(): void {
  const { key } = useLocation();
  const kind = useNavigationType();
  useEffect(() => {
    const wanted = kind === 'POP' ? known().find(([other]) => other === key)?.[1] : undefined;
    const until = performance.now() + patience;
    let isRestored = wanted === undefined;
    let frame = 0;
    const restore = () => {
      if (isRestored) return;
      const parts = scrolling();
      isRestored = (wanted ?? []).every((top, at) => {
        const part = parts[at];
        if (!part) return false;
        part.scrollTop = top;
        return Math.abs(part.scrollTop - top) < 2;
      });
      if (!isRestored && performance.now() < until) frame = requestAnimationFrame(restore);
      isRestored ||= performance.now() >= until;
    };
    const onScroll = () => {
      if (!isRestored) return;
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(() => keep(key));
    };
    // Who scrolls, or presses a key, has found another place.
    const onInput = () => {
      isRestored = true;
    };
    if (isRestored) frame = requestAnimationFrame(() => keep(key));
    else frame = requestAnimationFrame(restore);
    document.addEventListener('scroll', onScroll, { capture: true, passive: true });
    for (const event of ['wheel', 'touchstart', 'keydown'] as const)
      document.addEventListener(event, onInput, { passive: true });
    return () => {
      cancelAnimationFrame(frame);
      document.removeEventListener('scroll', onScroll, { capture: true });
      for (const event of ['wheel', 'touchstart', 'keydown'] as const)
        document.removeEventListener(event, onInput);
    };
  }, [key, kind]);
}
