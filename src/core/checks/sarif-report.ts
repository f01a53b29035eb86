import { sarifChange, sarifDocument, sarifLocation } from '../standards/sarif.js';
import { groupBy } from '../text/group-by.js';
import { printableText, printableValue } from '../text/printable.js';
import type { CheckReport, Finding, RuleMeta } from './model.js';

const levels = { blocker: 'error', warning: 'warning', note: 'note' } as const;

/** What a SARIF log says of the program that made it. */
export interface SarifTool {
  version: string;
  rules: readonly RuleMeta[];
  /** How long the text of a file is, in UTF-16 units; undefined when the tree has no such file. */
  lengthOf: (path: string) => number | undefined;
}

/** Where the program and its rules are described. */
const home = 'https://syndexa.example/';

/** A check as a SARIF log. */
export function sarifLog(
  { findings }: CheckReport,
  { version, rules, lengthOf }: SarifTool,
): Record<string, unknown> {
  const known = rules.map(({ id }) => id);
  const described = rules.map(({ id, severity, ifShipped, mend }) => ({
    id,
    shortDescription: { text: ifShipped },
    help: { text: mend },
    helpUri: `${home}rules/${id.replace('/', '-')}`,
    defaultConfiguration: { level: levels[severity] },
  }));
  const results = findings.map((finding) => ({
    ...resultOf(printableValue(finding), known.indexOf(finding.rule)),
    ...fixesOf(finding, lengthOf),
  }));
  return sarifDocument({ version, informationUri: home, rules: described }, results);
}

/** What wiring would do about a finding, file by file. */
function fixesOf({ fix, mend }: Finding, lengthOf: SarifTool['lengthOf']): { fixes?: unknown[] } {
  if (!fix) return {};
  const replacements = [
    ...fix.edits.map(({ path, start, end, text }) => ({ path, start, end, text })),
    ...fix.content.map(({ path, text }) => ({ path, start: 0, end: lengthOf(path) ?? 0, text })),
  ];
  const artifactChanges = [...groupBy(replacements, ({ path }) => path)].map(([path, of]) =>
    sarifChange(path, of),
  );
  return { fixes: [{ description: { text: printableText(mend) }, artifactChanges }] };
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
