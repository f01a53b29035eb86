import { makeFolder } from '../../disk/home/home-folder.js';
import type { GroupContext } from '../groups/group.js';
import { cp, mkdir, rm, writeFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import { readFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { demoFolder } from '../demo-folder.js';
import { homeFolder } from '../connect.js';
import { exit, type Io, type Paint } from '../io.js';
import { startPartnerProcess, type PartnerCard } from '../partner-process.js';
import { importRoster } from './roster.js';
import { start, stopSignal } from './serve.js';

export interface DemoOptions {
  port: number;
  partnerPort: number;
  walk?: boolean;
}

/** Titles whose demo trees are copied and linked. */
const linked = ['tidewick', 'plumebook', 'kilnlog', 'kilnlog-expo', 'orrery-drift', 'parcelgull'];

/** `syndexa demo`: the service with the demo's roster and a copy of its trees, and the simulated partner. */
export async function demo(
  io: Io,
  paint: Paint,
  options: DemoOptions,
  run: GroupContext['run'],
): Promise<number> {
  const home = join(homeFolder(io.env), 'demo');
  await rm(home, { recursive: true, force: true });
  makeFolder(home);
  const trees = join(home, 'trees');
  await cp(join(demoFolder(), 'trees'), trees, { recursive: true });
  const site = await developerSite(join(home, 'site'));
  const partner = await startPartnerProcess({
    home,
    port: options.walk ? 0 : options.partnerPort,
    fresh: true,
  });
  const env = { ...io.env, SYNDEXA_PARTNERS: partner.url, SYNDEXA_HOME: home };
  try {
    const service = await start({ ...io, env }, home, {
      port: options.walk ? 0 : options.port,
      root: [trees],
      logLevel: 'warn',
    });
    try {
      const quiet: Io = {
        ...io,
        env: { ...env, SYNDEXA_URL: service.url },
        cwd: trees,
        interactive: false,
        out: () => undefined,
        raw: () => undefined,
      };
      await importRoster(quiet, paint, join(demoFolder(), 'roster.yaml'), { yes: true });
      const { fillPartner } = await import('./demo-partner.js');
      await fillPartner(service.url, home, partner, site.url);
      for (const title of linked) await link(service.url, title, join(trees, title));
      if (options.walk) {
        const { walk } = await import('./demo-walk.js');
        return await walk({ ...quiet, out: io.out, raw: io.raw, err: io.err }, paint, {
          trees,
          home,
          partner,
          site: site.url,
          run,
        });
      }
      await earlierNumbers(service.url, partner);
      const stopped = stopSignal();
      io.out(welcome(service.url, partner.url, site.url, trees, paint));
      await stopped;
      return exit.clean;
    } finally {
      await service.close();
    }
  } finally {
    await partner.close();
    site.server.close();
  }
}

/** The developer site of the demo's publisher: serves its app-ads.txt, which names one network only. */
async function developerSite(folder: string): Promise<{ server: Server; url: string }> {
  await mkdir(folder, { recursive: true });
  const file = join(folder, 'app-ads.txt');
  await writeFile(file, '# Saltmarsh Software\ncobaltheron.example, 204418, DIRECT, c0ba17he\n');
  const server = createServer((request, response) => {
    if (request.url !== '/app-ads.txt') response.writeHead(404).end();
    else response.writeHead(200, { 'Content-Type': 'text/plain; charset=utf-8' }).end(readFileSync(file));
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  server.unref();
  return { server, url: `http://127.0.0.1:${(server.address() as AddressInfo).port}` };
}

async function link(url: string, title: string, path: string): Promise<void> {
  const { Client } = await import('../client.js');
  const client = new Client(url, 'demo');
  await client.call('linkTree', { body: { title, path } });
  client.close();
}

function welcome(url: string, partner: string, site: string, trees: string, paint: Paint): string {
  return [
    paint.bold('Syndexa is running with the demo of Saltmarsh Software.'),
    '',
    `Open   ${paint.cyan(`${url}/`)}                     the board of Tidewick, full of faults`,
    `       ${paint.cyan(`${url}/titles/tidewick/steps`)}   what is to be done, in order`,
    `       ${paint.cyan(`${partner}/cobalt-heron`)}         the simulated network’s own page`,
    '',
    'Try, in another terminal:',
    `  bin/syndexa survey ${trees}/tidewick`,
    `  bin/syndexa check ${trees}/tidewick --title tidewick`,
    `  bin/syndexa wire ${trees}/tidewick --title tidewick --write`,
    '  bin/syndexa id collect tidewick --network cobalt-heron',
    '  bin/syndexa provision tidewick --dry-run',
    '  bin/syndexa steps tidewick --next',
    '  bin/syndexa tally show tidewick --in EUR',
    `  bin/syndexa appads verify --url ${site}/app-ads.txt`,
    '  bin/syndexa board tidewick',
    '',
    'The trees are copies: write into them as you like. Stop with Ctrl-C.',
    '',
  ].join('\n');
}

/** The walk brings numbers in by itself, at its end: what they contradict is found by check, too. */
async function earlierNumbers(url: string, partner: PartnerCard): Promise<void> {
  const { fillNumbers } = await import('./demo-numbers.js');
  await fillNumbers(url, partner);
}
