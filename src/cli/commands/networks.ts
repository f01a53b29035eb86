import { counted } from '../../core/text/counted.js';
import type { NetworkPlan, ProfileTrial } from '../../api/networks.js';
import type { FieldFault } from '../../api/problem.js';
import { isConfirmed } from '../confirm.js';
import { withService } from '../connect.js';
import { exit, type Io, type Paint, writeDocument, printJson } from '../io.js';
import { platformLabels, withPlatformLabels } from '../../core/words/platform-labels.js';
import { placeText, wrap } from '../render/places.js';
import { labelOf } from '../../core/facts/show.js';
import { sendTree } from '../send-tree.js';
import { readNamed } from '../read-file.js';

/** `syndexa network list`. */
export function listNetworks(io: Io, paint: Paint, options: { json?: boolean }): Promise<number> {
  return withService(io, async (client) => {
    const networks = await client.call('listNetworks');
    if (options.json) printJson(io, networks);
    else
      for (const { id, name, about, formats, platforms, usedBy } of networks)
        io.prose(
          `${paint.bold(id)}  ${name}\n  ${about}\n  ${formats.join(', ')} on ${withPlatformLabels(platforms.join(', '))}\n  ${usedBy.length > 0 ? `used by ${usedBy.join(', ')}` : paint.dim('no title uses it')}\n\n`,
        );
    return exit.clean;
  });
}

/** `syndexa network show ID`: the profile as it is written, comments and all. */
export function showNetwork(io: Io, network: string, options: { json?: boolean }): Promise<number> {
  return withService(io, async (client) => {
    const found = await client.call('showNetwork', { params: { network } });
    if (options.json) printJson(io, found.profile);
    else writeDocument(io, found.source);
    return exit.clean;
  });
}

/** `syndexa network lint FILE…`. */
export function lintNetworks(
  io: Io,
  paint: Paint,
  files: readonly string[],
  options: { json?: boolean },
): Promise<number> {
  return withService(io, async (client) => {
    const results = [];
    for (const file of files)
      results.push({
        file,
        ...(await client.call('lintNetwork', { body: { text: await readNamed(io, file) } })),
      });
    if (options.json) printJson(io, results);
    else {
      for (const { file, ok, id, problems } of results) {
        if (ok) io.out(`${paint.green('✔')} ${file}: the profile of ${id} is right\n`);
        for (const problem of problems) io.out(faultLine(file, problem, paint));
      }
    }
    return results.every(({ ok }) => ok) ? exit.clean : exit.findings;
  });
}

function faultLine(file: string, { field, message, fix, place }: FieldFault, paint: Paint): string {
  const at = `${file}:${place?.line ?? 1}:${place?.column ?? 1}`;
  return `${paint.red('■')} ${at}  ${field || 'document'}: ${message}${fix ? ` ${fix}` : ''}\n`;
}

export interface AddOptions {
  yes?: boolean;
  despiteIds?: boolean;
  json?: boolean;
}

/** `syndexa network add FILE`: says what it would replace and what on record would not fit, then keeps it in the data folder. */
export function addNetwork(io: Io, paint: Paint, file: string, options: AddOptions): Promise<number> {
  return withService(io, async (client) => {
    const text = await readNamed(io, file);
    const plan = await client.call('planNetwork', { body: { text } });
    if (!options.json) showPlan(io, paint, plan);
    if (plan.misfits.length > 0 && !options.despiteIds) {
      if (options.json) printJson(io, plan);
      else io.err('Correct the pattern or the IDs, or use --despite-ids to add the profile anyway.\n');
      return exit.refused;
    }
    const question = `Replace ${plan.replaces === 'shipped' ? 'the built-in profile' : 'the profile'} of ${plan.id}?`;
    const isAsked = plan.replaces !== 'nothing' && plan.patch !== '';
    if (isAsked && !(await isConfirmed(io, question, options.yes))) return exit.refused;
    const { profile } = await client.call('addNetwork', {
      body: { text, despite: options.despiteIds ?? false },
    });
    if (options.json) printJson(io, profile);
    else if (isAsked || plan.replaces === 'nothing')
      io.out(`${paint.green('✔')} ${profile.name} is known now as ${profile.id}.\n`);
    return exit.clean;
  });
}

function showPlan(io: Io, paint: Paint, { id, replaces, patch, misfits }: NetworkPlan): void {
  if (replaces !== 'nothing')
    io.out(patch === '' ? `The profile of ${id} is already in use as it is.\n` : `${patch}\n`);
  if (misfits.length > 0) io.out(`${counted(misfits.length, 'field')} on record would not match it:\n`);
  for (const { title, field, message, fix } of misfits)
    io.prose(`${paint.red('■')} ${title}  ${field}: ${message}${fix ? ` ${fix}` : ''}\n`);
}

/** `syndexa network remove ID`: a profile of the data folder is forgotten. */
export function removeNetwork(
  io: Io,
  paint: Paint,
  network: string,
  options: { yes?: boolean; json?: boolean },
): Promise<number> {
  return withService(io, async (client) => {
    const { profile, shipped } = await client.call('showNetwork', { params: { network } });
    const question = `Remove the profile of ${profile.name}, which exists only in the data folder?`;
    if (!shipped && !(await isConfirmed(io, question, options.yes))) return exit.refused;
    const removed = await client.call('removeNetwork', { params: { network } });
    const left = removed.restored ? 'the built-in profile is in use again' : 'the network is no longer known';
    if (options.json) printJson(io, removed);
    else io.out(`${paint.green('✔')} The profile of ${network} is gone; ${left}.\n`);
    return exit.clean;
  });
}

/** `syndexa network test PROFILE --tree DIR`: what a profile recognises, and what of its needs is not met. */
export function testNetwork(
  io: Io,
  paint: Paint,
  named: string,
  options: { tree: string; json?: boolean },
): Promise<number> {
  return withService(io, async (client) => {
    const isFile = /[./]/.test(named);
    const text = isFile
      ? await readNamed(io, named)
      : (await client.call('showNetwork', { params: { network: named } })).source;
    const lint = await client.call('lintNetwork', { body: { text } });
    if (lint.problems.length > 0) {
      if (options.json) printJson(io, [{ file: named, ...lint }]);
      else for (const problem of lint.problems) io.out(faultLine(named, problem, paint));
      return exit.wrongUse;
    }
    const { snapshot } = await sendTree(client, io, options.tree, lint.needles);
    const trial = await client.call('tryNetwork', { params: { snapshot }, body: { text } });
    if (options.json) printJson(io, trial);
    else io.out(trialText(trial, paint, io.width));
    return exit.clean;
  });
}

function trialText(
  { id, stacks, facts, unresolved, unmet }: ProfileTrial,
  paint: Paint,
  width: number,
): string {
  const lines = [
    `What ${paint.bold(id ?? '')} recognises${stacks.length > 0 ? ` in ${stacks.map(({ stack }) => stack).join(' and ')}` : ''}`,
  ];
  if (stacks.length === 0) lines.push('', 'No application is recognised in this tree.');
  for (const { platform, kind, name, value, variants, place } of facts)
    lines.push(
      `  ${paint.green('●')} ${platformLabels[platform]}  ${labelOf(kind)}  ${name && name !== value ? `${name} ${paint.dim('=')} ` : ''}${value}  ${paint.dim(`[${variants.join(', ')}] ${placeText(place)}`)}`,
    );
  if (facts.length === 0 && stacks.length > 0) lines.push('  nothing');
  for (const { what, reason, place } of unresolved)
    lines.push(`  ${paint.yellow('?')} ${what}: ${reason}  ${paint.dim(placeText(place))}`);
  if (unmet.length > 0) lines.push('', 'What it requires but the tree lacks');
  const fixes = new Map<string, typeof unmet>();
  for (const one of unmet) fixes.set(one.fix, [...(fixes.get(one.fix) ?? []), one]);
  for (const [fix, lacking] of fixes) {
    for (const { platform, what, place } of lacking) {
      const name = platform === null ? '' : `${platformLabels[platform]}: `;
      const at = place ? `  ${paint.dim(placeText(place))}` : '';
      lines.push(`  ${paint.red('□')} ${wrap(`${name}${what}`, width, '    ').trimStart()}${at}`);
    }
    lines.push(wrap(fix, width, '      '));
  }
  return `${lines.join('\n')}\n`;
}
