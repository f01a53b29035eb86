/**
 * The value that a table holds under a name; undefined when it holds none. Names come from people, trees and networks,
 * and some of them (`constructor`, `toString`) are members of every object.
 */
export function valueAt<Value>(
  table: Readonly<Record<string, Value>> | null | undefined,
  name: string | undefined,
): Value | undefined {
  return table && name !== undefined && Object.hasOwn(table, name) ? table[name] : undefined;
}

/** Puts a value into a table, under any name: `__proto__` too becomes a field like the others. */
export function putAt<Value>(table: Record<string, Value>, name: string, value: Value): void {
  Object.defineProperty(table, name, { value, writable: true, enumerable: true, configurable: true });
}

/** The value that a table holds under a name; made and put there when it holds none. */
export function entryAt<Value>(
  table: Record<string, Value>,
  name: string,
  make: () => NoInfer<Value>,
): Value {
  const found = valueAt(table, name);
  if (found !== undefined) return found;
  const made = make();
  putAt(table, name, made);
  return made;
}
