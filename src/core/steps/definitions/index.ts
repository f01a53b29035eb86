import type { StepDefinition } from '../model.js';
import * as all from './all.js';

/** Every kind of step, in the order of their IDs. Their order on the way comes from what they require. */
export const definitions: readonly StepDefinition[] = Object.values<StepDefinition>(all).sort((a, b) =>
  a.id < b.id ? -1 : 1,
);
