import { printableValue } from '../text/printable.js';
import type { CheckReport, Finding } from '../checks/model.js';

/**
 * A check as JUnit XML, as continuous integration servers read it: a suite per group of rules, a case per
 * finding that failed, was accepted (skipped), and one for each rule that found nothing.
 * Source: the `junit-10.xsd` that servers publish.
 */
export function junitXml({ findings }: CheckReport, rules: readonly string[]): string {
  const silent = rules.filter((rule) => !findings.some((finding) => finding.rule === rule));
  const groups = [...new Set([...findings.map(({ rule }) => rule), ...rules].map(groupOf))].sort();
  const failing = findings.filter(counts);
  const total = `tests="${findings.length + silent.length}" failures="${failing.length}" errors="0"`;
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<testsuites name="Syndexa" ${total}>`,
    ...groups.flatMap((group) => suite(group, findings, silent)),
    '</testsuites>',
    '',
  ].join('\n');
}

function suite(group: string, findings: readonly Finding[], silent: readonly string[]): string[] {
  const mine = findings.filter(({ rule }) => groupOf(rule) === group);
  const clean = silent.filter((rule) => groupOf(rule) === group);
  const skipped = mine.filter((finding) => !counts(finding)).length;
  const numbers = `tests="${mine.length + clean.length}" failures="${mine.length - skipped}" errors="0" skipped="${skipped}"`;
  return [
    `  <testsuite name="${escape(group)}" ${numbers}>`,
    ...mine.flatMap(findingCase),
    ...clean.map((rule) => `    <testcase classname="${escape(group)}" name="${escape(rule)}"/>`),
    '  </testsuite>',
  ];
}

function findingCase(finding: Finding): string[] {
  const { rule, message, mend, place, severity, variants, platform, fingerprint, accepted } =
    printableValue(finding);
  const where = place ? `${place.path}:${place.line}:${place.column}` : '';
  const file = place ? ` file="${escape(place.path)}" line="${place.line}"` : '';
  const name = `${rule}${where ? ` at ${where}` : ''} (${fingerprint})`;
  const text = [where, `${platform ?? ''} ${variants.join(', ')}`.trim(), mend].filter(Boolean).join('\n');
  const inner =
    accepted && !accepted.ended
      ? `      <skipped message="${escape(`Accepted until ${accepted.until} by ${accepted.who}: ${accepted.reason}`)}"/>`
      : `      <failure type="${severity}" message="${escape(message)}">${escape(text)}</failure>`;
  return [
    `    <testcase classname="${escape(groupOf(rule))}" name="${escape(name)}"${file}>`,
    inner,
    '    </testcase>',
  ];
}

function counts({ accepted }: Finding): boolean {
  return !accepted || accepted.ended;
}

function groupOf(rule: string): string {
  return rule.split('/')[0] ?? rule;
}

/** Text for an attribute or an element; what XML 1.0 cannot hold becomes a replacement character. */
function escape(text: string): string {
  return text
    .replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd]/g, '\ufffd')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;')
    .replace(/\n/g, '&#10;');
}
