import type { Title } from '../../../src/core/roster/model.js';
import type { HandWork } from '../rules.js';

/** A tree with mistakes that are planted, and things beside them that are right on purpose. */
export interface PlantedTree {
  name: string;
  files: Record<string, string>;
  title: Title;
  /** Where wiring puts the placebook, so that all code that uses it can refer to it. */
  book: string;
  /** Each mistake: the rule that names it, the file, and the text of the line at which it is named. */
  wrong: readonly (readonly [rule: string, path: string, line: string, why: string])[];
  /** What a person does who follows the advice that wiring does not follow. */
  byHand: HandWork;
  /** What looks like a mistake and is none. */
  right: readonly (readonly [path: string, text: string, why: string])[];
}

export const below = (folder: string, files: Record<string, string>): Record<string, string> =>
  Object.fromEntries(Object.entries(files).map(([path, content]) => [`${folder}/${path}`, content]));
