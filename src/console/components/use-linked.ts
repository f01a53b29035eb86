import type { LinkedTree } from '../../api/trees.js';
import { useTrees } from '../queries.js';
import type { Question } from '../tree-queries.js';

/** The linked tree that a question is about; `isOther` where one is linked and the last reading was of another. */
export function useLinked(question: Question): { linked: LinkedTree | undefined; isOther: boolean } {
  const own = (useTrees().data ?? []).filter((tree) => tree.title === question.title);
  const linked = own.find(({ snapshot }) => snapshot === question.snapshot);
  return { linked, isOther: own.length > 0 && linked === undefined };
}
