import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import type { RehearsalRequest } from '../../api/rehearsals.js';
import type { Platform } from '../../core/words/words.js';
import type { Client } from '../client.js';
import { withService } from '../connect.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';
import { textOfFile } from '../read-file.js';
import { callFollowed } from '../progress.js';
import { sendTree } from '../send-tree.js';

export interface RehearseOptions {
  title?: string;
  variant?: string[];
  platform?: Platform;
  placement?: string[];
  scenario: string;
  seed: number;
  offline?: boolean;
  noFill?: boolean;
  slow?: boolean;
  trace?: boolean;
  scenarios?: boolean;
  format: 'text' | 'json' | 'junit';
  json?: boolean;
}

/** `syndexa rehearse DIR`: what becomes of every ad call. */
export function rehearse(
  io: Io,
  paint: Paint,
  directory: string | undefined,
  options: RehearseOptions,
): Promise<number> {
  return withService(io, async (client) => {
    if (options.scenarios) return listScenarios(io, paint, client, options.json === true);
    if (directory === undefined)
      throw new CommandError('Name the folder of a source tree.', exit.wrongUse, 'syndexa rehearse DIR');
    const { snapshot } = await sendTree(client, io, directory);
    const call = { params: { snapshot }, body: await requestOf(io, options) };
    const report = await callFollowed(io, client, 'rehearse', call, 'rehearsing');
    if (options.format === 'junit')
      io.out(await client.text('rehearse', { ...call, headers: { Accept: 'application/junit+xml' } }));
    else if (options.json || options.format === 'json') printJson(io, report);
    else {
      const { rehearsalText } = await import('../render/rehearsal.js');
      io.prose(rehearsalText(report, paint, { width: io.width, directory }));
    }
    return report.clean ? exit.clean : exit.findings;
  });
}

async function listScenarios(io: Io, paint: Paint, client: Client, asJson: boolean): Promise<number> {
  const scenarios = await client.call('listScenarios');
  if (asJson) printJson(io, scenarios);
  else for (const { id, about } of scenarios) io.out(`${paint.bold(id)}\n  ${about}\n`);
  return exit.clean;
}

async function requestOf(io: Io, options: RehearseOptions): Promise<RehearsalRequest> {
  const { title, variant, platform, placement, scenario, seed, offline, noFill, slow, trace } = options;
  const path = resolve(io.cwd, scenario);
  const isFile = /[./\\]/.test(scenario) && existsSync(path);
  return {
    title: title ?? null,
    scenario: isFile ? { document: await textOfFile(io, path) } : { name: scenario },
    seed,
    ...(variant ? { variants: variant } : {}),
    ...(platform ? { platforms: [platform] } : {}),
    ...(placement ? { placements: placement } : {}),
    offline: offline === true,
    noFill: noFill === true,
    slow: slow === true,
    trace: trace === true,
  };
}
