import type { ProvisionAnswer } from '../../api/inventory.js';
import type { ProvisionStep } from '../../core/provision/plan.js';
import { withService } from '../connect.js';
import { exit, type Io, type Paint } from '../io.js';
import { startProgress, stepped } from '../progress.js';
import { counted, platformNames, wrap } from '../render/places.js';

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
    const ask = async (more: { dryRun?: boolean; plan?: string }) => {
      const progress = startProgress(io, 'asking the networks');
      try {
        return await client.follow(
          'provision',
          { params: { title }, body: { ...body, ...more } },
          stepped(progress),
        );
      } finally {
        progress.end();
      }
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
      if (options.json) io.out(`${JSON.stringify(plan, null, 2)}\n`);
      return ended;
    }
    if (!plan.applied) {
      const answer = await io.ask(`${counted(writes.length, 'step')} to take. Go on? [y/N] `);
      if (!/^y(es)?$/i.test(answer?.trim() ?? '')) {
        io.err('Nothing was created. To go on without being asked: --yes\n');
        return exit.refused;
      }
    }
    const answer = plan.applied ? plan : await ask({ plan: plan.plan });
    if (options.json) io.out(`${JSON.stringify(answer, null, 2)}\n`);
    else {
      for (const { network, platform, placement, what, id } of answer.done)
        io.out(
          `${paint.green('✔')} ${what}  ${id}  ${paint.dim(`${network}, ${platformNames[platform]}${placement === null ? '' : `, ${placement}`}`)}\n`,
        );
      io.out(`${counted(answer.done.length, 'step')} done; the IDs are in the roster.\n`);
    }
    return ended;
  });
}

function isWrite(step: ProvisionStep, settle: ProvisionOptions['settle']): boolean {
  if (step.do === 'create-app' || step.do === 'create-unit') return true;
  return step.do === 'settle' ? settle !== undefined : 'isNew' in step && step.isNew;
}

function planText(plan: ProvisionAnswer, options: ProvisionOptions, paint: Paint, width: number): string {
  const lines: string[] = [];
  for (const { name, steps, odd } of plan.networks) {
    lines.push(paint.bold(name));
    for (const step of steps) lines.push(...stepLines(step, options, paint, width));
    for (const { row, message } of odd.slice(0, 10))
      lines.push(`  ${paint.yellow('▲')} entry ${row} is left out: ${message}`);
    if (steps.length === 0) lines.push('  nothing to do');
    lines.push('');
  }
  return `${lines.join('\n')}\n`;
}

function stepLines(step: ProvisionStep, { settle }: ProvisionOptions, paint: Paint, width: number): string[] {
  const where = platformNames[step.platform].padEnd(7);
  switch (step.do) {
    case 'create-app':
      return [
        `  ${paint.green('+')} ${where}  app  ${step.name} (${step.identifier}), audience ${step.audience}`,
      ];
    case 'take-app':
      return [
        `  ${step.isNew ? paint.cyan('←') : paint.dim('=')} ${where}  app  ${step.app.id}  ${paint.dim(step.isNew ? 'is there already; its ID goes into the roster' : 'agrees')}`,
      ];
    case 'create-unit': {
      const { refresh, content, reward } = step.settings;
      const shown = [
        refresh === undefined ? '' : `refresh ${refresh}`,
        content ? content.join(' and ') : '',
        reward ? `${reward.amount} ${reward.item}` : '',
      ].filter(Boolean);
      return [`  ${paint.green('+')} ${where}  ${step.format}  ${step.name}  ${paint.dim(shown.join(', '))}`];
    }
    case 'take-unit':
      return [
        `  ${step.isNew ? paint.cyan('←') : paint.dim('=')} ${where}  ${step.placement}  ${step.unit.id}  ${paint.dim(step.isNew ? `is there as “${step.unit.name}”; its ID goes into the roster` : 'agrees')}`,
      ];
    case 'settle': {
      const [roster, partner] = [step.roster, step.partner].map((value) => JSON.stringify(value));
      const how =
        settle === 'roster'
          ? 'the network takes the roster’s'
          : settle === 'partner'
            ? 'the roster takes the network’s'
            : 'settle it with --settle roster or --settle partner';
      return [
        `  ${paint.yellow('≠')} ${where}  ${step.placement}  ${step.setting}: roster ${roster}, network ${partner}  ${paint.dim(how)}`,
      ];
    }
    case 'by-hand':
      return [`  ${paint.red('□')} ${where}  ${step.what}`, wrap(step.why, width, '      ')];
  }
}
