import { counted } from '../../core/text/counted.js';
import type { TraceEvent } from '../../core/facts/trace.js';
import {
  decidedBy,
  isRight,
  isSeen,
  type RehearsalReport,
  type RehearsalRun,
  type RehearsedPlacement,
} from '../../core/rehearsal/report.js';
import { eventText, verdictText } from '../../core/rehearsal/words.js';
import { groupBy } from '../../core/text/group-by.js';
import { printableValue } from '../../core/text/printable.js';
import type { Paint } from '../io.js';
import { findingGroups } from './check.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { plainTable } from './table.js';

interface View {
  width: number;
  /** The folder as the person named it. */
  directory: string;
}

/** A rehearsal for people: a line for each placement, platform and stage; what was found; what to do next. */
export function rehearsalText(report: RehearsalReport, paint: Paint, { width, directory }: View): string {
  const { title, scenario, seed, partner, runs, findings, clean } = printableValue(report);
  const lines = [
    `${paint.bold(scenario)}, seed ${seed}, ${
      partner === 'running'
        ? 'against the running partner'
        : 'against a temporary partner that knows the IDs of the roster'
    }`,
    '',
  ];
  for (const [, alike] of groupBy(runs, (run) => keyOf(run)))
    lines.push(...runLines(alike, paint, width), '');
  for (const run of runs) if (run.trace) lines.push(...traceLines(run, paint), '');
  if (findings.length > 0) lines.push(...findingGroups(findings, paint, width));
  if (clean) lines.push(paint.green('✔ every placement shows an ad, and nothing was found'));
  else
    lines.push(
      findings.length > 0
        ? paint.yellow(`▲ ${counted(findings.length, 'finding')}`)
        : '▲ not every placement shows an ad of its stage',
      ...(runs.some((run) => run.trace)
        ? []
        : [
            `Next: ${paint.cyan(`syndexa rehearse ${directory} --title ${title} --trace`)} shows what happens, in order.`,
          ]),
    );
  lines.push('');
  return lines.join('\n');
}

/** Variants of a stage that say the same are shown once. */
function keyOf({ platform, module, stage, placements, trace }: RehearsalRun): string {
  const said = placements.map(({ placement, verdict }) => [placement, verdictText(verdict, stage)]);
  return JSON.stringify([platform, module, stage, said, trace ? trace.length : null]);
}

function runLines(runs: readonly RehearsalRun[], paint: Paint, width: number): string[] {
  const [first] = runs;
  if (!first) return [];
  const { platform, stage, placements } = first;
  const variants = runs.map(({ variant }) => variant).join(', ');
  return [
    `${paint.bold(`${platformLabels[platform]} · ${stage}`)} ${paint.dim(`(${variants})`)}`,
    ...plainTable(
      { head: ['', '', '', ''], rows: placements.map((one) => row(one, stage, paint)) },
      width - 2,
    )
      .split('\n')
      .filter((line) => line.trim() !== '')
      .map((line) => `  ${line}`.trimEnd()),
  ];
}

function row(one: RehearsedPlacement, stage: RehearsalRun['stage'], paint: Paint): string[] {
  const { placement, format, verdict, networks } = one;
  const mark = isRight(verdict, stage)
    ? paint.green('✔')
    : isSeen(verdict)
      ? paint.yellow('▲')
      : paint.red('■');
  const isAssumed = networks.some(({ assumed }) => assumed.length > 0);
  const text = `${verdictText(verdict, stage)}${isAssumed ? paint.dim(' (assumed in part)') : ''}`;
  return [`${mark} ${placement}`, format, decidedBy(one), text];
}

function traceLines({ platform, variant, trace = [], cut }: RehearsalRun, paint: Paint): string[] {
  return [
    paint.bold(`${platformLabels[platform]} ${variant}`),
    ...trace.map((event) => traceLine(event, paint)),
    ...(cut === undefined ? [] : [paint.dim(`  ${cut} more are not listed`)]),
  ];
}

function traceLine(event: TraceEvent, paint: Paint): string {
  const { at, network, placement } = event;
  const time = clock(at).padStart(10);
  const about = [placement, network].filter(Boolean).join(' · ');
  const assumed = event.assumed === undefined ? '' : paint.yellow(` assumed: ${event.assumed}`);
  return `${paint.dim(time)}  ${eventText(event)}${about === '' ? '' : paint.dim(`  ${about}`)}${assumed}`;
}

/** Virtual time as `1:02.5`. */
function clock(ms: number): string {
  const minutes = Math.floor(ms / 60_000);
  const seconds = ((ms % 60_000) / 1_000).toFixed(1).padStart(4, '0');
  return `${minutes}:${seconds}`;
}
