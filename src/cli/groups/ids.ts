import { Option, type Command } from 'commander';
import { platformNames, stageNames } from '../../core/words/names.js';
import { json, type Group, type GroupContext } from './group.js';

/** Where an ID belongs. */
const slot = (command: Command) =>
  command
    .requiredOption('--network <network>', 'the network that issued the ID')
    .addOption(
      new Option('--platform <platform>', 'the platform of the app')
        .choices(platformNames)
        .makeOptionMandatory(),
    )
    .addOption(
      new Option('--stage <stage>', 'the stage whose builds carry the ID')
        .choices(stageNames)
        .default('production'),
    )
    .option('--placement <placement>', 'the placement; leave out for an app ID')
    .option('--credential <name>', 'a credential of the edition instead of an ID; its value is secret:NAME')
    .addOption(json());

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
    .description(
      'show everything known about an ID: its owner, where it is used, when it was set, what it earned',
    )
    .argument('<id>')
    .addOption(json())
    .action((value: string, options) => end(ids().then(({ traceId }) => traceId(io, paint, value, options))));
  program
    .command('find')
    .description('find a text in IDs, titles, placements, networks and rules')
    .argument('<text>')
    .addOption(json())
    .action((text: string, options) => end(ids().then(({ find }) => find(io, text, options))));
  slot(id.command('set').description('add an ID to the roster').argument('<title>').argument('<id>')).action(
    (name: string, value: string, options) => end(ids().then(({ setId }) => setId(io, name, value, options))),
  );
  id.command('collect')
    .description('fetch a network’s list of units, and add the IDs of a title to the roster')
    .argument('<title>')
    .requiredOption('--network <network>', 'the network to ask')
    .option('--csv <file>', 'read a table exported from the network’s console instead of asking the network')
    .option('--column <pairs...>', 'columns whose names differ from the profile: id="Ad unit"')
    .option(
      '--encoding <name>',
      'the encoding of the table, if it cannot be detected: windows-1252, macintosh',
    )
    .option('--separator <character>', 'the character between values, or tab (default: detected)')
    .option('--take-low', 'also accept matches of low confidence')
    .option('--accept-names', 'accept the current names of units as the expected ones')
    .option('--dry-run', 'only show what would be added')
    .option('-y, --yes', 'do not ask for confirmation')
    .addOption(json())
    .action((name: string, options) =>
      end(import('../commands/collect.js').then(({ collect }) => collect(io, paint, name, options))),
    );
  slot(id.command('unset').description('remove an ID').argument('<title>')).action((name: string, options) =>
    end(ids().then(({ setId }) => setId(io, name, null, options))),
  );
  provisionCommand(program, context);
};

function provisionCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('provision')
    .description('create what a title lacks at its networks, and add the IDs to the roster')
    .argument('<title>')
    .option('--network <networks...>', 'only these networks')
    .addOption(new Option('--platform <platforms...>', 'only these platforms').choices(platformNames))
    .option('--names <pattern>', 'pattern for unit names (default: {title}_{placement}_{format}_{platform})')
    .addOption(
      new Option('--settle <side>', 'whose settings to keep when the two differ').choices([
        'roster',
        'partner',
      ]),
    )
    .option('--dry-run', 'only show what would be done')
    .option('-y, --yes', 'do not ask for confirmation')
    .addOption(json())
    .action((title: string, options) =>
      end(import('../commands/provision.js').then(({ provision }) => provision(io, paint, title, options))),
    );
}
