import { sarifDocument, sarifLocation } from '../standards/sarif.js';
import { printableValue } from '../text/printable.js';
import type { CheckReport, Finding, RuleMeta } from './model.js';

const levels = { blocker: 'error', warning: 'warning', note: 'note' } as const;

/** What a SARIF log says of the program that made it. */
export interface SarifTool {
  version: string;
  rules: readonly RuleMeta[];
}

/** A check as a SARIF log. */
export function sarifLog({ findings }: CheckReport, { version, rules }: SarifTool): Record<string, unknown> {
  const known = rules.map(({ id }) => id);
  const described = rules.map(({ id, severity, ifShipped, mend }) => ({
    id,
    shortDescription: { text: ifShipped },
    help: { text: mend },
    defaultConfiguration: { level: levels[severity] },
  }));
  const results = printableValue(findings).map((finding) => resultOf(finding, known.indexOf(finding.rule)));
  return sarifDocument({ version, rules: described }, results);
}

function resultOf(finding: Finding, ruleIndex: number): Record<string, unknown> {
  const { rule, severity, message, place, chain, fingerprint, platform, variants, network, placement } =
    finding;
  const related = chain.flatMap(({ what, value, place: at }) =>
    at ? [{ ...sarifLocation(at), message: { text: value === null ? what : `${what}: ${value}` } }] : [],
  );
  return {
    ruleId: rule,
    ...(ruleIndex < 0 ? {} : { ruleIndex }),
    level: levels[severity],
    message: { text: message },
    locations: place ? [sarifLocation(place)] : [],
    ...(related.length > 0 ? { relatedLocations: related } : {}),
    partialFingerprints: { 'syndexa/v1': fingerprint },
    ...(finding.accepted && !finding.accepted.ended
      ? {
          suppressions: [
            {
              kind: 'external',
              status: 'accepted',
              justification: `${finding.accepted.reason} (${finding.accepted.who}, until ${finding.accepted.until})`,
            },
          ],
        }
      : {}),
    properties: { platform, variants, network, placement },
  };
}
