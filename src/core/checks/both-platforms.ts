import { valueAt } from '../text/own-values.js';
import { platforms, type Platform } from '../words/words.js';
import type { Fact } from '../facts/model.js';
import type { CheckContext } from './model.js';
import { editionScopes, type EditionScope } from './scope.js';

/** A unit ID in code that belongs to the other platform than the build it is in. */
export interface MisplacedUnit {
  scope: EditionScope;
  fact: Fact;
  holder: Platform;
  /** How it came there: one ID for both platforms, the two branches of a choice exchanged, or otherwise. */
  how: 'one for both' | 'swapped' | 'other';
}

/** Every unit ID that is in the build of the platform that it does not belong to. */
export function unitsOfOtherPlatform(context: CheckContext): MisplacedUnit[] {
  const scopes = editionScopes(context);
  const misplaced = scopes.flatMap((scope) =>
    scope.facts.flatMap((fact): Omit<MisplacedUnit, 'how'>[] => {
      if (fact.kind !== 'unit-id' || !fact.placement || !fact.network) return [];
      const units = valueAt(valueAt(scope.title.placements, fact.placement)?.units, fact.network) ?? {};
      const holds = platforms.filter((platform) => Object.values(units[platform] ?? {}).includes(fact.value));
      const [holder] = holds;
      return holder === undefined || holds.includes(scope.platform) ? [] : [{ scope, fact, holder }];
    }),
  );
  return misplaced.map((one): MisplacedUnit => {
    const there = scopes.find(({ platform }) => platform === one.holder);
    const both = there?.facts.some((fact) => fact.kind === 'unit-id' && samePlace(fact, one.fact));
    const swapped = misplaced.some(
      (other) => other.scope !== one.scope && isOtherBranch(one.fact, other.fact),
    );
    return { ...one, how: both ? 'one for both' : swapped ? 'swapped' : 'other' };
  });
}

function samePlace({ place: a }: Fact, { place: b }: Fact): boolean {
  return a.path === b.path && a.line === b.line && a.column === b.column;
}

/** Whether two IDs are in the two branches of one choice. */
function isOtherBranch(one: Fact, other: Fact): boolean {
  const [a, b] = [one.code?.conditions.at(-1), other.code?.conditions.at(-1)];
  if (!a || !b || one.place.path !== other.place.path || one.network !== other.network) return false;
  return a.text === b.text ? a.holds !== b.holds : a.holds && b.holds && one.placement === other.placement;
}
