import * as all from './all.js';
import type { Stack } from './stack.js';

/**
 * Every stack that can be read. Those that build both platforms come before the native ones, whose trees they contain.
 */
export const stacks: readonly Stack[] = Object.values<Stack>(all).sort(
  (a, b) => Number(a.native !== undefined) - Number(b.native !== undefined),
);
