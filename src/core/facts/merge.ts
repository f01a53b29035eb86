/** Puts together what is the same in several variants: one entry, its variants joined in order. */
export function mergeVariants<Entry extends { variants: string[] }>(entries: readonly Entry[]): Entry[] {
  const merged = new Map<string, Entry>();
  for (const entry of entries) {
    const key = JSON.stringify({ ...entry, variants: undefined });
    const known = merged.get(key);
    if (known) known.variants.push(...entry.variants.filter((name) => !known.variants.includes(name)));
    else merged.set(key, { ...entry, variants: [...entry.variants] });
  }
  return [...merged.values()];
}
