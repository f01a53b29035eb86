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
    .description('list the known networks')
    .addOption(json())
    .action((options) => end(networks().then(({ listNetworks }) => listNetworks(io, paint, options))));
}

function networkShowCommand(network: Command, { io, end }: GroupContext): void {
  network
    .command('show')
    .description('print a profile as written')
    .argument('<network>')
    .addOption(json())
    .action((name: string, options) =>
      end(networks().then(({ showNetwork }) => showNetwork(io, name, options))),
    );
}

function networkLintCommand(network: Command, { io, paint, end }: GroupContext): void {
  network
    .command('lint')
    .description('check profiles, and report every fault with its line and column')
    .argument('<files...>')
    .addOption(json())
    .action((files: string[], options) =>
      end(networks().then(({ lintNetworks }) => lintNetworks(io, paint, files, options))),
    );
}

function networkNewCommand(network: Command, { io, paint, end }: GroupContext): void {
  network
    .command('new')
    .description('draft a profile from a few answers, or from what a tree declares and no profile explains')
    .argument('[file]', 'where to write it; - for standard output (default: a draft in the data folder)')
    .option('--id <id>', 'short name: small letters, digits and dashes')
    .option('--name <name>', 'display name')
    .option('--about <words>', 'what the network sells, and where apps pass its IDs')
    .addOption(new Option('--platform <platforms...>', 'the platforms that it serves').choices(platformNames))
    .addOption(new Option('--format <formats...>', 'the ad formats that it sells').choices(formatNames))
    .option('--app-id <ids...>', 'examples of app IDs, such as your own: android=ID ios=ID')
    .option('--unit-id <ids...>', 'examples of unit IDs: android=ID ios=ID')
    .option('--app-sample <ids...>', 'app IDs that the network publishes for testing: android=ID ios=ID')
    .option('--unit-sample <ids...>', 'unit IDs that the network publishes for testing: android=ID ios=ID')
    .option('--manifest-key <key>', 'the manifest key for the app ID')
    .option('--plist-key <key>', 'the property-list key for the app ID')
    .option('--dependency <coordinates...>', 'Android: the libraries of its SDK, as group:artifact:version')
    .option('--repository <urls...>', 'repositories that publish the dependencies')
    .option('--pod <pods...>', 'iOS: the pods of its SDK, as name:version')
    .option('--permission <names...>', 'Android: the permissions that its SDK needs')
    .option('--from-tree <dir>', 'draft it from a source tree')
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
    .description('show what a profile recognises in a tree, and which of its requirements the tree lacks')
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
    .description('add a profile to the data folder, so that every command knows its network')
    .argument('<file>', 'a YAML file')
    .option('-y, --yes', 'replace an existing profile without confirmation')
    .option('--despite-ids', 'add it even if IDs in the roster do not match its patterns')
    .addOption(json())
    .action((file: string, options) =>
      end(networks().then(({ addNetwork }) => addNetwork(io, paint, file, options))),
    );
}

function networkRemoveCommand(network: Command, { io, paint, end }: GroupContext): void {
  network
    .command('remove')
    .description('remove a profile that no title uses from the data folder')
    .argument('<network>')
    .option('-y, --yes', 'do not ask for confirmation')
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
