import { printableValue } from '../../core/text/printable.js';
import type { CheckReport, Finding, Severity } from '../../core/checks/model.js';
import type { Paint } from '../io.js';
import { chainLines, placeText, platformNames, wrap } from './places.js';

const shapes: Record<Severity, string> = { blocker: '■', warning: '▲', note: '○' };

function severityText(severity: Severity, paint: Paint): string {
  const colour = { blocker: paint.red, warning: paint.yellow, note: paint.blue }[severity];
  return colour(`${shapes[severity]} ${severity}`);
}

/** Findings for people, the gravest first. */
export function checkText(report: CheckReport, paint: Paint, width: number): string {
  const { title, summary, findings, snapshot, against, leftOut = 0 } = printableValue(report);
  const lines: string[] = [];
  const counted = findings.filter(({ accepted }) => !accepted || accepted.ended);
  for (const finding of counted) lines.push(...findingLines(finding, paint, width), '');
  const accepted = findings.filter((finding) => !counted.includes(finding));
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
  if (title === null) {
    lines.push(
      paint.dim(
        'No title in the roster has these identifiers, so only the tree itself was checked. Name a title with --title.',
      ),
      '',
    );
  }
  if (leftOut > 0)
    lines.push(`${leftOut} more findings are not listed. SYNDEXA_TREE_FINDINGS sets how many are.`, '');
  lines.push(summaryText(summary, counted, paint, against !== undefined));
  if (snapshot !== undefined) lines.push(paint.dim(`snapshot ${snapshot.slice(0, 12)}`));
  lines.push('');
  return lines.join('\n');
}

function findingLines(finding: Finding, paint: Paint, width: number): string[] {
  const { severity, rule, message, mend, place, chain, platform, variants, fix, fingerprint, accepted } =
    finding;
  const who = [platform && platformNames[platform], variants.join(', ')].filter(Boolean).join(': ');
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
  isNew: boolean,
): string {
  if (findings.length === 0) return paint.green(isNew ? '✔ nothing new' : '✔ nothing found');
  const mended = findings.filter(({ fix }) => fix).length;
  const counts = [
    `${blocker} blocker${blocker === 1 ? '' : 's'}`,
    `${warning} warning${warning === 1 ? '' : 's'}`,
    `${note} note${note === 1 ? '' : 's'}`,
  ];
  return `${counts.join(', ')}; wiring fixes ${mended}.`;
}
