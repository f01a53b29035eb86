import { withPlatformLabels } from '../../core/words/platform-labels.js';
import { dayText, readDay } from '../../core/tally/days.js';
import { once } from 'node:events';
import { withService, homeFolder } from '../connect.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';
import {
  askPartner,
  controlPartner,
  partnerCard,
  startPartnerProcess,
  type PartnerCard,
} from '../partner-process.js';
import { SecretHosts } from '../../disk/home/secret-hosts.js';
import { writeSecrets } from '../../disk/home/secrets-file.js';

/** The name under which the key of a simulated account is kept. */
export function secretNameFor(network: string, credential: string): string {
  return `${network}_${credential}`.toUpperCase().replace(/-/g, '_');
}

/** `syndexa partner start`: the simulated partner, until it is stopped. */
export async function startPartner(
  io: Io,
  paint: Paint,
  options: { port: number; seed?: string; fresh?: boolean },
): Promise<number> {
  const home = homeFolder(io.env);
  const partner = await startPartnerProcess({
    home,
    port: options.port,
    seed: Number(options.seed ?? 1),
    ...(options.fresh ? { fresh: true } : {}),
  });
  io.out(
    [
      `The simulated partner is at ${paint.cyan(partner.url)}; it acts as every known network.`,
      'Open accounts there:          syndexa partner open-accounts "Saltmarsh Software"',
      `Point the service at it:      SYNDEXA_PARTNERS=${partner.url}`,
      'Stop with Ctrl-C.',
      '',
    ].join('\n'),
  );
  await Promise.race([once(process, 'SIGINT'), once(process, 'SIGTERM')]);
  await partner.close();
  return exit.clean;
}

/** `syndexa partner open-accounts NAME`: an account at each network, its key put where only the owner reads it. */
export function openAccounts(
  io: Io,
  paint: Paint,
  name: string,
  options: { network?: string[]; json?: boolean },
): Promise<number> {
  return withService(io, async (client) => {
    const home = homeFolder(io.env);
    const card = partnerCard(home);
    const networks = options.network ?? (await client.call('listNetworks')).map(({ id }) => id);
    const opened = [];
    for (const network of networks) {
      const { profile } = await client.call('showNetwork', { params: { network } });
      const key = profile.inventory?.http?.key;
      if (key === undefined) continue;
      const account = await openAccount(card, network, name);
      const secret = secretNameFor(network, key);
      keepKey(home, card, secret, account.key);
      opened.push({ network, credential: key, secret: `secret:${secret}`, account: account.number });
    }
    if (options.json) printJson(io, opened);
    else
      for (const { network, credential, secret, account } of opened)
        io.out(
          `${paint.green('✔')} ${network}${account === null ? '' : ` (account ${account})`}: its ${credential} is stored as ${secret}\n`,
        );
    return exit.clean;
  });
}

/** Keeps the key of an account at the simulated partner, and approves the partner's own address for it. */
export function keepKey(home: string, { url }: PartnerCard, secret: string, key: string): void {
  writeSecrets(home, new Map([[secret, key]]));
  const { hostname, port } = new URL(url);
  new SecretHosts(home).allow({ secret, host: hostname, port: Number(port) });
}

/** Opens an account; its key is shown only once. */
export async function openAccount(
  card: PartnerCard,
  network: string,
  name: string,
  number?: string,
): Promise<{ key: string; number: string | null }> {
  const body = { network, name, ...(number === undefined ? {} : { number }) };
  return (await controlPartner(card, 'accounts', body)) as { key: string; number: string | null };
}

/** `syndexa partner accept NETWORK APP`: what a person does on the network's page. */
export async function acceptTerms(io: Io, paint: Paint, network: string, app: string): Promise<number> {
  await controlPartner(partnerCard(homeFolder(io.env)), 'terms', { network, app });
  io.out(`${paint.green('✔')} The terms of ${network} are accepted for ${app}.\n`);
  return exit.clean;
}

/** `syndexa partner faults NETWORK`: what befalls its answers from now on. */
export async function setFaults(
  io: Io,
  network: string,
  options: { kinds?: string[]; every?: string },
): Promise<number> {
  const kinds = options.kinds ?? [];
  await controlPartner(partnerCard(homeFolder(io.env)), 'faults', {
    network,
    kinds,
    every: Number(options.every ?? 3),
  });
  io.out(
    kinds.length === 0
      ? `${network} has no faults from now on.\n`
      : `One in ${Number(options.every ?? 3)} calls to ${network} has a fault: ${kinds.join(', ')}.\n`,
  );
  return exit.clean;
}

/** `syndexa partner market NETWORK`: how much is filled, and how long answers take. */
export async function setMarket(
  io: Io,
  network: string,
  { fill, latency }: { fill?: number; latency?: number },
): Promise<number> {
  await controlPartner(partnerCard(homeFolder(io.env)), 'market', {
    network,
    ...(fill === undefined ? {} : { fill: fill / 100 }),
    ...(latency === undefined ? {} : { latency }),
  });
  const said = [
    ...(fill === undefined ? [] : [`fills ${fill} % of requests`]),
    ...(latency === undefined ? [] : [`answers after ${latency} ms`]),
  ];
  io.out(`${network} ${said.length === 0 ? 'stays as it is' : said.join(', and ')}.\n`);
  return exit.clean;
}

/** `syndexa partner device NETWORK DEVICE`: registers a device for testing. */
export async function registerDevice(io: Io, paint: Paint, network: string, device: string): Promise<number> {
  const { accounts } = (await controlPartner(partnerCard(homeFolder(io.env)), 'devices', {
    network,
    device,
  })) as { accounts: number };
  if (accounts === 0)
    throw new CommandError(
      `Nobody has an account at ${network}, so no device can be registered there.`,
      exit.refused,
      'Open one: syndexa partner open-accounts NAME.',
    );
  io.out(`${paint.green('✔')} ${device} gets test ads from ${network} for every unit.\n`);
  return exit.clean;
}

/** `syndexa partner lift NETWORK`: opens accounts again that were suspended. */
export async function liftSuspension(io: Io, paint: Paint, network: string): Promise<number> {
  const { lifted } = (await controlPartner(partnerCard(homeFolder(io.env)), 'lift', { network })) as {
    lifted: number;
  };
  io.out(
    lifted === 0
      ? `Nobody has an account at ${network}.\n`
      : `${paint.green('✔')} ${network} serves ads to every account again; all strikes are reset.\n`,
  );
  return exit.clean;
}

/** `syndexa partner clock`: sets the partner's time, or moves it on. */
export async function setClock(
  io: Io,
  options: { now?: string; advance?: string; stand?: boolean },
): Promise<number> {
  const match = /^(\d+)(s|m|h|d)$/.exec(options.advance ?? '');
  if (options.advance !== undefined && !match)
    throw new CommandError('--advance takes a time such as 90m or 2h.', exit.wrongUse);
  const unit = { s: 1, m: 60, h: 3600, d: 86_400 }[match?.[2] ?? 's'] ?? 1;
  const { now } = (await controlPartner(partnerCard(homeFolder(io.env)), 'clock', {
    ...(options.now === undefined ? {} : { now: options.now }),
    ...(options.stand ? { stands: true } : {}),
    ...(match ? { advance: Number(match[1]) * unit } : {}),
  })) as { now: string };
  io.out(`The partner’s clock is at ${now}.\n`);
  return exit.clean;
}

/** `syndexa partner list-app`: puts an application into the simulated store. */
export async function listApp(
  io: Io,
  platform: string,
  identifier: string,
  options: { name: string; site?: string; at?: string },
): Promise<number> {
  const card = partnerCard(homeFolder(io.env));
  const site = options.site;
  await controlPartner(card, 'listings', {
    platform,
    identifier,
    name: options.name,
    ...(site === undefined ? {} : { site }),
  });
  if (site !== undefined && options.at !== undefined)
    await controlPartner(card, 'sites', { domain: site, address: options.at });
  io.out(`The store lists ${identifier} (${withPlatformLabels(platform)}) as ${options.name}.\n`);
  return exit.clean;
}

interface Crawled {
  apps: { identifier: string; platform: string; state: string; detail: string }[];
}

/** `syndexa partner crawl NETWORK`: what its crawler says of every app. */
export async function crawlSites(
  io: Io,
  paint: Paint,
  network: string,
  options: { json?: boolean },
): Promise<number> {
  const card = partnerCard(homeFolder(io.env));
  const response = await askPartner(card, `${network}/crawl`);
  const crawled = (await response.json()) as Crawled;
  if (!response.ok) throw new CommandError(`There is no network ${network} at the partner.`, exit.wrongUse);
  if (options.json) printJson(io, crawled);
  else if (crawled.apps.length === 0) io.out(`${network} has no app yet, so there is nothing to crawl.\n`);
  else
    for (const { identifier, platform, state, detail } of crawled.apps)
      io.out(
        `${state === 'authorised' ? paint.green('✔') : paint.red('■')} ${identifier} (${withPlatformLabels(platform)})  ${detail}\n`,
      );
  return crawled.apps.every(({ state }) => state === 'authorised') ? exit.clean : exit.findings;
}

export interface IncidentOptions {
  what: string;
  unit?: string;
  app?: string;
  from: string;
  to?: string;
  left?: number;
}

/** `syndexa partner incident NETWORK`: something befalls daily numbers. */
export async function setIncident(
  io: Io,
  network: string,
  { left, ...incident }: IncidentOptions,
): Promise<number> {
  if ((incident.unit === undefined) === (incident.app === undefined))
    throw new CommandError('Name a unit, or an app.', exit.wrongUse, 'Add --unit ID or --app ID.');
  await controlPartner(partnerCard(homeFolder(io.env)), 'incident', {
    network,
    ...incident,
    ...(left === undefined ? {} : { left: left / 100 }),
  });
  const until = incident.to === undefined ? 'on' : `until ${incident.to}`;
  const share = left === undefined ? '' : `, ${left} % of what it was`;
  io.out(
    `From ${incident.from} ${until}, ${incident.unit ?? incident.app ?? ''} is ${incident.what} at ${network}${share}.\n`,
  );
  return exit.clean;
}

/** `syndexa partner report NETWORK`: daily numbers as a table. */
export async function printReport(io: Io, network: string, { days }: { days: number }): Promise<number> {
  const card = partnerCard(homeFolder(io.env));
  const { now } = (await controlPartner(card, 'clock', {})) as { now: string };
  const today = readDay(now.slice(0, 10)) ?? 0;
  const { table } = (await controlPartner(card, 'report', {
    network,
    from: dayText(today - days),
    to: dayText(today),
  })) as { table: string };
  io.raw(table);
  return exit.clean;
}
