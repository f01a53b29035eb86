import type { FieldProblem } from '../formats/yaml/read.js';
import type { Profile } from '../network/model.js';
import type { Roster } from './model.js';
import { titleValidator } from './validate.js';

/** What on record no longer fits when profiles change: a field of a title, with what is wrong with it then. */
export interface Misfit extends FieldProblem {
  title: string;
}

/** The fields of titles that fit the profiles as they are, and do not fit them as they will be. */
export function misfitsOf(
  { titles }: Pick<Roster, 'titles'>,
  before: readonly Profile[],
  after: readonly Profile[],
): Misfit[] {
  const [now, then] = [titleValidator(before), titleValidator(after)];
  return Object.entries(titles).flatMap(([id, title]) => {
    const known = new Set(now(title).map(({ field, message }) => `${field} ${message}`));
    return then(title)
      .filter(({ field, message }) => !known.has(`${field} ${message}`))
      .map((problem) => ({ title: id, ...problem }));
  });
}
