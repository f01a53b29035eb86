import { useEffect, useState } from 'react';

const prefix = 'draft ';
/** Told to the window whenever a draft is kept or forgotten. */
const changed = 'drafts-changed';

/**
 * A text that somebody is writing. It is kept for this tab until it is forgotten, so neither leaving the page nor loading
 * it again loses it.
 * @param name tells it from other texts, such as by its page
 */
export function useKept(
  name: string,
  initial = '',
): [text: string, set: (text: string) => void, forget: () => void] {
  const key = `${prefix}${name}`;
  const [text, setText] = useState(() => sessionStorage.getItem(key) ?? initial);
  const set = (next: string) => {
    setText(next);
    if (next === initial) sessionStorage.removeItem(key);
    else keep(key, next);
    window.dispatchEvent(new Event(changed));
  };
  return [text, set, () => set(initial)];
}

/** Where the browser has no room for it, the text lives as long as its page. */
function keep(key: string, text: string): void {
  try {
    sessionStorage.setItem(key, text);
  } catch {
    sessionStorage.removeItem(key);
  }
}

/** The names of the drafts of this tab that begin so, without that beginning. */
export function useDrafts(beginning: string): string[] {
  const read = () =>
    Object.keys(sessionStorage)
      .filter((key) => key.startsWith(prefix + beginning))
      .map((key) => key.slice(prefix.length + beginning.length))
      .sort();
  const [names, setNames] = useState(read);
  useEffect(() => {
    const look = () => setNames((before) => (before.join('\n') === read().join('\n') ? before : read()));
    window.addEventListener(changed, look);
    return () => window.removeEventListener(changed, look);
  });
  return names;
}
