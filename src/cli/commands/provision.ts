import { counted } from '../../core/text/counted.js';
import type { ProvisionAnswer } from '../../api/inventory.js';
import type { ProvisionStep } from '../../core/provision/plan.js';
import { isWrite, stepWords } from '../../core/provision/words.js';
import { withService } from '../connect.js';
import { exit, type Io, type Paint, printJson } from '../io.js';
import { callFollowed } from '../progress.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { wrap } from '../render/places.js';

export interface ProvisionOptions {
  network?: string[];
  platform?: ('android' | 'ios')[];
  names?: string;
  settle?: 'roster' | 'partner';
  dryRun?: boolean;
  yes?: boolean;
  json?: boolean;
}

/** `syndexa provision TITLE`: shows what would be created at the networks, and creates it when told to. */
export function provision(io: Io, paint: Paint, title: string, options: ProvisionOptions): Promise<number> {
  return withService(io, async (client) => {
    const body = {
      ...(options.network ? { networks: options.network } : {}),
      ...(options.platform ? { platforms: options.platform } : {}),
      ...(options.names === undefined ? {} : { names: options.names }),
      ...(options.settle === undefined ? {} : { settle: options.settle }),
    };
    const ask = (more: { dryRun?: boolean; plan?: string }) => {
      const call = { params: { title }, body: { ...body, ...more } };
      return callFollowed(io, client, 'provision', call, 'asking the networks');
    };
    // Agreed to beforehand, it is planned and done in one call.
    const plan = await ask({ dryRun: options.yes !== true || options.dryRun === true });
    const writes = plan.networks
      .flatMap(({ steps }) => steps)
      .filter((step) => isWrite(step, options.settle));
    if (!options.json) io.prose(planText(plan, options, paint, io.width));
    const open = plan.networks.some(({ steps }) => steps.some(({ do: what }) => what === 'by-hand'));
    const ended = open ? exit.findings : exit.clean;
    if (options.dryRun || (writes.length === 0 && !plan.applied)) {
      if (options.json) printJson(io, plan);
      return ended;
    }
    if (!plan.applied) {
      const answer = await io.ask(`${counted(writes.length, 'step')} to take. Go on? [y/N] `);
      if (!/^y(es)?$/i.test(answer?.trim() ?? '')) {
        io.err('Nothing was created. To skip this question: --yes\n');
        return exit.refused;
      }
    }
    const answer = plan.applied ? plan : await ask({ plan: plan.plan });
    if (options.json) printJson(io, answer);
    else {
      for (const { network, platform, placement, what, id } of answer.done)
        io.out(
          `${paint.green('✔')} ${what}  ${id}  ${paint.dim(`${network}, ${platformLabels[platform]}${placement === null ? '' : `, ${placement}`}`)}\n`,
        );
      io.out(`${counted(answer.done.length, 'step')} done; the IDs are in the roster.\n`);
    }
    return ended;
  });
}

function planText(plan: ProvisionAnswer, options: ProvisionOptions, paint: Paint, width: number): string {
  const lines: string[] = [];
  for (const { name, steps, odd } of plan.networks) {
    lines.push(paint.bold(name));
    for (const step of steps) lines.push(...stepLines(step, options, paint, width));
    for (const { row, message } of odd.slice(0, 10))
      lines.push(`  ${paint.yellow('▲')} entry ${row} was skipped: ${message}`);
    if (steps.length === 0) lines.push('  nothing to do');
    lines.push('');
  }
  return `${lines.join('\n')}\n`;
}

function stepLines(step: ProvisionStep, { settle }: ProvisionOptions, paint: Paint, width: number): string[] {
  const { is, what, detail } = stepWords(step, settle);
  const marks = {
    create: paint.green('+'),
    take: paint.cyan('←'),
    agrees: paint.dim('='),
    differs: paint.yellow('≠'),
    'by-hand': paint.red('□'),
  };
  const line = `  ${marks[is]} ${platformLabels[step.platform].padEnd(7)}  ${what}`;
  if (is === 'by-hand') return [line, wrap(detail, width, '      ')];
  const how =
    is === 'differs' && settle === undefined ? `${detail}: --settle roster or --settle partner` : detail;
  return [how === '' ? line : `${line}  ${paint.dim(how)}`];
}
