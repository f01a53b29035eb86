import type { ChainStep } from '../../../facts/evidence.js';

/** A value with its evidence, or the reason why reading alone cannot tell it. */
export type Resolved =
  | { value: string; chain: ChainStep[] }
  | { value: null; reason: string; chain: ChainStep[]; absent?: boolean };
