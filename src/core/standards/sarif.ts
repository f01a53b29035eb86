import type { CheckReport, Finding, RuleMeta } from '../checks/model.js';
import { printableValue } from '../text/printable.js';
import type { Place } from '../survey/model.js';

const levels = { blocker: 'error', warning: 'warning', note: 'note' } as const;

/** What a SARIF log says of the program that made it. */
export interface SarifTool {
  version: string;
  rules: readonly RuleMeta[];
}

/** A check as a SARIF 2.1.0 log (OASIS standard, "Static Analysis Results Interchange Format"). */
export function sarifLog({ findings }: CheckReport, { version, rules }: SarifTool): Record<string, unknown> {
  const known = rules.map(({ id }) => id);
  return {
    $schema: 'https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json',
    version: '2.1.0',
    runs: [
      {
        tool: {
          driver: {
            name: 'Syndexa',
            version,
            rules: rules.map(({ id, severity, ifShipped, mend }) => ({
              id,
              shortDescription: { text: ifShipped },
              help: { text: mend },
              defaultConfiguration: { level: levels[severity] },
            })),
          },
        },
        columnKind: 'utf16CodeUnits',
        results: printableValue(findings).map((finding) => resultOf(finding, known.indexOf(finding.rule))),
      },
    ],
  };
}

function resultOf(finding: Finding, ruleIndex: number): Record<string, unknown> {
  const { rule, severity, message, place, chain, fingerprint, platform, variants, network, placement } =
    finding;
  const related = chain.flatMap(({ what, value, place: at }) =>
    at ? [{ ...locationOf(at), message: { text: value === null ? what : `${what}: ${value}` } }] : [],
  );
  return {
    ruleId: rule,
    ...(ruleIndex < 0 ? {} : { ruleIndex }),
    level: levels[severity],
    message: { text: message },
    locations: place ? [locationOf(place)] : [],
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

function locationOf({ path, line, column, endLine, endColumn }: Place): Record<string, unknown> {
  const region = {
    startLine: line,
    startColumn: column,
    ...(endLine ? { endLine } : {}),
    ...(endColumn ? { endColumn } : {}),
  };
  const uri = path.split('/').map(encodeURIComponent).join('/');
  return { physicalLocation: { artifactLocation: { uri, uriBaseId: '%SRCROOT%' }, region } };
}
