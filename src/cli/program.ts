import { Argument, Command, CommanderError, InvalidArgumentError, Option } from 'commander';
import {
  audienceNames,
  formatNames,
  platformNames,
  severityNames,
  stageNames,
} from '../core/network/names.js';
import { examples } from './examples.js';
import { usualPartnerPort, usualPort } from './connect.js';
import { CommandError, exit, type Io, type Paint } from './io.js';
import { version } from './version.js';

/** What a run of the program came to. */
interface Outcome {
  code: number;
}

const json = () => new Option('--json', 'print one JSON document on standard output, and nothing else');
const titleOption = () =>
  new Option('-t, --title <title>', 'the title to compare with (else found by its identifiers)');

/**
 * Runs the program with its arguments and returns the exit code: 0 clean, 1 findings, 2 wrong use or
 * unreadable input, 3 service not reachable, 4 refused. It never ends the process.
 */
export async function run(args: readonly string[], io: Io, paint: Paint): Promise<number> {
  const outcome: Outcome = { code: exit.clean };
  const program = buildProgram(io, paint, outcome);
  try {
    await program.parseAsync(args, { from: 'user' });
    return outcome.code;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? exit.clean : exit.wrongUse;
    if (error instanceof CommandError) {
      io.err(
        `${paint.red('■')} ${error.message}\n${error.details.map((line) => `    ${line}\n`).join('')}${error.fix ? `  ${error.fix}\n` : ''}`,
      );
      return error.code;
    }
    throw error;
  }
}

function buildProgram(io: Io, paint: Paint, outcome: Outcome): Command {
  const program = new Command('syndexa')
    .description('The record of a title’s advertising IDs, and the engine that keeps every build true to it.')
    .version(version)
    .showHelpAfterError('Run it with --help to see how it is used.')
    .exitOverride()
    .configureOutput({ writeOut: io.out, writeErr: io.err });
  const end = (work: Promise<number>) => work.then((code) => void (outcome.code = code));
  treeCommands(program, io, paint, end);
  recordCommands(program, io, paint, end);
  partnerCommands(program, io, paint, end);
  standardCommands(program, io, paint, end);
  serviceCommands(program, io, paint, end);
  addExamples(program, '');
  return program;
}

/** Adds to each command's help the example that belongs to it. */
function addExamples(command: Command, path: string): void {
  for (const sub of command.commands) {
    const name = `${path} ${sub.name()}`.trim();
    const lines = examples[name];
    if (lines)
      sub.addHelpText('after', `\nExample, on the demo:\n${lines.map((line) => `  ${line}`).join('\n')}\n`);
    addExamples(sub, name);
  }
}

type End = (work: Promise<number>) => Promise<void>;

function treeCommands(program: Command, io: Io, paint: Paint, end: End): void {
  const trees = () => import('./commands/trees.js');
  program
    .command('survey')
    .description('say what is wired in a tree today: every fact with its place and evidence; needs no roster')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .addOption(json())
    .action((dir: string, options) => end(trees().then(({ survey }) => survey(io, paint, dir, options))));
  program
    .command('check')
    .description('say what is wrong with a tree')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .addOption(
      new Option('--fail-on <severity>', 'end with 1 when there are findings at or above this')
        .choices([...severityNames, 'never'])
        .default('blocker'),
    )
    .addOption(
      new Option('--format <format>', 'how findings are printed')
        .choices(['text', 'json', 'sarif'])
        .default('text'),
    )
    .addOption(json())
    .action((dir: string, options) => end(trees().then(({ check }) => check(io, paint, dir, options))));
  program
    .command('wire')
    .description('show the smallest edits that make a tree agree with the roster; write them with --write')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .option('-w, --write', 'write the edits: all files, or none')
    .addOption(json())
    .action((dir: string, options) => end(trees().then(({ wire }) => wire(io, paint, dir, options))));
}

function recordCommands(program: Command, io: Io, paint: Paint, end: End): void {
  const titles = () => import('./commands/titles.js');
  program
    .command('board')
    .description('show which ID each build carries: test and production, Android and iOS, side by side')
    .argument('<title>')
    .addOption(json())
    .action((title: string, options) => end(titles().then(({ board }) => board(io, paint, title, options))));

  const title = program.command('title').description('titles: list, show, add, set, remove, link, history');
  title
    .command('list')
    .description('list the titles')
    .addOption(json())
    .action((options) => end(titles().then(({ listTitles }) => listTitles(io, options))));
  title
    .command('show')
    .description('show one title')
    .argument('<title>')
    .addOption(json())
    .action((id: string, options) => end(titles().then(({ showTitle }) => showTitle(io, id, options))));
  const titleFields = (command: Command) =>
    command
      .argument('<title>', 'short name: small letters, digits and dashes')
      .option('--name <name>', 'the name people see')
      .option('--android <identifier>', 'application ID')
      .option('--ios <identifier>', 'bundle ID')
      .addOption(new Option('--audience <audience>').choices(audienceNames))
      .option('--test <names...>', 'build types, configurations, flavours or variants for testing')
      .option('--production <names...>', 'those that ship')
      .addOption(json());
  titleFields(title.command('add').description('add a title')).action((id: string, options) =>
    end(titles().then(({ addTitle }) => addTitle(io, id, options))),
  );
  titleFields(title.command('set').description('change a title')).action((id: string, options) =>
    end(titles().then(({ setTitle }) => setTitle(io, id, options))),
  );
  title
    .command('remove')
    .description('take a title out')
    .argument('<title>')
    .option('-y, --yes', 'do not ask')
    .addOption(json())
    .action((id: string, options) => end(titles().then(({ removeTitle }) => removeTitle(io, id, options))));
  title
    .command('history')
    .description('say what changed: who, when, what was, what is')
    .argument('<title>')
    .addOption(json())
    .action((id: string, options) => end(titles().then(({ titleHistory }) => titleHistory(io, id, options))));
  title
    .command('link')
    .description('link a folder below one of the service’s roots, so that the console can read and wire it')
    .argument('<title>')
    .argument('<dir>')
    .addOption(json())
    .action((id: string, dir: string, options) =>
      end(
        Promise.all([titles(), import('node:path')]).then(([{ linkTitle }, { resolve }]) =>
          linkTitle(io, id, resolve(io.cwd, dir), options),
        ),
      ),
    );

  const placement = program.command('placement').description('placements: list, add, set, remove');
  placement
    .command('list')
    .description('list the placements of a title')
    .argument('<title>')
    .addOption(json())
    .action((id: string, options) =>
      end(titles().then(({ listPlacements }) => listPlacements(io, id, options))),
    );
  const placementFields = (command: Command) =>
    command
      .argument('<title>')
      .argument('<placement>', 'a name that tells place and format, such as tide-list-footer')
      .addOption(new Option('--format <format>').argParser(oneOf('format', formatNames)))
      .option('--where <words>', 'where in the title it stands')
      .option('--refresh <time>', 'managed, off, or a time such as 60s')
      .option('--content <kinds...>', 'text, image, video')
      .option('--reward <reward>', 'amount and item: "1 day of storm charts"')
      .option('--network <networks...>', 'networks that fill it')
      .addOption(json());
  placementFields(placement.command('add').description('add a placement')).action(
    (id: string, name: string, options) =>
      end(titles().then(({ putPlacement }) => putPlacement(io, id, name, options, true))),
  );
  placementFields(placement.command('set').description('change a placement')).action(
    (id: string, name: string, options) =>
      end(titles().then(({ putPlacement }) => putPlacement(io, id, name, options, false))),
  );
  placement
    .command('remove')
    .description('take a placement out')
    .argument('<title>')
    .argument('<placement>')
    .addOption(json())
    .action((id: string, name: string, options) =>
      end(titles().then(({ removePlacement }) => removePlacement(io, id, name, options))),
    );

  const id = program.command('id').description('IDs: list, set, unset, collect');
  id.command('list')
    .description('list every ID with its state')
    .argument('<title>')
    .addOption(json())
    .action((name: string, options) => end(titles().then(({ listIds }) => listIds(io, name, options))));
  const slot = (command: Command) =>
    command
      .requiredOption('--network <network>')
      .addOption(new Option('--platform <platform>').choices(platformNames).makeOptionMandatory())
      .addOption(new Option('--stage <stage>').choices(stageNames).default('production'))
      .option('--placement <placement>', 'the placement; left out for an app ID')
      .addOption(json());
  slot(
    id.command('set').description('put an ID into the roster').argument('<title>').argument('<id>'),
  ).action((name: string, value: string, options) =>
    end(titles().then(({ setId }) => setId(io, name, value, options))),
  );
  id.command('collect')
    .description('bring a network’s list of units in, and put the IDs that belong to a title into the roster')
    .argument('<title>')
    .requiredOption('--network <network>')
    .option('--csv <file>', 'a table that the network’s pages gave out, instead of asking the network')
    .option('--column <pairs...>', 'columns that are called otherwise than the profile says: id="Ad unit"')
    .option('--separator <character>', 'what parts the columns (else it is found out); tab for a tabulator')
    .option('--take-low', 'also take matches of low confidence')
    .option('--accept-names', 'the names that units bear now are the ones they are known by')
    .option('--dry-run', 'only show what would be taken')
    .option('-y, --yes', 'do not ask')
    .addOption(json())
    .action((name: string, options) =>
      end(import('./commands/collect.js').then(({ collect }) => collect(io, paint, name, options))),
    );
  slot(id.command('unset').description('take an ID out').argument('<title>')).action(
    (name: string, options) => end(titles().then(({ setId }) => setId(io, name, null, options))),
  );

  const roster = program.command('roster').description('the roster as a document: export, import, schema');
  const rosterWork = () => import('./commands/roster.js');
  roster
    .command('export')
    .description('write the roster as YAML; into an existing file its comments are kept')
    .argument('[file]')
    .addOption(json())
    .action((file: string | undefined, options) =>
      end(rosterWork().then(({ exportRoster }) => exportRoster(io, file, options))),
    );
  roster
    .command('import')
    .description('take a document in, after showing what would change')
    .argument('<file>', 'a YAML document; - for standard input')
    .option('-y, --yes', 'do not ask')
    .option('--dry-run', 'only show what would change')
    .option('--prune', 'take out titles that the document does not name')
    .addOption(json())
    .action((file: string, options) =>
      end(rosterWork().then(({ importRoster }) => importRoster(io, paint, file, options))),
    );
  roster
    .command('schema')
    .description('print the JSON Schema of the document')
    .action(() => end(import('./commands/docs.js').then(({ printSchema }) => printSchema(io, 'roster'))));

  const network = program
    .command('network')
    .description('network profiles: list, show, new, lint, test, add, schema');
  const networks = () => import('./commands/networks.js');
  network
    .command('list')
    .description('list the networks that are known')
    .addOption(json())
    .action((options) => end(networks().then(({ listNetworks }) => listNetworks(io, paint, options))));
  network
    .command('show')
    .description('print a profile as it is written')
    .argument('<network>')
    .addOption(json())
    .action((name: string, options) =>
      end(networks().then(({ showNetwork }) => showNetwork(io, name, options))),
    );
  network
    .command('lint')
    .description('check profiles; every fault with its line and column')
    .argument('<files...>')
    .addOption(json())
    .action((files: string[], options) =>
      end(networks().then(({ lintNetworks }) => lintNetworks(io, paint, files, options))),
    );
  network
    .command('new')
    .description('draft a profile from a few answers, or from what a tree declares and no profile claims')
    .argument('[file]', 'where to write it; - for standard output (else ID.yaml)')
    .option('--id <id>', 'short name: small letters, digits and dashes')
    .option('--name <name>', 'the name people see')
    .option('--about <words>', 'what it sells and how its IDs are handed over')
    .addOption(new Option('--platform <platforms...>').choices(platformNames))
    .addOption(new Option('--format <formats...>').choices(formatNames))
    .option('--app-id <ids...>', 'example app IDs: android=ID ios=ID')
    .option('--unit-id <ids...>', 'example unit IDs: android=ID ios=ID')
    .option('--manifest-key <key>', 'the key of the manifest that takes the app ID')
    .option('--plist-key <key>', 'the key of the property list that takes the app ID')
    .option('--dependency <coordinates...>', 'group:artifact:version')
    .option('--repository <urls...>', 'where they are published')
    .option('--pod <pods...>', 'name:version')
    .option('--permission <names...>')
    .option('--from-tree <dir>', 'propose it from a source tree')
    .option('--only <word>', 'with --from-tree: the vendor to draft for')
    .addOption(json())
    .action((file: string | undefined, options) =>
      end(import('./commands/network-new.js').then(({ newNetwork }) => newNetwork(io, paint, file, options))),
    );
  network
    .command('test')
    .description('say what a profile recognises in a tree, and what of its needs the tree lacks')
    .argument('<profile>', 'a YAML file, or the ID of a known network')
    .requiredOption('--tree <dir>', 'folder of a source tree')
    .addOption(json())
    .action((profile: string, options) =>
      end(networks().then(({ testNetwork }) => testNetwork(io, paint, profile, options))),
    );
  network
    .command('add')
    .description('keep a profile in the data folder, so that every command knows its network')
    .argument('<file>', 'a YAML file')
    .addOption(json())
    .action((file: string, options) =>
      end(networks().then(({ addNetwork }) => addNetwork(io, paint, file, options))),
    );
  network
    .command('schema')
    .description('print the JSON Schema of profiles')
    .action(() => end(import('./commands/docs.js').then(({ printSchema }) => printSchema(io, 'profile'))));
}

function partnerCommands(program: Command, io: Io, paint: Paint, end: End): void {
  program
    .command('provision')
    .description('create at the networks what a title lacks there, and take the IDs into the roster')
    .argument('<title>')
    .option('--network <networks...>', 'only these networks')
    .addOption(new Option('--platform <platforms...>', 'only these platforms').choices(platformNames))
    .option('--names <pattern>', 'how units are named (else {title}_{placement}_{format}_{platform})')
    .addOption(
      new Option('--settle <side>', 'whose settings win where the two differ').choices(['roster', 'partner']),
    )
    .option('--dry-run', 'only show what would be done')
    .option('-y, --yes', 'do not ask')
    .addOption(json())
    .action((title: string, options) =>
      end(import('./commands/provision.js').then(({ provision }) => provision(io, paint, title, options))),
    );

  const publishers = () => import('./commands/publisher.js');
  const publisher = program.command('publisher').description('the publisher: show, set');
  publisher
    .command('show')
    .description('show the publisher, its accounts and its credentials by name')
    .addOption(json())
    .action((options) => end(publishers().then(({ showPublisher }) => showPublisher(io, options))));
  publisher
    .command('set')
    .description('name the publisher; what is not given stays')
    .option('--name <name>')
    .option('--domain <domain>', 'the developer site')
    .option('--account <pairs...>', 'the account at a network: marlstone=SM-20418')
    .option('--credential <pairs...>', 'a credential by the name of its secret: NETWORK.NAME=secret:NAME')
    .addOption(json())
    .action((options) => end(publishers().then(({ setPublisher }) => setPublisher(io, paint, options))));

  const secrets = () => import('./commands/secrets.js');
  const secret = program.command('secret').description('secrets: list, set, unset');
  secret
    .command('list')
    .description('say where each secret of the roster comes from; never what it is')
    .addOption(json())
    .action((options) => end(secrets().then(({ listSecrets }) => listSecrets(io, paint, options))));
  secret
    .command('set')
    .description('keep a secret in a file that only you can read; it is read from standard input')
    .argument('<name>')
    .action((name: string) => end(secrets().then(({ setSecret }) => setSecret(io, paint, name))));
  secret
    .command('unset')
    .description('take a secret out of that file')
    .argument('<name>')
    .action((name: string) => end(secrets().then(({ unsetSecret }) => unsetSecret(io, paint, name))));

  const partners = () => import('./commands/partner.js');
  const partner = program
    .command('partner')
    .description('the simulated partner: start, open-accounts, accept, list-app, crawl, clock, faults');
  partner
    .command('start')
    .description('start the simulated partner, a process of its own')
    .addOption(
      new Option('-p, --port <port>', 'port on 127.0.0.1').argParser(portNumber).default(usualPartnerPort),
    )
    .option('--seed <number>', 'the same seed gives the same IDs')
    .option('--fresh', 'forget the books of an earlier run')
    .action((options) => end(partners().then(({ startPartner }) => startPartner(io, paint, options))));
  partner
    .command('open-accounts')
    .description('open an account at each network, and keep its key as a secret')
    .argument('<name>', 'the publisher’s name')
    .option('--network <networks...>', 'only these networks')
    .addOption(json())
    .action((name: string, options) =>
      end(partners().then(({ openAccounts }) => openAccounts(io, paint, name, options))),
    );
  partner
    .command('accept')
    .description('accept the terms of a network for an app, as a person does on its page')
    .argument('<network>')
    .argument('<app>', 'the app ID at the network')
    .action((network: string, app: string) =>
      end(partners().then(({ acceptTerms }) => acceptTerms(io, paint, network, app))),
    );
  partner
    .command('list-app')
    .description('put an application into the simulated store')
    .addArgument(new Argument('<platform>').choices(platformNames))
    .argument('<identifier>')
    .requiredOption('--name <name>')
    .option('--site <domain>', 'the developer site that the listing names')
    .option('--at <url>', 'the local address at which that site is reached')
    .action((platform: string, identifier: string, options) =>
      end(partners().then(({ listApp }) => listApp(io, platform, identifier, options))),
    );
  partner
    .command('crawl')
    .description('say what the network’s crawler finds in app-ads.txt, app by app')
    .argument('<network>')
    .addOption(json())
    .action((network: string, options) =>
      end(partners().then(({ crawlSites }) => crawlSites(io, paint, network, options))),
    );
  partner
    .command('clock')
    .description('set the partner’s time, or move it on')
    .option('--now <time>', 'in ISO 8601')
    .option('--stand', 'with --now: it stands still there')
    .option('--advance <time>', 'such as 90m or 2h')
    .action((options) => end(partners().then(({ setClock }) => setClock(io, options))));
  partner
    .command('faults')
    .description('let faults befall the answers of a network; without --kinds they end')
    .argument('<network>')
    .option('--kinds <kinds...>', 'error, timeout, cut, html, empty, loop, shift, odd-ids')
    .option('--every <number>', 'every so many calls', '3')
    .action((network: string, options) =>
      end(partners().then(({ setFaults }) => setFaults(io, network, options))),
    );
}

function standardCommands(program: Command, io: Io, paint: Paint, end: End): void {
  const appads = program.command('appads').description('app-ads.txt: show, lint, merge, verify');
  const work = () => import('./commands/app-ads.js');
  appads
    .command('show')
    .description('print the file that the networks of all titles ask for')
    .addOption(json())
    .action((options) => end(work().then(({ showAppAds }) => showAppAds(io, paint, options))));
  appads
    .command('lint')
    .description('check a file; every fault with its line')
    .argument('<file>', 'an app-ads.txt file; - for standard input')
    .addOption(json())
    .action((file: string, options) =>
      end(work().then(({ lintAppAds }) => lintAppAds(io, paint, file, options))),
    );
  appads
    .command('merge')
    .description('bring what is missing into a file, and change nothing else')
    .argument('<file>')
    .option('-w, --write', 'write the file')
    .addOption(json())
    .action((file: string, options) =>
      end(work().then(({ mergeAppAds }) => mergeAppAds(io, paint, file, options))),
    );
  appads
    .command('verify')
    .description('hold what the developer site serves against what is needed, and say why it matters')
    .option('--url <url>', 'where the file is served (else /app-ads.txt of the publisher’s domain)')
    .addOption(json())
    .action((options) => end(work().then(({ verifyAppAds }) => verifyAppAds(io, paint, options))));
}

function serviceCommands(program: Command, io: Io, paint: Paint, end: End): void {
  const port = () =>
    new Option('-p, --port <port>', 'port on 127.0.0.1').argParser(portNumber).default(usualPort);
  program
    .command('serve')
    .description('start the service and its console')
    .addOption(port())
    .option('--root <dirs...>', 'folders below which trees may be linked')
    .addOption(
      new Option('--log-level <level>').choices(['debug', 'info', 'warn', 'error', 'silent']).default('info'),
    )
    .action((options) => end(import('./commands/serve.js').then(({ serve }) => serve(io, options))));
  program
    .command('demo')
    .description('start the service with the demo’s roster and a copy of its trees')
    .addOption(port())
    .option('--walk', 'go the whole way in the terminal without a person, then stop')
    .action((options) => end(import('./commands/demo.js').then(({ demo }) => demo(io, paint, options))));
  program
    .command('docs', { hidden: true })
    .description('write the pages and schemas that are made from the code')
    .requiredOption('--write <dir>')
    .option('--check', 'only say whether they are current')
    .action((options) =>
      end(
        import('./commands/docs.js').then(({ writeDocs }) =>
          writeDocs(io, buildProgram(io, paint, { code: 0 }), options),
        ),
      ),
    );
}

function oneOf(what: string, choices: readonly string[]): (value: string) => string {
  return (value) => {
    if (choices.includes(value)) return value;
    throw new InvalidArgumentError(
      `There is no ${what} ${JSON.stringify(value)}. It is one of ${choices.join(', ')}.`,
    );
  };
}

function portNumber(value: string): number {
  const port = Number(value);
  if (Number.isInteger(port) && port >= 0 && port < 65_536) return port;
  throw new InvalidArgumentError('A port is a whole number from 0 to 65535.');
}
