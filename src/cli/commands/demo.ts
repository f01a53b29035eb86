import { cp, mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { applyPatch, parsePatch } from 'diff';
import { homeFolder } from '../connect.js';
import { CommandError, exit, type Io, type Paint } from '../io.js';
import { importRoster } from './roster.js';
import { start, untilStopped } from './serve.js';
import { board } from './titles.js';
import { check, survey, wire } from './trees.js';

export interface DemoOptions {
  port: number;
  walk?: boolean;
}

/** The folder `demo/` of the checkout. */
function demoFolder(): string {
  const here = dirname(fileURLToPath(import.meta.url));
  // Two folders up from the bundle, three from the sources.
  const candidates = [join(here, '..', '..', 'demo'), join(here, '..', '..', '..', 'demo')];
  const found = candidates.find((folder) => existsSync(join(folder, 'roster.yaml')));
  if (!found)
    throw new CommandError(
      'The demo’s files are not here.',
      exit.wrongUse,
      'Run it from a checkout of the project.',
    );
  return found;
}

/** `syndexa demo`: the service with the demo's roster and a copy of its trees. */
export async function demo(io: Io, paint: Paint, options: DemoOptions): Promise<number> {
  const home = join(homeFolder(io.env), 'demo');
  await rm(home, { recursive: true, force: true });
  await mkdir(home, { recursive: true });
  const trees = join(home, 'trees');
  await cp(join(demoFolder(), 'trees'), trees, { recursive: true });
  const service = await start(io, home, {
    port: options.walk ? 0 : options.port,
    root: [trees],
    logLevel: 'warn',
  });
  try {
    const quiet: Io = {
      ...io,
      env: { ...io.env, SYNDEXA_URL: service.url },
      cwd: trees,
      interactive: false,
      out: () => undefined,
    };
    await importRoster(quiet, paint, join(demoFolder(), 'roster.yaml'), { yes: true });
    await link(service.url, join(trees, 'tidewick'));
    if (options.walk) return await walk({ ...quiet, out: io.out, err: io.err }, paint, trees);
    io.out(welcome(service.url, trees, paint));
    return await untilStopped(service);
  } finally {
    if (options.walk) await service.close();
  }
}

async function link(url: string, path: string): Promise<void> {
  const { Client } = await import('../client.js');
  const client = new Client(url, 'demo');
  await client.call('linkTree', { body: { title: 'tidewick', path } });
  client.close();
}

function welcome(url: string, trees: string, paint: Paint): string {
  return [
    paint.bold('Syndexa is running with the demo of Saltmarsh Software.'),
    '',
    `Open   ${paint.cyan(`${url}/`)}                     the board of Tidewick, full of faults`,
    '',
    'Try, in another terminal:',
    `  bin/syndexa survey ${trees}/tidewick`,
    `  bin/syndexa check ${trees}/tidewick --title tidewick`,
    `  bin/syndexa wire ${trees}/tidewick --title tidewick`,
    `  bin/syndexa wire ${trees}/tidewick --title tidewick --write`,
    '  bin/syndexa board tidewick',
    '',
    'The trees are copies: write into them as you like. Stop with Ctrl-C.',
    '',
  ].join('\n');
}

/** The whole way, without a person: survey, check, wire, what is left to hands, check again, board. */
async function walk(io: Io, paint: Paint, trees: string): Promise<number> {
  const tree = 'tidewick';
  const say = (text: string) => io.out(`\n${paint.bold(paint.cyan(`▶ ${text}`))}\n\n`);
  const expect = async (what: string, code: Promise<number>, wanted: number) => {
    const got = await code;
    if (got !== wanted) throw new CommandError(`${what} ended with ${got}, not ${wanted}.`, exit.findings);
  };
  say(`syndexa survey ${tree}`);
  await expect('survey', survey(io, paint, tree, { title: 'tidewick' }), exit.clean);
  say(`syndexa check ${tree} --title tidewick`);
  await expect(
    'check',
    check(io, paint, tree, { title: 'tidewick', failOn: 'blocker', format: 'text' }),
    exit.findings,
  );
  say('syndexa board tidewick');
  await expect('board', board(io, paint, 'tidewick', {}), exit.clean);
  say(`syndexa wire ${tree} --title tidewick --write`);
  await expect('wire', wire(io, paint, tree, { title: 'tidewick', write: true }), exit.clean);
  say(`syndexa wire ${tree} --title tidewick   (again: there is nothing left to write)`);
  await expect('wire', wire(io, paint, tree, { title: 'tidewick' }), exit.clean);
  say('What was left to hands, done as a person would: demo/by-hand.patch');
  for (const file of await applyByHand(trees)) io.out(`  ${file}\n`);
  say(`syndexa check ${tree} --title tidewick   (clean now)`);
  await expect(
    'check',
    check(io, paint, tree, { title: 'tidewick', failOn: 'note', format: 'text' }),
    exit.clean,
  );
  say('syndexa board tidewick');
  await expect('board', board(io, paint, 'tidewick', {}), exit.clean);
  return exit.clean;
}

/** Does to the copy of the trees what wiring leaves to a person. */
async function applyByHand(trees: string): Promise<string[]> {
  const done: string[] = [];
  for (const patch of parsePatch(await readFile(join(demoFolder(), 'by-hand.patch'), 'utf8'))) {
    const path = (patch.newFileName ?? '').replace(/^b\//, '');
    const file = join(trees, path);
    const after = applyPatch(await readFile(file, 'utf8'), patch);
    if (after === false) throw new CommandError(`The demo’s own patch does not fit ${path}.`, exit.wrongUse);
    await writeFile(file, after);
    done.push(path);
  }
  return done;
}
