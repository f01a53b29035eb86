/** Files that are worked on at once: most of the time goes into waiting for the disk. */
const concurrency = 24;

/** Runs a task for each item, several at once. Results come in the order of the items; the first error ends it. */
export async function mapConcurrently<Item, Result>(
  items: readonly Item[],
  task: (item: Item, index: number) => Promise<Result>,
): Promise<Result[]> {
  const results: Result[] = [];
  const waiting = items.entries();
  let failed = false;
  const worker = async () => {
    for (const [index, item] of waiting) {
      if (failed) return;
      try {
        results[index] = await task(item, index);
      } catch (error) {
        failed = true;
        throw error;
      }
    }
  };
  const ended = await Promise.allSettled(Array.from({ length: Math.min(concurrency, items.length) }, worker));
  for (const one of ended) if (one.status === 'rejected') throw one.reason;
  return results;
}
