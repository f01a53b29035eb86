import { cp, mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { applyPatch, parsePatch } from 'diff';
import { CommandError, exit, type Io, type Paint } from '../io.js';
import type { GroupContext } from '../groups/group.js';
import type { PartnerCard } from '../partner-process.js';
import { demoFolder } from '../demo-folder.js';
import { fillNumbers } from './demo-numbers.js';
import { start } from './serve.js';

export interface WalkPlaces {
  trees: string;
  home: string;
  partner: PartnerCard;
  /** The developer site. */
  site: string;
  /** Runs a command, as it would be typed. */
  run: GroupContext['run'];
}

/** Runs one command as it would be typed, and holds it to its exit code. */
type Run = (line: string, wanted?: number, also?: string) => Promise<void>;

function runner(io: Io, paint: Paint, { run }: WalkPlaces): Run {
  return async (line, wanted = exit.clean, also = '') => {
    io.out(`\n${paint.bold(paint.cyan(`▶ syndexa ${line}`))}${also ? `   ${paint.dim(also)}` : ''}\n\n`);
    const args = [...line.matchAll(/"([^"]*)"|(\S+)/g)].map((match) => match[1] ?? match[2] ?? '');
    const got = await run(args, io);
    if (got !== wanted)
      throw new CommandError(`syndexa ${line} ended with ${got}, not ${wanted}.`, exit.findings);
  };
}

/** The whole way, without a person: a title full of faults made right, then one from nothing. */
export async function walk(io: Io, paint: Paint, places: WalkPlaces): Promise<number> {
  await fromWrong(io, paint, places);
  await fromNothing(io, paint, places);
  for (const title of ['plumebook', 'kilnlog', 'kilnlog-expo', 'orrery-drift', 'parcelgull'])
    await oneTree(io, paint, places, title);
  await whatItEarns(io, paint, places);
  return exit.clean;
}

/** Numbers of some months: what they come to, why they changed, and what is missing in them. */
async function whatItEarns(io: Io, paint: Paint, places: WalkPlaces): Promise<void> {
  const syndexa = runner(io, paint, places);
  await fillNumbers(io.env.SYNDEXA_URL ?? '', places.partner);
  await syndexa('tally fetch', exit.clean, 'again: nothing counts twice');
  await syndexa('tally show --all --by title --in EUR');
  await syndexa('tally show tidewick --in EUR');
  await syndexa('tally compare tidewick --in EUR');
  await syndexa('tally silent', exit.findings, 'what is missing');
}

/** Survey, check, wire, what is left to hands, check again, board; then what the network says. */
async function fromWrong(io: Io, paint: Paint, places: WalkPlaces): Promise<void> {
  const { trees, site } = places;
  const syndexa = runner(io, paint, places);
  await syndexa('survey tidewick --title tidewick');
  await syndexa('check tidewick --title tidewick', exit.findings);
  await syndexa('board tidewick');
  await syndexa('wire tidewick --title tidewick --write');
  await syndexa('wire tidewick --title tidewick', exit.clean, 'again: there is nothing left to write');
  io.out(
    `\n${paint.bold(paint.cyan('▶ What was left to hands, done as a person would: demo/by-hand.patch'))}\n\n`,
  );
  for (const file of await applyByHand(trees, 'by-hand.patch')) io.out(`  ${file}\n`);
  await syndexa('check tidewick --title tidewick --fail-on note', exit.clean, 'clean now');
  for (const network of ['cobalt-heron', 'marlstone', 'ferrowick'])
    await syndexa(`partner market ${network} --fill 100`);
  await syndexa('rehearse tidewick --title tidewick', exit.clean, 'would every ad show?');
  await syndexa(
    'id collect tidewick --network cobalt-heron --yes',
    exit.clean,
    'what does the network have?',
  );
  await syndexa(
    'check tidewick --title tidewick --fail-on warning',
    exit.findings,
    'a setting was changed at the network',
  );
  await syndexa('provision tidewick --network cobalt-heron --settle roster --yes');
  await syndexa('check tidewick --title tidewick --fail-on note', exit.clean, 'and that is settled');
  await syndexa(`appads verify --url ${site}/app-ads.txt`, exit.findings);
  await syndexa('title look-up tidewick');
  await syndexa('steps tidewick --next');
  await syndexa('board tidewick');
}

/** A tree that builds both platforms: read, checked, wired with its code, and clean. */
async function oneTree(io: Io, paint: Paint, places: WalkPlaces, title: string): Promise<void> {
  const { trees } = places;
  const syndexa = runner(io, paint, places);
  const tree = `${title} --title ${title}`;
  await syndexa(`survey ${tree}`);
  await syndexa(`check ${tree}`, exit.findings);
  await syndexa(`wire ${tree} --call-sites --write`);
  await syndexa(`wire ${tree} --call-sites`, exit.clean, 'again: there is nothing left');
  const patch = `${title}-by-hand.patch`;
  io.out(
    `\n${paint.bold(paint.cyan(`▶ What was left to hands, done as a person would: demo/${patch}`))}\n\n`,
  );
  for (const file of await applyByHand(trees, patch)) io.out(`  changed ${file}\n`);
  await syndexa(`wire ${tree} --write`, exit.clean, 'what came by hand is taken into the build');
  await syndexa(`check ${tree} --fail-on note`, exit.clean, 'both platforms, clean now');
  await syndexa(`rehearse ${tree}`, exit.clean, 'and every placement shows an ad');
  await syndexa(`board ${title}`);
}

/** From an empty record and trees without any ads to a title that is provisioned, wired and checked. */
async function fromNothing(io: Io, paint: Paint, places: WalkPlaces): Promise<void> {
  const { trees, home, partner } = places;
  const empty = join(home, 'from-nothing');
  await mkdir(empty, { recursive: true, mode: 0o700 });
  await cp(join(home, 'partner.json'), join(empty, 'partner.json'));
  const env = { ...io.env, SYNDEXA_HOME: empty, SYNDEXA_PARTNERS: partner.url, SYNDEXA_URL: undefined };
  io.out(
    `\n${paint.bold('From nothing: an empty record, two trees without ads, and a network that often fails.')}\n`,
  );
  const service = await start({ ...io, env }, empty, { port: 0, root: [trees], logLevel: 'warn' });
  try {
    const syndexa = runner({ ...io, env: { ...env, SYNDEXA_URL: service.url }, cwd: trees }, paint, places);
    const networks = ['cobalt-heron', 'marlstone'];
    await syndexa(
      'publisher set --name "Saltmarsh Lite" --domain saltmarsh.example --account marlstone=SM-20419',
    );
    await syndexa(`partner open-accounts "Saltmarsh Lite" --network ${networks.join(' ')}`);
    await syndexa(
      'publisher set --credential cobalt-heron.inventory=secret:COBALT_HERON_INVENTORY marlstone.console=secret:MARLSTONE_CONSOLE',
    );
    await syndexa(
      'title add lite --name "Tidewick Lite" --android example.saltmarsh.tidewick.lite --ios example.saltmarsh.tidewick-tides.lite --test debug staging --production release',
    );
    await syndexa(
      'placement add lite tide-footer --format banner --refresh 60s --content text image --network cobalt-heron',
    );
    await syndexa(
      'placement add lite extra-day --format rewarded --reward "1 day of storm charts" --network cobalt-heron marlstone',
    );
    await syndexa('partner faults cobalt-heron --kinds error cut html --every 3');
    await syndexa('partner faults marlstone --kinds cut error empty --every 2');
    await syndexa('provision lite --dry-run', exit.findings);
    await syndexa('provision lite --yes', exit.findings, 'the terms are left to a person');
    await syndexa('provision lite', exit.findings, 'again: nothing is created twice');
    for (const network of networks) {
      await syndexa(`partner faults ${network}`);
      for (const app of await appsOf(service.url, network)) await syndexa(`partner accept ${network} ${app}`);
      await syndexa(`id collect lite --network ${network} --yes`);
    }
    await syndexa('check tidewick-lite --title lite', exit.findings);
    await syndexa('wire tidewick-lite --title lite --write');
    io.out(
      `\n${paint.bold(paint.cyan('▶ The start-up calls, and what is loaded, written as a person would: demo/lite-by-hand.patch'))}\n\n`,
    );
    for (const path of await applyByHand(trees, 'lite-by-hand.patch')) io.out(`  changed ${path}\n`);
    await syndexa(
      'check tidewick-lite --title lite --fail-on warning',
      exit.clean,
      'wired and checked; new units serve in an hour',
    );
    await syndexa('board lite');
    await syndexa('steps lite --next');
  } finally {
    await service.close();
  }
}

/** The apps that a network is known to have, by their IDs there. */
async function appsOf(url: string, network: string): Promise<string[]> {
  const { Client } = await import('../client.js');
  const client = new Client(url, 'demo');
  try {
    const found = await client.call('inventory', { params: { network } });
    return (found?.apps ?? []).map(({ id }) => id);
  } finally {
    client.close();
  }
}

/** Does to the copy of the trees what wiring leaves to a person. */
async function applyByHand(trees: string, patches: string): Promise<string[]> {
  const done: string[] = [];
  for (const patch of parsePatch(await readFile(join(demoFolder(), patches), 'utf8'))) {
    const isGone = patch.newFileName === '/dev/null';
    const path = ((isGone ? patch.oldFileName : patch.newFileName) ?? '').replace(/^[ab]\//, '');
    const file = join(trees, path);
    const isNew = patch.oldFileName === '/dev/null';
    const after = applyPatch(isNew ? '' : await readFile(file, 'utf8'), patch);
    if (after === false) throw new CommandError(`The demo’s own patch does not fit ${path}.`, exit.wrongUse);
    await (isGone ? rm(file) : writeFile(file, after));
    done.push(path);
  }
  return done;
}
