import type { TreeProblem } from '../tree/tree.js';
import type { ByHand, Change } from '../edits/model.js';
import { groupBy } from '../text/group-by.js';
import { groupOf } from './choose.js';

/** A problem of a file that a wiring would cause. */
export interface NewProblem {
  path: string;
  line: number;
  message: string;
}

/** The problems that files have after some edits and did not have before. What was wrong before may move. */
export function newProblems(before: readonly TreeProblem[], after: readonly TreeProblem[]): NewProblem[] {
  const known = groupBy(before, keyOf);
  return [...groupBy(after, keyOf)].flatMap(([key, found]) => found.slice(known.get(key)?.length ?? 0));
}

function keyOf({ path, kind, message }: TreeProblem): string {
  return JSON.stringify([path, kind, message]);
}

/**
 * The groups of changes that cause problems: of those that change such a file the ones that do it alone, else all of
 * them.
 */
export function harmfulGroups(
  changes: readonly Change[],
  paths: ReadonlySet<string>,
  harmsAlone: (changes: readonly Change[]) => boolean,
): Set<string> {
  const suspects = [...groupBy(changes, groupOf)].filter(([, group]) =>
    group.some(({ path }) => paths.has(path)),
  );
  const guilty = suspects.filter(([, group]) => harmsAlone(group));
  return new Set((guilty.length > 0 ? guilty : suspects).map(([id]) => id));
}

/** The steps for edits that would have broken a file. */
export function brokenSteps(problems: readonly NewProblem[]): ByHand[] {
  return problems.map(({ path, line, message }) => ({
    platform: null,
    network: null,
    rule: null,
    what: `Edit ${path} by hand: the edits that were planned for it would have broken it, and were dropped. Please report this fault of Syndexa.`,
    why: `With them the file could not be read at line ${line}: ${message}`,
    where: path,
  }));
}

/** The steps for changes that overlap with another change. */
export function refusedSteps(refused: readonly Change[]): ByHand[] {
  return refused.map(({ path, platform, network, rules }) => ({
    platform,
    network,
    rule: rules[0] ?? null,
    what: `Write this and wire again: two changes of ${path} concern the same text, and only the first was planned.`,
    why: 'Edits of the same text cannot be put together without guessing.',
    where: path,
  }));
}
