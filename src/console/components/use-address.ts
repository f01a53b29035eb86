import { useSearchParams } from 'react-router';

/** What a page is set to is part of its address: it stays on reload, in another tab, and when it is passed on. */
export function useAddress(): [URLSearchParams, (changes: Record<string, string | null>) => void] {
  const [search, setSearch] = useSearchParams();
  const set = (changes: Record<string, string | null>) =>
    setSearch(
      (known) => {
        const next = new URLSearchParams(known);
        for (const [name, value] of Object.entries(changes))
          if (value === null || value === '') next.delete(name);
          else next.set(name, value);
        return next;
      },
      { replace: true },
    );
  return [search, set];
}
