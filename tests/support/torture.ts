/** Whether the long forms of tests run (npm run torture); the short ones are part of every test run. */
export const isLong = process.env.SYNDEXA_TORTURE === '1';

/** How often something is tried: few times in every test run, many times in the long one. */
export function rounds(few: number, many: number): number {
  return isLong ? many : few;
}

/** Says what the long form of a test came to. */
export function report(line: string): void {
  process.stdout.write(`${line}\n`);
}
