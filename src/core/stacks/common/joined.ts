import type { StackWiring } from '../stack.js';

/** Several wirings as one. */
export function joined(wirings: readonly StackWiring[]): StackWiring {
  return {
    changes: wirings.flatMap(({ changes }) => changes),
    byHand: wirings.flatMap(({ byHand }) => byHand),
  };
}
