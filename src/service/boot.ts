import { existsSync, realpathSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import * as z from 'zod';
import { Access } from './access/access.js';
import { TokenStore } from './access/token-store.js';

export { openTokens } from './access/open-tokens.js';
import { createApp } from './app.js';
import { hostNames, isLoopback } from './guards.js';
import type { ServiceContext } from './context.js';
import { Events } from './events.js';
import { silentLog, type Log } from './log.js';
import type { CallLimits } from './partners/partner-call.js';
import { partnerAddresses, Partners } from './partners/partners.js';
import { ProfileShelf } from './profiles.js';
import { Secrets } from './secrets.js';
import { builtStamp } from './built-stamp.js';
import { InventoryStore } from './store/inventory-store.js';
import { openStore, type OpenStore } from './store/open.js';
import { EventStreams } from './event-streams.js';
import { LinkedTrees } from './linked-trees.js';
import { OverviewWork } from './overview-work.js';
import { CollectWork } from './partners/collect-work.js';
import { ProvisionWork } from './partners/provision-work.js';
import { RehearsalWork } from './rehearsals/rehearsal-work.js';
import type { Service } from './service.js';
import { StepsWork } from './steps-work.js';
import { TitleWork } from './title-work.js';
import { TreeWork } from './tree-work.js';
import { StoredReadings } from './store/reading-shelf.js';
import { AcceptanceStore } from './store/acceptance-store.js';
import { OverviewStore } from './store/overview-store.js';
import { RosterStore } from './store/roster-store.js';
import { StepsStore } from './store/steps-store.js';
import { TallyStore } from './store/tally-store.js';
import { HistoryWork } from './tally/history-work.js';
import { FigureWork } from './tally/figure-work.js';
import { TallyWork } from './tally/tally-work.js';
import { TreeStore } from './store/tree-store.js';
import { readSettings } from '../api/settings.js';
import { UpkeepTimer } from './upkeep-timer.js';
import { Upkeep } from './store/upkeep.js';
import { TaskRunner } from './workers/task-runner.js';
import { ServiceCard } from './service-card.js';
import { openHome } from '../disk/home/home-folder.js';
import { WatchedTrees } from '../disk/watched-trees.js';
import { TreeWrites } from '../disk/writes/tree-writes.js';

export interface ServiceOptions {
  /** Data folder. */
  home: string;
  port: number;
  /** The address to listen on; loopback when it is left out. Any other requires tokens. */
  listen?: string;
  /** Whether tokens are required on loopback too. */
  requireToken?: boolean;
  /** Names, such as that of a proxy, under which the service may be asked besides its address. */
  hostNames?: readonly string[];
  /** Whether a trusted proxy in front reports the client address in X-Forwarded-For. */
  behindProxy?: boolean;
  /** Holds the console’s files; that of the build when it is left out. */
  consoleFolder?: string;
  /** Folders below which trees may be linked. */
  roots?: readonly string[];
  /** For one command only: nothing is compiled ahead that may be asked once. */
  brief?: boolean;
  /** Writes `service.json` into the data folder, so that commands find this service. */
  announce?: boolean;
  log?: Log;
  version: string;
  now?: () => Date;
  /** Where secrets and addresses of networks are looked up; nothing is when it is left out. */
  env?: Readonly<Record<string, string | undefined>>;
  /** Tells one build of the readers from another, so that what one read is kept for the next run; null keeps nothing. */
  build?: string | null;
  /** How long a network is waited for, and how often it is asked. */
  partnerLimits?: CallLimits;
}

/** A large table takes long to send (ms); only those who may send one get so far. */
const longestRequest = 3_600_000;

export interface RunningService {
  url: string;
  /** Stops taking requests, lets those under way end, and closes the record. */
  close(): Promise<void>;
}

/** The service would have listened where anybody can reach it, and nobody has a token. */
export class NoTokensError extends Error {
  override readonly name = 'NoTokensError';
}

/**
 * Starts the service.
 * @throws NoTokensError when it is to ask for tokens and there are none
 * @throws ServiceRunningError when it is to announce itself, and another one runs on the data folder
 */
export async function startService(options: ServiceOptions): Promise<RunningService> {
  const { home, port, announce = false, now = () => new Date() } = options;
  const log = options.log ?? silentLog;
  // Compiling a schema pays off from the second request on.
  z.config({ jitless: options.brief === true });
  for (const says of openHome(home)) log.warn({ home }, says);
  // One command can wait for another; a service that many ask must not stand still for long.
  const store = openStore(home, options.brief === true ? 10_000 : 2_000);
  const address = options.listen ?? '127.0.0.1';
  const tokens = new TokenStore(store.db, now);
  const access = new Access(tokens, options.requireToken === true || !isLoopback(address), now);
  if (access.required && !tokens.any()) {
    store.close();
    throw new NoTokensError(`There are no tokens, so no one could use a service on ${address}.`);
  }
  const service = assemble(options, { store, access, log, now });
  const streams = new EventStreams(service);
  const app = createApp(service, {
    streams,
    consoleFolder: options.consoleFolder ?? builtConsole(),
    names: hostNames(address, options.hostNames ?? []),
    behindProxy: options.behindProxy === true,
  });
  const server = createServer({ requestTimeout: longestRequest, headersTimeout: 20_000 }, app);
  try {
    await listen(server, address, port);
  } catch (error) {
    store.close();
    throw error;
  }
  const { port: bound } = server.address() as AddressInfo;
  const url = `http://${urlHost(address)}:${bound}`;
  const card = announce ? new ServiceCard(home, store.db, url) : null;
  try {
    await card?.put();
  } catch (error) {
    server.close();
    await service.watched.close();
    store.close();
    throw error;
  }
  log.info({ url }, 'The service is listening.');
  if (options.brief !== true) {
    service.upkeep.start();
    await service.linkedTrees.followAll();
  }
  return {
    url,
    async close() {
      card?.remove();
      streams.endAll();
      await service.watched.close();
      await service.runner.close();
      await closed(server);
      await service.upkeep.close();
      store.close();
      log.info('The service has stopped.');
    },
  };
}

/** Builds the stores, and the work that is built on them. */
function assemble(
  { home, version, roots = [], env = {}, partnerLimits, build = builtStamp, brief = false }: ServiceOptions,
  { store: { db }, access, log, now }: { store: OpenStore; access: Access; log: Log; now: () => Date },
): Service {
  const roster = new RosterStore(db);
  const secrets = new Secrets(home, env);
  const trees = new TreeStore(db, now);
  const shelf = build === null ? undefined : new StoredReadings(db, build);
  const settings = readSettings(env);
  const context: ServiceContext = {
    home,
    access,
    roster,
    overview: new OverviewStore(db),
    accepted: new AcceptanceStore(db),
    secrets,
    inventories: new InventoryStore(db),
    steps: new StepsStore(db),
    tallies: new TallyStore(db),
    partners: new Partners(
      { roster, secrets },
      partnerAddresses(env.SYNDEXA_PARTNERS),
      partnerLimits ?? { timeout: 20_000, tries: 6, pause: 200 },
      env.SYNDEXA_STORE,
    ),
    trees,
    upkeep: new UpkeepTimer(new Upkeep(db, settings, now), log),
    runner: new TaskRunner({ trees, shelf, settings, log, brief }),
    watched: new WatchedTrees(join(home, 'known-files')),
    writes: new TreeWrites(home),
    profiles: new ProfileShelf(home, log),
    roots: roots.map((root) => realpathSync(root)),
    events: new Events(),
    log,
    settings,
    version,
    now,
  };
  const overviewing = new OverviewWork(context);
  const titleWork = new TitleWork(context);
  const tallyHistory = new HistoryWork(context);
  const treeWork = new TreeWork(context, tallyHistory);
  return {
    ...context,
    overviewing,
    titleWork,
    treeWork,
    stepsWork: new StepsWork(context, tallyHistory),
    provisioning: new ProvisionWork(context, titleWork),
    collecting: new CollectWork(context, titleWork),
    rehearsing: new RehearsalWork(context, treeWork),
    tallying: new TallyWork(context),
    figuring: new FigureWork(context),
    tallyHistory,
    linkedTrees: new LinkedTrees(context, treeWork),
  };
}

/** Stops listening and waits for requests under way; after five seconds their connections are cut. */
async function closed(server: Server): Promise<void> {
  const ended = new Promise<void>((resolve) => server.close(() => resolve()));
  // A connection that a caller keeps for later is cut once it has its answer.
  const cut = setInterval(() => server.closeIdleConnections(), 20);
  const hurry = setTimeout(() => server.closeAllConnections(), 5_000);
  await ended;
  clearTimeout(hurry);
  clearInterval(cut);
}

/** The host by which a service that listens on an address is asked from this machine. */
function urlHost(address: string): string {
  if (address === '0.0.0.0') return '127.0.0.1';
  if (address === '::') return '[::1]';
  return address.includes(':') ? `[${address}]` : address;
}

function listen(server: Server, address: string, port: number): Promise<void> {
  // A caller’s next request should not meet a connection that is being closed.
  server.keepAliveTimeout = 60_000;
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, address, () => {
      server.off('error', reject);
      resolve();
    });
  });
}

/** The built console: beside the bundle in a build, in `dist` when run from the sources. */
function builtConsole(): string | null {
  const here = dirname(fileURLToPath(import.meta.url));
  const candidates = [join(here, '..', 'console'), join(here, '..', '..', 'dist', 'console')];
  return candidates.find((folder) => existsSync(join(folder, 'assets'))) ?? null;
}
