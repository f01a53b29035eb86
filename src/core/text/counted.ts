/**
 * A number with its noun: `1 step`, `2 steps`, `1,204 files`.
 * @param many the noun of more than one, where that has another ending
 */
export function counted(number: number, what: string, many = `${what}s`): string {
  return `${number.toLocaleString('en')} ${number === 1 ? what : many}`;
}
