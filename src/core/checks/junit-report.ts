import { junitDocument, type JunitCase } from '../standards/junit.js';
import { printableValue } from '../text/printable.js';
import type { CheckReport, Finding } from './model.js';

/**
 * A check as JUnit XML: a suite per group of rules, a case per finding that failed or was accepted (skipped), and one
 * for each rule that found nothing.
 */
export function junitXml({ findings }: CheckReport, rules: readonly string[]): string {
  const silent = rules.filter((rule) => !findings.some((finding) => finding.rule === rule));
  const clean = silent.map((rule): JunitCase => ({ suite: groupOf(rule), name: rule }));
  return junitDocument([...findings.map(findingCase), ...clean]);
}

function findingCase(finding: Finding): JunitCase {
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
      : { failure: { type: severity, message, text } }),
  };
}

function groupOf(rule: string): string {
  return rule.split('/')[0] ?? rule;
}
