import type { StackDescription } from '../stacks/description.js';
import * as all from '../stacks/descriptions.js';

/** Every stack, as it is described without a tree. */
export const described: readonly StackDescription[] = Object.values(all);

/** A stack by its id. */
export function stackNamed(id: string): StackDescription | undefined {
  return described.find((stack) => stack.id === id);
}
