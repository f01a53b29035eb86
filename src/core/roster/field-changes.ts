/** One field that a change of the record set, took away or changed, in words. */
export interface FieldLine {
  /** The way to the field, its names joined by dots. */
  field: string;
  was: string | undefined;
  is: string | undefined;
}

/** Values nested deeper than this are shown as JSON. */
const maxDepth = 20;

/** What differs between two values of the record, field by field: those that stayed are left out. */
export function fieldLines(was: unknown, is: unknown, path = ''): FieldLine[] {
  const [before, after] = [leavesOf(was, path, 0), leavesOf(is, path, 0)];
  return [...new Set([...before.keys(), ...after.keys()])].flatMap((field) => {
    const line = { field, was: before.get(field), is: after.get(field) };
    return line.was === line.is ? [] : [line];
  });
}

/** The plain values inside a value, by the way to each. Lists of plain values are one. */
function leavesOf(value: unknown, path: string, depth: number): Map<string, string> {
  if (value === null || value === undefined) return new Map();
  if (typeof value !== 'object') return new Map([[path, valueText(value)]]);
  const isPlainList = Array.isArray(value) && value.every((item) => typeof item !== 'object');
  if (isPlainList) return new Map([[path, value.join(', ')]]);
  if (depth >= maxDepth) return new Map([[path, JSON.stringify(value)]]);
  const inside = Object.entries(value).flatMap(([name, inner]) => [
    ...leavesOf(inner, path === '' ? name : `${path}.${name}`, depth + 1),
  ]);
  return new Map(inside);
}

/** A value of the record as a line. */
export function valueText(value: unknown): string {
  if (value === undefined || value === null) return '(nothing)';
  return typeof value === 'string' ? value : JSON.stringify(value);
}
