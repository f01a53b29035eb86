/** Items by what `keyOf` gives for each, in the order in which they come. */
export function groupBy<Item, Key>(items: Iterable<Item>, keyOf: (item: Item) => Key): Map<Key, Item[]> {
  const groups = new Map<Key, Item[]>();
  for (const item of items) {
    const key = keyOf(item);
    const mine = groups.get(key);
    if (mine) mine.push(item);
    else groups.set(key, [item]);
  }
  return groups;
}
