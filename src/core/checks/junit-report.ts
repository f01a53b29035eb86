import { junitDocument, type JunitCase } from '../standards/junit.js';
import { printableValue } from '../text/printable.js';
import { severityNames } from '../words/names.js';
import type { CheckReport, Finding, Severity } from './model.js';

/**
 * A check as JUnit XML: a suite per group of rules, a case per finding, and one for each rule that found nothing. A
 * finding is a failure when it is at or above a severity; it is skipped when it is below, or was accepted.
 */
export function junitXml(
  { findings }: CheckReport,
  rules: readonly string[],
  failOn: Severity | 'never' = 'note',
): string {
  const silent = rules.filter((rule) => !findings.some((finding) => finding.rule === rule));
  const clean = silent.map((rule): JunitCase => ({ suite: groupOf(rule), name: rule }));
  const failing = failOn === 'never' ? [] : severityNames.slice(0, severityNames.indexOf(failOn) + 1);
  return junitDocument([...findings.map((finding) => findingCase(finding, failing)), ...clean]);
}

function findingCase(finding: Finding, failing: readonly Severity[]): JunitCase {
  const { rule, message, mend, place, severity, variants, platform, fingerprint, accepted } =
    printableValue(finding);
  const where = place ? `${place.path}:${place.line}:${place.column}` : '';
  const text = [where, `${platform ?? ''} ${variants.join(', ')}`.trim(), mend].filter(Boolean).join('\n');
  return {
    suite: groupOf(rule),
    name: `${rule}${where ? ` at ${where}` : ''} (${fingerprint})`,
    file: place ? { path: place.path, line: place.line } : undefined,
    ...(accepted && !accepted.ended
      ? { skipped: `Accepted until ${accepted.until} by ${accepted.who}: ${accepted.reason}` }
      : failing.includes(severity)
        ? { failure: { type: severity, message, text } }
        : { skipped: `${severity}: ${message} ${mend}` }),
  };
}

function groupOf(rule: string): string {
  return rule.split('/')[0] ?? rule;
}
