import { useEffect } from 'react';

/** `j` and `k` move the focus to the next finding and to the one before, where nothing is typed. */
export function useFindingKeys(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key !== 'j' && event.key !== 'k') return;
      if (
        event.target instanceof Element &&
        event.target.closest('input, textarea, select, [contenteditable=true]')
      )
        return;
      const all = [...document.querySelectorAll<HTMLElement>('article.finding')];
      const at = all.findIndex((one) => one.contains(document.activeElement));
      const next = all[event.key === 'j' ? at + 1 : Math.max(at - 1, 0)];
      next?.focus();
      next?.scrollIntoView({ block: 'nearest' });
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
}
