import type { Rule } from '../model.js';
import * as all from './all.js';

/** Every rule, in the order of their IDs. */
export const rules: readonly Rule[] = Object.values(all).sort((a, b) => (a.meta.id < b.meta.id ? -1 : 1));

/** A rule by its id; undefined where there is none. */
export function ruleNamed(id: string): Rule | undefined {
  return rules.find(({ meta }) => meta.id === id);
}
