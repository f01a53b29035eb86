import type { Command } from 'commander';
import { json, type Group, type GroupContext } from './group.js';

const publishers = () => import('../commands/publisher.js');
const secrets = () => import('../commands/secrets.js');
const rosterWork = () => import('../commands/roster.js');

/** The publisher, its secrets, and the roster as a document. */
export const rosterCommands: Group = (program, context) => {
  const publisher = program.command('publisher').description('the publisher: show, set');
  publisherShowCommand(publisher, context);
  publisherSetCommand(publisher, context);
  const secret = program.command('secret').description('secrets: list, set, unset, allow, disallow');
  secretListCommand(secret, context);
  secretSetCommand(secret, context);
  secretUnsetCommand(secret, context);
  secretAllowCommand(secret, context);
  secretDisallowCommand(secret, context);
  const roster = program.command('roster').description('the roster as a document: export, import, schema');
  rosterExportCommand(roster, context);
  rosterImportCommand(roster, context);
  rosterSchemaCommand(roster, context);
};

function publisherShowCommand(publisher: Command, { io, end }: GroupContext): void {
  publisher
    .command('show')
    .description('show the publisher, its accounts and its credentials by name')
    .addOption(json())
    .action((options) => end(publishers().then(({ showPublisher }) => showPublisher(io, options))));
}

function publisherSetCommand(publisher: Command, { io, paint, end }: GroupContext): void {
  publisher
    .command('set')
    .description('set the publisher; options left out keep their values')
    .option('--name <name>', 'the name of the publisher')
    .option('--domain <domain>', 'the developer site')
    .option('--account <pairs...>', 'the account at a network: marlstone=SM-20418')
    .option('--credential <pairs...>', 'a credential, by the name of its secret: NETWORK.NAME=secret:NAME')
    .addOption(json())
    .action((options) => end(publishers().then(({ setPublisher }) => setPublisher(io, paint, options))));
}

function secretListCommand(secret: Command, { io, paint, end }: GroupContext): void {
  secret
    .command('list')
    .description('show where each secret of the roster comes from, never its value')
    .addOption(json())
    .action((options) => end(secrets().then(({ listSecrets }) => listSecrets(io, paint, options))));
}

function secretSetCommand(secret: Command, { io, paint, end }: GroupContext): void {
  secret
    .command('set')
    .description('store a secret from standard input in a file that only you can read')
    .argument('<name>')
    .action((name: string) => end(secrets().then(({ setSecret }) => setSecret(io, paint, name))));
}

function secretUnsetCommand(secret: Command, { io, paint, end }: GroupContext): void {
  secret
    .command('unset')
    .description('remove a secret from that file')
    .argument('<name>')
    .action((name: string) => end(secrets().then(({ unsetSecret }) => unsetSecret(io, paint, name))));
}

function secretAllowCommand(secret: Command, { io, paint, end }: GroupContext): void {
  secret
    .command('allow')
    .description('allow a secret to be sent to a host; it is never sent to others')
    .argument('<name>')
    .requiredOption('--host <host>', 'such as inventory.marlstone.example, or 127.0.0.1:4871 with its port')
    .action((name: string, options) =>
      end(secrets().then(({ allowSecret }) => allowSecret(io, paint, name, options))),
    );
}

function secretDisallowCommand(secret: Command, { io, paint, end }: GroupContext): void {
  secret
    .command('disallow')
    .description('stop sending a secret to a host')
    .argument('<name>')
    .requiredOption('--host <host>', 'the host, as it was allowed')
    .action((name: string, options) =>
      end(secrets().then(({ disallowSecret }) => disallowSecret(io, paint, name, options))),
    );
}

function rosterExportCommand(roster: Command, { io, end }: GroupContext): void {
  roster
    .command('export')
    .description(
      'write the roster and accepted findings as YAML; your own profiles go into a folder beside it',
    )
    .argument('[file]')
    .addOption(json())
    .action((file: string | undefined, options) =>
      end(rosterWork().then(({ exportRoster }) => exportRoster(io, file, options))),
    );
}

function rosterImportCommand(roster: Command, { io, paint, end }: GroupContext): void {
  roster
    .command('import')
    .description('import a document and the profiles beside it, after showing what would change')
    .argument('<file>', 'a YAML document; - for standard input')
    .option('-y, --yes', 'do not ask for confirmation')
    .option('--dry-run', 'only show what would change')
    .option('--prune', 'remove titles that the document does not name')
    .addOption(json())
    .action((file: string, options) =>
      end(rosterWork().then(({ importRoster }) => importRoster(io, paint, file, options))),
    );
}

function rosterSchemaCommand(roster: Command, { io, end }: GroupContext): void {
  roster
    .command('schema')
    .description('print the JSON Schema of the document')
    .action(() => end(import('../commands/docs.js').then(({ printSchema }) => printSchema(io, 'roster'))));
}
