import { Option, type Command } from 'commander';
import { usualPartnerPort, usualPort } from '../connect.js';
import { roleNames } from '../../api/roles.js';
import { json, portNumber, type Group, type GroupContext } from './group.js';

const port = () =>
  new Option('-p, --port <port>', 'port on 127.0.0.1').argParser(portNumber).default(usualPort);
const tokens = () => import('../commands/tokens.js');

/** The service, the demo, and the documents made from the code. */
export const serviceCommands: Group = (program, context) => {
  serveCommand(program, context);
  const token = program
    .command('token')
    .description('tokens for a service that others reach: add, list, revoke');
  tokenAddCommand(token, context);
  tokenListCommand(token, context);
  tokenRevokeCommand(token, context);
  demoCommand(program, context);
  docsCommand(program, context);
};

function serveCommand(program: Command, { io, end }: GroupContext): void {
  program
    .command('serve')
    .description('start the service and its console')
    .addOption(port())
    .option('--root <dirs...>', 'folders whose trees may be linked')
    .option(
      '--listen <address>',
      'listen on this address instead of 127.0.0.1, for a team; every caller needs a token',
    )
    .option('--require-token', 'require tokens on 127.0.0.1 too, for a machine with several users')
    .option('--host-name <names...>', 'host names under which a proxy forwards requests')
    .option('--behind-proxy', 'take a caller’s address from X-Forwarded-For, as set by a proxy')
    .addOption(
      new Option('--log-level <level>', 'the least severe log entries to write')
        .choices(['debug', 'info', 'warn', 'error', 'silent'])
        .default('info'),
    )
    .action((options) => end(import('../commands/serve.js').then(({ serve }) => serve(io, options))));
}

function tokenAddCommand(token: Command, { io, paint, end }: GroupContext): void {
  token
    .command('add')
    .description('create a token, which is shown only once')
    .argument('<name>', 'who uses it, such as build-server')
    .addOption(new Option('--role <role>', 'what its owner may do').choices(roleNames).makeOptionMandatory())
    .addOption(json())
    .action((name: string, options) =>
      end(tokens().then(({ addToken }) => addToken(io, paint, name, options))),
    );
}

function tokenListCommand(token: Command, { io, paint, end }: GroupContext): void {
  token
    .command('list')
    .description('list the tokens: role, when each was made, last used, revoked')
    .addOption(json())
    .action((options) => end(tokens().then(({ listTokens }) => listTokens(io, paint, options))));
}

function tokenRevokeCommand(token: Command, { io, paint, end }: GroupContext): void {
  token
    .command('revoke')
    .description('revoke a token, from the next request on')
    .argument('<name>')
    .action((name: string) => end(tokens().then(({ revokeToken }) => revokeToken(io, paint, name))));
}

function demoCommand(program: Command, { io, paint, end, run }: GroupContext): void {
  program
    .command('demo')
    .description('start the service with a demo roster, copies of the demo trees, and the simulated partner')
    .addOption(port())
    .addOption(
      new Option('--partner-port <port>', 'port of the simulated partner')
        .argParser(portNumber)
        .default(usualPartnerPort),
    )
    .option('--walk', 'run every step in the terminal without input, then stop')
    .action((options) =>
      end(import('../commands/demo.js').then(({ demo }) => demo(io, paint, options, run))),
    );
}

function docsCommand(program: Command, { io, end, whole }: GroupContext): void {
  program
    .command('docs', { hidden: true })
    .description('write the pages and schemas that are made from the code')
    .requiredOption('--write <dir>', 'the folder of the pages')
    .option('--check', 'only say whether they are current')
    .action((options) =>
      end(import('../commands/docs.js').then(({ writeDocs }) => writeDocs(io, whole(), options))),
    );
}
