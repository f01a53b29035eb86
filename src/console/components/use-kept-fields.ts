import { useKept } from './use-kept.js';

/** The fields of a form that somebody is filling in, kept as {@link useKept} keeps a text. */
export function useKeptFields<Fields extends Record<string, string>>(
  name: string,
  blank: Fields,
): [fields: Fields, set: (part: Partial<Fields>) => void, forget: () => void] {
  const empty = JSON.stringify(blank);
  const [text, keep, forget] = useKept(name, empty);
  const fields = { ...blank, ...(JSON.parse(text) as Partial<Fields>) };
  return [fields, (part) => keep(JSON.stringify({ ...fields, ...part })), forget];
}
