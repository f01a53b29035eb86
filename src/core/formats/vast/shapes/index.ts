import { adShapes } from './ads.js';
import { besideShapes } from './beside.js';
import { creativeShapes } from './creatives.js';
import { linearShapes } from './linear.js';
import type { ElementRule } from './rule.js';
import { sharedShapes } from './shared.js';

/**
 * The elements of VAST by shape, as the field tables of VAST 2.0 to 4.3 describe them. An element of one name has two
 * shapes where an ad of its own and a wrapper hold different things.
 */
export const elementRules: ReadonlyMap<string, ElementRule> = new Map(
  Object.entries({ ...adShapes, ...creativeShapes, ...linearShapes, ...besideShapes, ...sharedShapes }),
);
