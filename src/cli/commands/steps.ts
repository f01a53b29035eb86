import { counted } from '../../core/text/counted.js';
import { printableValue } from '../../core/text/printable.js';
import type { Step, Steps } from '../../core/steps/model.js';
import { withService } from '../connect.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { placeText, wrap } from '../render/places.js';

export interface StepsOptions {
  platform?: 'android' | 'ios';
  network?: string;
  next?: boolean;
  tick?: string;
  untick?: string;
  note?: string;
  json?: boolean;
}

/** `syndexa steps TITLE`: what a person goes through, in order; with `--next`, only what to do now. */
export function steps(io: Io, paint: Paint, title: string, options: StepsOptions): Promise<number> {
  return withService(io, async (client) => {
    const named = options.tick ?? options.untick;
    if (named !== undefined) {
      if (options.platform === undefined)
        throw new CommandError(
          'A step is marked as done for one edition.',
          exit.wrongUse,
          'Give --platform.',
        );
      await client.call('tick', {
        params: { title },
        body: {
          step: named,
          platform: options.platform,
          network: options.network ?? null,
          note: options.note ?? null,
          done: options.tick !== undefined,
        },
      });
    }
    const found = await client.call('steps', { params: { title } });
    const wanted: Steps = {
      ...found,
      steps: found.steps.filter(
        ({ platform, network, state }) =>
          (options.platform === undefined || platform === options.platform) &&
          (options.network === undefined || network === options.network || network === null) &&
          (!options.next || state === 'to-do' || state === 'cannot-tell'),
      ),
    };
    if (options.json) printJson(io, wanted);
    else io.prose(stepsText(wanted, options, paint, io.width));
    return exit.clean;
  });
}

const marks: Record<Step['state'], (paint: Paint) => string> = {
  done: (paint) => paint.green('● done       '),
  'to-do': (paint) => paint.red('□ to do      '),
  blocked: (paint) => paint.dim('· blocked    '),
  'cannot-tell': (paint) => paint.yellow('? cannot tell'),
};

function stepsText(answer: Steps, options: StepsOptions, paint: Paint, width: number): string {
  const { title, name, steps: all } = printableValue(answer);
  if (all.length === 0)
    return options.next
      ? `${paint.green('●')} ${name}: all steps are done.\n`
      : `${name} names no network yet: syndexa placement add ${title} PLACEMENT --format FORMAT --network NETWORK\n`;
  const lines = [paint.bold(`${name}: what is left to do, in which order?`)];
  let head = '';
  for (const step of all) {
    const group = `${platformLabels[step.platform]}, ${step.networkName ?? 'the edition as a whole'}`;
    if (group !== head) lines.push('', paint.bold(group));
    head = group;
    lines.push(`  ${marks[step.state](paint)}  ${step.name}  ${paint.dim(step.step)}`);
    const below = (text: string) => wrap(text, width, '      ');
    // The second line and those after it are indented below the first.
    const hanging = (text: string) => `      ${wrap(text, width, '        ').trimStart()}`;
    if (step.state === 'blocked') {
      lines.push(paint.dim(hanging(`first: ${step.blockedBy.join(', ')}`)));
      continue;
    }
    if (step.state !== 'done') lines.push(below(step.why));
    const shown = step.evidence.slice(0, step.state === 'done' ? 1 : 4);
    for (const { what, place } of shown)
      lines.push(paint.dim(hanging(`└ ${what}  ${placeText(place)}`.trimEnd())));
    if (step.evidence.length > shown.length && step.state !== 'done')
      lines.push(paint.dim(below(`└ and ${step.evidence.length - shown.length} more`)));
    if (step.state === 'done') continue;
    if (step.command !== null) lines.push(paint.cyan(hanging(step.command)));
    if (step.page !== null) lines.push(paint.cyan(below(step.page)));
    const network = step.network === null ? '' : ` --network ${step.network}`;
    const tick = `syndexa steps ${title} --tick ${step.step} --platform ${step.platform}${network}`;
    if (step.tickable) lines.push(paint.dim(hanging(`done? ${tick}`)));
  }
  const done = all.filter(({ state }) => state === 'done').length;
  if (!options.next) lines.push('', `${done} of ${counted(all.length, 'step is', 'steps are')} done.`);
  return `${lines.join('\n')}\n`;
}

/** `syndexa title look-up TITLE`: what the store lists under the title's identifiers. */
export function lookUp(io: Io, paint: Paint, title: string, options: { json?: boolean }): Promise<number> {
  return withService(io, async (client) => {
    const found = await client.call('lookUp', { params: { title } });
    if (options.json) printJson(io, found);
    else
      for (const { platform, identifier, listed, name, site } of found)
        io.out(
          listed
            ? `${paint.green('●')} ${platformLabels[platform]}  ${identifier}  listed as ${name ?? ''}, site ${site ?? 'none'}\n`
            : `${paint.red('□')} ${platformLabels[platform]}  ${identifier}  not listed\n`,
        );
    return found.every(({ listed }) => listed) ? exit.clean : exit.findings;
  });
}
