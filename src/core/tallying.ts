import type { CheckContext, Finding } from './checks/model.js';
import { rules } from './checks/rules/index.js';
import { runChecks } from './checks/run.js';
import { surveyVersion } from './facts/model.js';
import type { Profile } from './network/model.js';
import { recogniser } from './network/recognise.js';
import type { Title } from './roster/model.js';
import type { TallyHistory } from './tally/history.js';
import { stakeOf, type Stake } from './tally/stake.js';

const tallyRules = rules.filter(({ meta }) => meta.id.startsWith('tally/'));

/** What daily numbers are checked with. */
export interface TallyCheck {
  /** Null for numbers that belong to no title. */
  title: { id: string; title: Title } | null;
  profiles: readonly Profile[];
  tally: TallyHistory;
  /** ISO 8601. */
  now: string;
}

/** A finding in daily numbers, and the money that is at stake. */
export interface TallyFinding extends Finding {
  stake: Stake | null;
}

/** What the rules say of daily numbers, without any tree; what most is lost by comes first. */
export function tallyFindings({ title, profiles, tally, now }: TallyCheck): TallyFinding[] {
  const context: CheckContext = {
    survey: {
      version: surveyVersion,
      tree: '',
      title: null,
      stacks: [],
      passedOver: [],
      editions: [],
      facts: [],
      unresolved: [],
      problems: [],
    },
    profiles,
    recogniser: recogniser([]),
    title: title?.title ?? null,
    titleId: title?.id ?? null,
    inventories: [],
    tally,
    now,
  };
  const findings = runChecks(context, tallyRules).findings.map((finding) => ({
    ...finding,
    stake: stakeOf(tally, finding),
  }));
  return findings.sort((a, b) => (b.stake?.micros ?? 0) - (a.stake?.micros ?? 0));
}
