import { Option, type Command } from 'commander';
import { formatNames, platformNames } from '../../core/words/names.js';
import { json, type Group, type GroupContext } from './group.js';

const networks = () => import('../commands/networks.js');

/** Network profiles. */
export const networkCommands: Group = (program, context) => {
  const network = program
    .command('network')
    .description('network profiles: list, show, new, lint, test, add, remove, schema');
  networkListCommand(network, context);
  networkShowCommand(network, context);
  networkLintCommand(network, context);
  networkNewCommand(network, context);
  networkTestCommand(network, context);
  networkAddCommand(network, context);
  networkRemoveCommand(network, context);
  networkSchemaCommand(network, context);
};

function networkListCommand(network: Command, { io, paint, end }: GroupContext): void {
  network
    .command('list')
    .description('list the networks that are known')
    .addOption(json())
    .action((options) => end(networks().then(({ listNetworks }) => listNetworks(io, paint, options))));
}

function networkShowCommand(network: Command, { io, end }: GroupContext): void {
  network
    .command('show')
    .description('print a profile as it is written')
    .argument('<network>')
    .addOption(json())
    .action((name: string, options) =>
      end(networks().then(({ showNetwork }) => showNetwork(io, name, options))),
    );
}

function networkLintCommand(network: Command, { io, paint, end }: GroupContext): void {
  network
    .command('lint')
    .description('check profiles; every fault with its line and column')
    .argument('<files...>')
    .addOption(json())
    .action((files: string[], options) =>
      end(networks().then(({ lintNetworks }) => lintNetworks(io, paint, files, options))),
    );
}

function networkNewCommand(network: Command, { io, paint, end }: GroupContext): void {
  network
    .command('new')
    .description('draft a profile from a few answers, or from what a tree declares and no profile claims')
    .argument('[file]', 'where to write it; - for standard output (else a draft in the data folder)')
    .option('--id <id>', 'short name: small letters, digits and dashes')
    .option('--name <name>', 'the name people see')
    .option('--about <words>', 'what it sells and how its IDs are handed over')
    .addOption(new Option('--platform <platforms...>').choices(platformNames))
    .addOption(new Option('--format <formats...>').choices(formatNames))
    .option('--app-id <ids...>', 'app IDs that show their shape, such as your own: android=ID ios=ID')
    .option('--unit-id <ids...>', 'unit IDs that show their shape: android=ID ios=ID')
    .option('--app-sample <ids...>', 'the app IDs that the network gives out for testing: android=ID ios=ID')
    .option(
      '--unit-sample <ids...>',
      'the unit IDs that the network gives out for testing: android=ID ios=ID',
    )
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
      end(
        import('../commands/network-new.js').then(({ newNetwork }) => newNetwork(io, paint, file, options)),
      ),
    );
}

function networkTestCommand(network: Command, { io, paint, end }: GroupContext): void {
  network
    .command('test')
    .description('say what a profile recognises in a tree, and what of its needs the tree lacks')
    .argument('<profile>', 'a YAML file, or the ID of a known network')
    .requiredOption('--tree <dir>', 'folder of a source tree')
    .addOption(json())
    .action((profile: string, options) =>
      end(networks().then(({ testNetwork }) => testNetwork(io, paint, profile, options))),
    );
}

function networkAddCommand(network: Command, { io, paint, end }: GroupContext): void {
  network
    .command('add')
    .description('keep a profile in the data folder, so that every command knows its network')
    .argument('<file>', 'a YAML file')
    .option('-y, --yes', 'do not ask before another profile is replaced')
    .option('--despite-ids', 'keep it though IDs on record do not fit its patterns')
    .addOption(json())
    .action((file: string, options) =>
      end(networks().then(({ addNetwork }) => addNetwork(io, paint, file, options))),
    );
}

function networkRemoveCommand(network: Command, { io, paint, end }: GroupContext): void {
  network
    .command('remove')
    .description('forget a profile of the data folder that no title uses')
    .argument('<network>')
    .option('-y, --yes', 'do not ask')
    .addOption(json())
    .action((name: string, options) =>
      end(networks().then(({ removeNetwork }) => removeNetwork(io, paint, name, options))),
    );
}

function networkSchemaCommand(network: Command, { io, end }: GroupContext): void {
  network
    .command('schema')
    .description('print the JSON Schema of profiles')
    .action(() => end(import('../commands/docs.js').then(({ printSchema }) => printSchema(io, 'profile'))));
}
