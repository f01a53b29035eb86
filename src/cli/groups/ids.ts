import { Option, type Command } from 'commander';
import { platformNames, stageNames } from '../../core/words/names.js';
import { json, type Group, type GroupContext } from './group.js';

/** IDs: by hand, from a network’s list, or made at the network. */
export const idCommands: Group = (program, context) => {
  const { io, paint, end } = context;
  const ids = () => import('../commands/ids.js');
  const id = program.command('id').description('IDs: list, set, unset, trace, collect');
  id.command('list')
    .description('list every ID with its state')
    .argument('<title>')
    .addOption(json())
    .action((name: string, options) => end(ids().then(({ listIds }) => listIds(io, name, options))));
  id.command('trace')
    .description('tell all that is known of an ID: whose it is, where it is, when it was set, what it earned')
    .argument('<id>')
    .addOption(json())
    .action((value: string, options) => end(ids().then(({ traceId }) => traceId(io, paint, value, options))));
  program
    .command('find')
    .description('find a text in IDs, titles, placements, networks and rules')
    .argument('<text>')
    .addOption(json())
    .action((text: string, options) => end(ids().then(({ find }) => find(io, text, options))));
  const slot = (command: Command) =>
    command
      .requiredOption('--network <network>')
      .addOption(new Option('--platform <platform>').choices(platformNames).makeOptionMandatory())
      .addOption(new Option('--stage <stage>').choices(stageNames).default('production'))
      .option('--placement <placement>', 'the placement; left out for an app ID')
      .option('--credential <name>', 'a credential of the edition instead: give secret:NAME')
      .addOption(json());
  slot(
    id.command('set').description('put an ID into the roster').argument('<title>').argument('<id>'),
  ).action((name: string, value: string, options) =>
    end(ids().then(({ setId }) => setId(io, name, value, options))),
  );
  id.command('collect')
    .description('bring a network’s list of units in, and put the IDs that belong to a title into the roster')
    .argument('<title>')
    .requiredOption('--network <network>')
    .option('--csv <file>', 'a table that the network’s pages gave out, instead of asking the network')
    .option('--column <pairs...>', 'columns that are called otherwise than the profile says: id="Ad unit"')
    .option(
      '--encoding <name>',
      'the encoding of the table, where it cannot be detected: windows-1252, macintosh',
    )
    .option('--separator <character>', 'what parts the columns (else it is found out); tab for a tabulator')
    .option('--take-low', 'also take matches of low confidence')
    .option('--accept-names', 'the names that units bear now are the ones they are known by')
    .option('--dry-run', 'only show what would be taken')
    .option('-y, --yes', 'do not ask')
    .addOption(json())
    .action((name: string, options) =>
      end(import('../commands/collect.js').then(({ collect }) => collect(io, paint, name, options))),
    );
  slot(id.command('unset').description('take an ID out').argument('<title>')).action(
    (name: string, options) => end(ids().then(({ setId }) => setId(io, name, null, options))),
  );
  provisionCommand(program, context);
};

function provisionCommand(program: Command, { io, paint, end }: GroupContext): void {
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
      end(import('../commands/provision.js').then(({ provision }) => provision(io, paint, title, options))),
    );
}
