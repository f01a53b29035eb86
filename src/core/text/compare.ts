/** The order of two texts, by their code units. */
export function compareText(one: string, other: string): number {
  return one < other ? -1 : one > other ? 1 : 0;
}
