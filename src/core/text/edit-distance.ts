/** The number of characters to add, remove or replace to turn one text into the other; undefined above `most`. */
export function editsApart(a: string, b: string, most: number): number | undefined {
  if (Math.abs(a.length - b.length) > most) return undefined;
  let row = Array.from({ length: b.length + 1 }, (_, at) => at);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      const kept = (row[j - 1] ?? 0) + (a[i - 1] === b[j - 1] ? 0 : 1);
      next.push(Math.min(kept, (row[j] ?? 0) + 1, (next[j - 1] ?? 0) + 1));
    }
    if (Math.min(...next) > most) return undefined;
    row = next;
  }
  const found = row[b.length] ?? 0;
  return found <= most ? found : undefined;
}
