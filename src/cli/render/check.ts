import type { CheckReport, Finding, Severity } from '../../core/checks/model.js';
import type { Paint } from '../io.js';
import { chainLines, placeText, platformNames, wrap } from './places.js';

const shapes: Record<Severity, string> = { blocker: '■', warning: '▲', note: '○' };

function severityText(severity: Severity, paint: Paint): string {
  const colour = { blocker: paint.red, warning: paint.yellow, note: paint.blue }[severity];
  return colour(`${shapes[severity]} ${severity}`);
}

/** Findings for people, the gravest first. */
export function checkText({ title, summary, findings }: CheckReport, paint: Paint, width: number): string {
  const lines: string[] = [];
  for (const finding of findings) lines.push(...findingLines(finding, paint, width), '');
  if (title === null) {
    lines.push(
      paint.dim(
        'No title of the roster bears these identifiers, so only what a tree says by itself was checked. Name one with --title.',
      ),
      '',
    );
  }
  lines.push(summaryText(summary, findings, paint), '');
  return lines.join('\n');
}

function findingLines(finding: Finding, paint: Paint, width: number): string[] {
  const { severity, rule, message, mend, place, chain, platform, variants, fix } = finding;
  const who = [platform && platformNames[platform], variants.join(', ')].filter(Boolean).join(': ');
  return [
    `${severityText(severity, paint)}  ${paint.bold(rule)}  ${paint.dim(who)}`,
    ...(place ? [`  ${placeText(place)}`] : []),
    wrap(message, width, '  '),
    ...chainLines(chain.slice(1), paint, '    '),
    paint.dim(wrap(`${fix ? 'Wiring mends it. ' : ''}${mend}`, width, '  ')),
  ];
}

function summaryText(
  { blocker, warning, note }: CheckReport['summary'],
  findings: readonly Finding[],
  paint: Paint,
): string {
  if (findings.length === 0) return paint.green('✔ nothing found');
  const mended = findings.filter(({ fix }) => fix).length;
  const counts = [
    `${blocker} blocker${blocker === 1 ? '' : 's'}`,
    `${warning} warning${warning === 1 ? '' : 's'}`,
    `${note} note${note === 1 ? '' : 's'}`,
  ];
  return `${counts.join(', ')}; wiring mends ${mended}.`;
}
