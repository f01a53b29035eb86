import * as z from 'zod';
import type { CheckReport, Finding } from './model.js';

export const Acceptance = z
  .object({
    fingerprint: z.string(),
    rule: z.string(),
    message: z.string().meta({ description: 'What the finding said when it was accepted.' }),
    reason: z.string(),
    until: z.string().meta({ description: 'The last day on which it holds: 2027-03-31.' }),
    who: z.string(),
    at: z.string(),
  })
  .meta({ description: 'An accepted finding: why, and until when.' });
export type Acceptance = z.infer<typeof Acceptance>;

/**
 * Marks the findings that are accepted today. They stay in the report and are no longer counted; when the
 * date is past the finding counts again, and says so.
 * @param now ISO 8601
 */
export function withAcceptances(
  findings: readonly Finding[],
  acceptances: readonly Acceptance[],
  now: string,
): Finding[] {
  const today = now.slice(0, 10);
  const known = new Map(acceptances.map((acceptance) => [acceptance.fingerprint, acceptance]));
  return findings.map((finding) => {
    const acceptance = known.get(finding.fingerprint);
    if (!acceptance) return finding;
    const { reason, until, who } = acceptance;
    return { ...finding, accepted: { reason, until, who, ended: until < today } };
  });
}

/** How many findings of each severity count: accepted ones do not. */
export function summaryOf(findings: readonly Finding[]): CheckReport['summary'] {
  const counted = findings.filter(({ accepted }) => !accepted || accepted.ended);
  const count = (severity: string) => counted.filter((finding) => finding.severity === severity).length;
  return {
    blocker: count('blocker'),
    warning: count('warning'),
    note: count('note'),
    accepted: findings.length - counted.length,
  };
}
