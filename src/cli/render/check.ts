import { counted } from '../../core/text/counted.js';
import { printableValue } from '../../core/text/printable.js';
import { byFix, type FixGroup } from '../../core/checks/by-fix.js';
import type { CheckReport, Finding, Severity } from '../../core/checks/model.js';
import { severityNames } from '../../core/words/names.js';
import type { Paint } from '../io.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { chainLines, placeText, wrap } from './places.js';

const shapes: Record<Severity, string> = { blocker: '■', warning: '▲', note: '○' };

const colourOf = (severity: Severity, paint: Paint) =>
  ({ blocker: paint.red, warning: paint.yellow, note: paint.blue })[severity];

function severityText(severity: Severity, paint: Paint): string {
  return colourOf(severity, paint)(`${shapes[severity]} ${severity}`);
}

function markOf(severity: Severity, paint: Paint): string {
  return colourOf(severity, paint)(shapes[severity]);
}

/** How a report is shown. */
export interface CheckView {
  width: number;
  /** The folder as the person named it, for commands that are given to copy. */
  directory: string;
  /** Whether every finding is shown in full: evidence, fingerprint, advice. */
  verbose: boolean;
  /** Whether to check a tree that matches no title alone. */
  anyTitle: boolean;
}

/** Findings for people: what is found, by what fixes it, and what to do next. */
export function checkText(report: CheckReport, paint: Paint, view: CheckView): string {
  const { title, summary, findings, snapshot, against, leftOut = 0 } = printableValue(report);
  const { width } = view;
  const open = findings.filter(({ accepted }) => !accepted || accepted.ended);
  const accepted = findings.filter((finding) => !open.includes(finding));
  const lines = open.length > 0 ? [summaryText(summary, open, paint), ''] : [];
  if (view.verbose) for (const finding of open) lines.push(...findingLines(finding, paint, width), '');
  else lines.push(...findingGroups(open, paint, width));
  for (const { rule, fingerprint, accepted: by } of accepted)
    lines.push(
      paint.dim(`accepted until ${by?.until} by ${by?.who}: ${rule} ${fingerprint} (${by?.reason})`),
    );
  if (accepted.length > 0) lines.push('');
  if (against)
    lines.push(
      `Only what is new since the snapshot ${against.snapshot.slice(0, 12)}; it has ${against.known} of the findings already.`,
      '',
    );
  if (title === null && view.anyTitle) {
    lines.push(
      paint.dim('No title in the roster has these identifiers, so only the tree itself was checked.'),
      '',
    );
  }
  if (leftOut > 0)
    lines.push(`${leftOut} more findings are not listed. SYNDEXA_TREE_FINDINGS sets how many are.`, '');
  // Where nothing was compared, the command ends with the reason.
  const isRead = (report.compared ?? 'title') === 'title' || view.anyTitle;
  if (open.length === 0 && isRead) lines.push(paint.green(against ? '✔ nothing new' : '✔ nothing found'));
  else if (open.length > 0)
    lines.push(summaryText(summary, open, paint), ...nextLines(open, title, paint, view));
  if (snapshot !== undefined) lines.push(paint.dim(`snapshot ${snapshot.slice(0, 12)}`));
  lines.push('');
  return lines.join('\n');
}

/** Findings by what fixes them. */
export function findingGroups(findings: readonly Finding[], paint: Paint, width: number): string[] {
  return byFix(findings).flatMap((group) => [...groupLines(group, paint, width), '']);
}

/** One block per fix: the advice once, then a line for each finding. */
function groupLines({ mend, sentences }: FixGroup, paint: Paint, width: number): string[] {
  const lines = [paint.bold(wrap(mend, width, ''))];
  for (const { rule, text, findings } of sentences) {
    lines.push(wrap(`${rule}: ${text}`, width, '  '));
    for (const { finding, differs } of findings) {
      const { severity, place, platform, variants, accepted } = finding;
      const who = [platform && platformLabels[platform], variants.join(', ')].filter(Boolean).join(': ');
      const where = place ? `${place.path}:${place.line}` : '';
      const parts = [where, who === '' ? '' : paint.dim(who), differs].filter((part) => part !== '');
      const isLong = differs !== '' && 8 + where.length + who.length + differs.length > width;
      const shown = isLong ? parts.slice(0, -1) : parts;
      lines.push(`    ${markOf(severity, paint)} ${shown.join('  ')}`.trimEnd());
      if (isLong) lines.push(wrap(differs, width, '      '));
      if (accepted) lines.push(paint.yellow(`      accepted until ${accepted.until}, which is past`));
    }
  }
  return lines;
}

/** What a person does next. */
function nextLines(
  findings: readonly Finding[],
  title: string | null,
  paint: Paint,
  { directory, verbose }: CheckView,
): string[] {
  const named = title === null ? '' : ` --title ${title}`;
  const lines = findings.some(({ fix }) => fix)
    ? [`Next: ${paint.cyan(`syndexa wire ${directory}${named}`)} shows the edits, and --write makes them.`]
    : [];
  if (!verbose)
    lines.push(paint.dim('--verbose shows each with its evidence and the fingerprint for accept.'));
  return lines;
}

function findingLines(finding: Finding, paint: Paint, width: number): string[] {
  const { severity, rule, message, mend, place, chain, platform, variants, fingerprint, accepted } = finding;
  const who = [platform && platformLabels[platform], variants.join(', ')].filter(Boolean).join(': ');
  return [
    [
      severityText(severity, paint),
      paint.bold(rule),
      ...(who === '' ? [] : [paint.dim(who)]),
      paint.dim(fingerprint),
    ].join('  '),
    ...(place ? [`  ${placeText(place)}`] : []),
    wrap(message, width, '  '),
    ...chainLines(chain.slice(1), paint, '    '),
    ...(accepted
      ? [
          paint.yellow(
            `  It was accepted until ${accepted.until} by ${accepted.who} (${accepted.reason}); that has ended.`,
          ),
        ]
      : []),
    paint.dim(wrap(mend, width, '  ')),
  ];
}

function summaryText(
  { blocker, warning, note }: CheckReport['summary'],
  findings: readonly Finding[],
  paint: Paint,
): string {
  const counts: Record<Severity, number> = { blocker, warning, note };
  const all = severityNames.filter((name) => counts[name] > 0).map((name) => counted(counts[name], name));
  const left = findings.filter(({ fix }) => !fix);
  const leaves = severityNames.flatMap((name) => {
    const count = left.filter(({ severity }) => severity === name).length;
    return count > 0 ? [counted(count, name)] : [];
  });
  const colour = blocker > 0 ? paint.red : warning > 0 ? paint.yellow : paint.blue;
  const wired = findings.length - left.length;
  const rest = leaves.length === 0 ? 'would leave nothing' : `would leave ${leaves.join(', ')}`;
  return `${colour(all.join(', '))}${wired > 0 ? `; one wire --write ${rest}` : '; none of them is fixed by wiring'}.`;
}
