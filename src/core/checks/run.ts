import { compareText } from '../text/compare.js';
import { valueAt } from '../text/own-values.js';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { CheckContext, CheckReport, Finding, Report, Rule } from './model.js';
import { severities } from './model.js';
import { breaksFile, mayBeInBrokenFile, mayBeInUnreadScript } from './broken-files.js';
import { summaryOf } from './accepted.js';
import { rules as allRules } from './rules/index.js';
import { withValues } from './placeholders.js';

/** Runs the rules over a survey. A rule that fails becomes a finding of its own; the others go on. */
export function runChecks(context: CheckContext, rules: readonly Rule[] = allRules): CheckReport {
  const findings = rules.flatMap((rule): Finding[] => {
    if (rule.meta.needsTitle && !context.title) return [];
    try {
      const reports = [...rule.run(context)].filter((report) => isSure(rule, report, context));
      return merged(acrossPlatforms(reports).map((report) => findingOf(rule, report, context)));
    } catch (error) {
      return [engineFinding(rule, error)];
    }
  });
  findings.sort(
    (a, b) =>
      severities.indexOf(a.severity) - severities.indexOf(b.severity) ||
      compareText(a.place?.path ?? '', b.place?.path ?? '') ||
      (a.place?.line ?? 0) - (b.place?.line ?? 0) ||
      compareText(a.rule, b.rule) ||
      compareText(a.fingerprint, b.fingerprint),
  );
  return {
    title: context.titleId,
    summary: summaryOf(findings),
    findings,
  };
}

/**
 * Whether a report can be relied on where files are broken: what is in such a file, or is missing where it may hold
 * it, follows from the one fault that is reported for the file.
 */
function isSure({ meta }: Rule, report: Report, { survey }: CheckContext): boolean {
  const { platform = null, place } = report;
  if (meta.id.startsWith('tree/')) return true;
  if (survey.problems.some((problem) => problem.path === place?.path && breaksFile(problem))) return false;
  if (meta.mayBeInScript && mayBeInUnreadScript(survey, report)) return false;
  return !meta.isAbsence || !mayBeInBrokenFile(survey, { platform, path: place?.path });
}

/** What one file does to both platforms alike is one fault of both. */
function acrossPlatforms(reports: readonly Report[]): Report[] {
  const key = ({ message, data, network, placement, place }: Report) =>
    JSON.stringify([message, data, network, placement, place?.path, place?.line, place?.column]);
  const platforms = new Map<string, Set<string>>();
  for (const report of reports)
    if (report.place && report.platform)
      platforms.set(key(report), (platforms.get(key(report)) ?? new Set()).add(report.platform));
  const told = new Set<string>();
  return reports.flatMap((report): Report[] => {
    const mine = key(report);
    if ((platforms.get(mine)?.size ?? 0) < 2) return [report];
    if (told.has(mine)) return [];
    told.add(mine);
    return [{ ...report, platform: null, module: null, variants: [] }];
  });
}

/**
 * One fault that reaches several variants is one finding. The same fault at several places of a file is
 * several; their fingerprints are distinguished by their order.
 */
function merged(findings: readonly Finding[]): Finding[] {
  const byPlace = new Map<string, Finding>();
  const seen = new Map<string, number>();
  for (const finding of findings) {
    const { fingerprint, place, variants, chain } = finding;
    const key = JSON.stringify([fingerprint, place]);
    const known = byPlace.get(key);
    if (known) {
      known.variants.push(...variants.filter((name) => !known.variants.includes(name)));
      const steps = new Set(known.chain.map((step) => JSON.stringify(step)));
      known.chain.push(...chain.filter((step) => !steps.has(JSON.stringify(step))));
      continue;
    }
    const count = seen.get(fingerprint) ?? 0;
    seen.set(fingerprint, count + 1);
    byPlace.set(key, count === 0 ? finding : { ...finding, fingerprint: `${fingerprint}-${count + 1}` });
  }
  return [...byPlace.values()];
}

/** The values of messages that are sentences for people. They may be worded anew, so they do not identify a finding. */
const sentences: ReadonlySet<string> = new Set(['why', 'reason', 'fix']);

function findingOf({ meta }: Rule, report: Report, { titleId }: CheckContext): Finding {
  const template = valueAt(meta.messages, report.message);
  if (template === undefined) throw new Error(`The rule ${meta.id} has no message ${report.message}.`);
  // Commands that are advised name the title and the platform that are checked.
  const scope = { title: titleId ?? 'TITLE', platform: report.platform ?? 'PLATFORM' };
  const fill = (text: string) =>
    withValues(text, (name) => {
      const value = valueAt(report.data, name) ?? valueAt(report.changing, name) ?? valueAt(scope, name);
      if (value === undefined) throw new Error(`${meta.id} lacks a value for {${name}}: ${text}`);
      return value;
    });
  const finding: Omit<Finding, 'fingerprint'> = {
    rule: meta.id,
    severity: meta.severity,
    message: fill(template),
    mend: fill((report.mend && valueAt(meta.otherMends, report.mend)) || meta.mend),
    platform: report.platform ?? null,
    module: report.module ?? null,
    variants: [...(report.variants ?? [])],
    network: report.network ?? null,
    placement: report.placement ?? null,
    place: report.place ?? null,
    chain: [...(report.chain ?? [])],
  };
  // Neither lines nor wording count, so that unrelated edits and better messages leave fingerprints alone.
  const { rule, platform, module, network, placement, place } = finding;
  const data = Object.entries(report.data ?? {}).filter(([name]) => !sentences.has(name));
  const identity = [
    rule,
    report.message,
    platform,
    module,
    network,
    placement,
    place?.path,
    JSON.stringify(Object.fromEntries(data)),
  ];
  return { ...finding, fingerprint: bytesToHex(sha256(utf8ToBytes(JSON.stringify(identity)))).slice(0, 16) };
}

function engineFinding({ meta }: Rule, error: unknown): Finding {
  const detail = error instanceof Error ? error.message : String(error);
  return {
    rule: 'engine/rule-failed',
    severity: 'warning',
    message: `The rule ${meta.id} failed and checked nothing: ${detail}`,
    mend: 'Report this with the tree that shows it; the other rules were run.',
    platform: null,
    module: null,
    variants: [],
    network: null,
    placement: null,
    place: null,
    chain: [],
    fingerprint: `engine-${meta.id}`,
  };
}
