import type { Fact } from '../facts/model.js';
import { misplacedUnits } from '../roster/misplaced-units.js';
import type { EditionScope } from './scope.js';

/** Advice for a unit ID in code where another one belongs. */
export const misplacedMend =
  'Write the unit that belongs here first: the call loads another format, or the code names another placement. Then syndexa wire --call-sites names it through the placebook.';

/** Tells whether a unit ID in the code of an edition is where another belongs, so that wiring leaves it. */
export function misplacedIn({ facts, title, platform, networks }: EditionScope): (fact: Fact) => boolean {
  const isMisplaced = misplacedUnits(facts, title, platform);
  return (fact) => {
    const profile = networks.find(({ id }) => id === fact.network);
    return profile !== undefined && isMisplaced(fact, profile);
  };
}
