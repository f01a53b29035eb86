import type { CheckContext, Finding } from './checks/model.js';
import { rules } from './checks/rules/index.js';
import { runChecks } from './checks/run.js';
import type { FactOf } from './facts/model.js';

const rehearsalRules = rules.filter(({ meta }) => meta.id.startsWith('rehearsal/'));

/** What the rules say of what a rehearsal saw. */
export function rehearsalFindings(context: CheckContext, seen: readonly FactOf<'rehearsed'>[]): Finding[] {
  const survey = { ...context.survey, facts: [...context.survey.facts, ...seen] };
  return runChecks({ ...context, survey }, rehearsalRules).findings;
}
